import { useId } from "react";

/** A name or a few words as they are typed. */
export function TextField({
  label,
  typed,
  example,
  error,
  secret = false,
  onType,
}: {
  label: string;
  typed: string;
  example?: string;
  error?: string | undefined;
  /** Shows dots. */
  secret?: boolean;
  onType: (typed: string) => void;
}) {
  const id = useId();
  return (
    <div className="grow">
      <label htmlFor={id} className="mb-1 block text-sm font-semibold text-muted">
        {label}
      </label>
      <input
        id={id}
        type={secret ? "password" : "text"}
        value={typed}
        placeholder={example}
        autoComplete="off"
        aria-invalid={error !== undefined}
        aria-describedby={error === undefined ? undefined : `${id}-wrong`}
        onChange={(event) => onType(event.target.value)}
        className="min-h-[52px] w-full rounded-xl border-2 border-edge bg-enamel px-3 font-semibold aria-invalid:border-tomato"
      />
      {error !== undefined && (
        <p id={`${id}-wrong`} className="mt-1 text-sm font-semibold text-alarm">
          {error}
        </p>
      )}
    </div>
  );
}
