import { Touch } from "./Touch";

/** A time of day with a touch for earlier and one for later. */
export function TimeStepper({
  label,
  text,
  onLess,
  onMore,
}: {
  label: string;
  text: string;
  onLess: (() => void) | undefined;
  onMore: (() => void) | undefined;
}) {
  return (
    <div>
      <p className="mb-1 text-sm font-semibold text-muted">{label}</p>
      <div className="flex items-center gap-1.5">
        <Touch label={`Less ${label}`} disabled={onLess === undefined} onPress={() => onLess?.()}>
          −
        </Touch>
        <span className="min-w-14 text-center font-semibold">{text}</span>
        <Touch label={`More ${label}`} disabled={onMore === undefined} onPress={() => onMore?.()}>
          +
        </Touch>
      </div>
    </div>
  );
}
