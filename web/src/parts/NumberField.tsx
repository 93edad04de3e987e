import { useId } from "react";
import { notANumber, readNumber, saidText, stepped, typedOf, understood } from "../writing/number";
import { Touch } from "./Touch";
import { useHold } from "./useHold";

interface Props {
  label: string;
  typed: string;
  onType: (typed: string) => void;
  /** What a touch on − or + does; typing it when left out. */
  onStep?: (typed: string) => void;
  /** The field is left, or Enter is struck in it. */
  onLeave?: () => void;
  unit?: string;
  /** With a step there is a touch to lower it and one to raise it. */
  step?: number;
  least?: number;
  most?: number;
  error?: string | undefined;
  /** The label is read out and not shown: the unit says it. */
  quiet?: boolean;
  wide?: boolean;
}

/** One step up or down; it repeats while the finger stays. */
function Step({
  label,
  sign,
  disabled,
  onPress,
}: {
  label: string;
  sign: string;
  disabled: boolean;
  onPress: () => void;
}) {
  const hold = useHold(disabled ? undefined : onPress);
  return (
    <Touch
      label={label}
      disabled={disabled}
      hold={hold}
      className="min-w-[52px] touch-manipulation select-none"
    >
      {sign}
    </Touch>
  );
}

/** A number, typed or stepped; what was typed stays as it was typed. */
export function NumberField(props: Props) {
  const { label, typed, onType, unit = "", step, error, quiet = false, wide = false } = props;
  const { least = 0, most = Number.MAX_SAFE_INTEGER } = props;
  const id = useId();
  const read = readNumber(typed, unit);
  const value = read.is === "number" ? read.value : null;
  const unread = typed.trim() !== "" && value === null ? notANumber(typed, unit) : undefined;
  const wrong = unread ?? error;
  const says = wrong === undefined ? understood(typed, unit) : null;
  const touch = (by: number, sign: string, word: string) => (
    <Step
      label={`${word} ${label}`}
      sign={sign}
      disabled={value !== null && (by < 0 ? value <= least : value >= most)}
      onPress={() => (props.onStep ?? onType)(stepped(typed, by, least, most))}
    />
  );
  return (
    <div className={wide ? "grow" : ""}>
      <label htmlFor={id} className={quiet ? "sr-only" : "mb-1 block text-sm font-semibold text-muted"}>
        {label}
      </label>
      <span className="flex items-center gap-1.5">
        {step !== undefined && touch(-step, "−", "Less")}
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          value={typed}
          aria-invalid={wrong !== undefined}
          aria-describedby={wrong === undefined ? undefined : `${id}-wrong`}
          onChange={(event) => onType(event.target.value)}
          onBlur={props.onLeave}
          onKeyDown={(event) => event.key === "Enter" && props.onLeave?.()}
          className={`min-h-[52px] min-w-0 rounded-xl border-2 border-cobalt bg-enamel px-3 font-slab font-bold aria-invalid:border-tomato ${
            step === undefined ? "text-2xl" : "px-1 text-center text-xl"
          } ${wide ? "w-full max-w-48" : step === undefined ? "w-28" : typed.length > 3 ? "w-20" : "w-16"}`}
        />
        {step !== undefined && touch(step, "+", "More")}
        {unit !== "" && <span className="ml-1 font-semibold text-muted">{unit}</span>}
      </span>
      {says !== null && <p className="mt-1 text-sm font-semibold text-muted">= {says}</p>}
      {wrong !== undefined && (
        <p id={`${id}-wrong`} className="mt-1.5 text-sm font-semibold text-alarm">
          {wrong}
        </p>
      )}
      {read.is === "asked" && (
        <span className="mt-1 flex flex-wrap gap-1.5">
          {read.values.map((one) => (
            <Touch key={one} onPress={() => onType(typedOf(one))}>
              {saidText(one, unit)}
            </Touch>
          ))}
        </span>
      )}
    </div>
  );
}
