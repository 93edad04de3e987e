import { Touch } from "./Touch";

/** A number with a touch to lower and one to raise it. */
export function Stepper({
  label,
  text,
  onLess,
  onMore,
  wide = false,
}: {
  label?: string;
  text: string;
  onLess: (() => void) | undefined;
  onMore: (() => void) | undefined;
  /** Room for a word beside the number, so that a column of them lines up. */
  wide?: boolean;
}) {
  return (
    <div>
      {label !== undefined && <p className="mb-1 text-sm font-semibold text-muted">{label}</p>}
      <div className="flex items-center gap-1.5">
        <Touch label={`Less ${label ?? text}`} disabled={onLess === undefined} onPress={() => onLess?.()}>
          −
        </Touch>
        <span className={`text-center font-semibold ${wide ? "min-w-28" : "min-w-10"}`}>{text}</span>
        <Touch label={`More ${label ?? text}`} disabled={onMore === undefined} onPress={() => onMore?.()}>
          +
        </Touch>
      </div>
    </div>
  );
}
