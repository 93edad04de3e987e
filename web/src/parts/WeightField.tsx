import { useId } from "react";

/** A number as it was typed; nothing is repaired, the server says what is wrong with it. */
export function WeightField({
  label,
  typed,
  unit,
  onType,
  wide = false,
}: {
  label: string;
  typed: string;
  unit: string;
  onType: (typed: string) => void;
  wide?: boolean;
}) {
  const id = useId();
  const bad = typed.trim() !== "" && !Number.isFinite(Number(typed));
  return (
    <div className={wide ? "grow" : ""}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold text-muted">
        {label}
      </label>
      <span className="flex items-baseline gap-2">
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          value={typed}
          aria-invalid={bad}
          onChange={(event) => onType(event.target.value)}
          className={`min-h-[52px] min-w-0 rounded-xl border-2 border-cobalt bg-white px-3 font-slab text-2xl font-bold aria-invalid:border-tomato ${wide ? "w-full max-w-48" : "w-28"}`}
        />
        <span className="text-lg font-semibold text-muted">{unit}</span>
      </span>
      {bad && <p className="mt-1 text-sm font-semibold text-tomato-deep">Give a number, such as 12.5</p>}
    </div>
  );
}
