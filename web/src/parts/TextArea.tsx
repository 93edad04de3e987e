import { useId } from "react";

/** Lines as they are typed or pasted. */
export function TextArea({
  label,
  typed,
  rows = 8,
  onType,
}: {
  label: string;
  typed: string;
  rows?: number;
  onType: (typed: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold text-muted">
        {label}
      </label>
      <textarea
        id={id}
        rows={rows}
        value={typed}
        onChange={(event) => onType(event.target.value)}
        className="w-full rounded-xl border-2 border-cobalt bg-enamel p-3 text-lg leading-snug"
      />
    </div>
  );
}
