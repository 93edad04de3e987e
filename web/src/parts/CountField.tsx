import { useState } from "react";
import { boundsOf, type Bound } from "./fields";
import { NumberField } from "./NumberField";
import { parseNumber } from "./number";
import { plain } from "./units";

/**
 * A count that is kept as soon as it is said: a step at once, a typed number when the field is left or Enter is struck.
 * What cannot be a count stays as it was typed, with what would do.
 */
export function CountField({
  label,
  count,
  bound,
  unit = "",
  step = 1,
  least,
  quiet = false,
  onSet,
}: {
  label: string;
  count: number;
  bound: Bound;
  unit?: string;
  step?: number;
  least?: number;
  quiet?: boolean;
  onSet: (count: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const ends = boundsOf(bound, plain());
  const from = least ?? ends.least;
  const is = (value: number | null): value is number =>
    value !== null && Number.isInteger(value) && value >= from && value <= ends.most;
  const keep = () => {
    if (typed === null) return;
    const value = parseNumber(typed);
    if (!is(value)) return;
    setTyped(null);
    if (value !== count) onSet(value);
  };
  return (
    <NumberField
      quiet={quiet}
      label={label}
      unit={unit}
      typed={typed ?? String(count)}
      step={step}
      least={from}
      most={ends.most}
      error={
        typed === null || is(parseNumber(typed)) ? undefined : `Give a whole number, ${from} to ${ends.most}`
      }
      onType={setTyped}
      onLeave={keep}
      onStep={(next) => {
        setTyped(null);
        onSet(Number(next));
      }}
    />
  );
}
