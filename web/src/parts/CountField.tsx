import { useEffect, useRef, useState } from "react";
import { boundsOf, type Bound } from "./fields";
import { NumberField } from "./NumberField";
import { parseNumber } from "../writing/number";
import { plain } from "../writing/units";

/** What was typed or stepped to, over which count, and whether it is on its way to be kept. */
interface Said {
  text: string;
  over: number;
  sent: boolean;
}

/** A step is kept when no other follows at once: a finger that rests on a touch says one number, not twenty. */
const STEPPED_MS = 250;
/** How long what was said is shown while no answer comes. */
const ANSWERED_MS = 2_000;

/**
 * A count that is kept as soon as it is said: a step when no other follows, a typed number when the field is left or Enter is struck.
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
  const [said, setSaid] = useState<Said | null>(null);
  const waits = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(waits.current), []);
  // What was said stands here until it has come back from where it is kept.
  const typed = said !== null && !(said.sent && said.over !== count) ? said.text : null;
  const ends = boundsOf(bound, plain());
  const from = least ?? ends.least;
  const is = (value: number | null): value is number =>
    value !== null && Number.isInteger(value) && value >= from && value <= ends.most;
  const keep = (text: string | null) => {
    clearTimeout(waits.current);
    if (text === null) return;
    const value = parseNumber(text, unit);
    if (!is(value)) return;
    if (value === count) {
      setSaid(null);
      return;
    }
    setSaid({ text, over: count, sent: true });
    onSet(value);
    waits.current = setTimeout(() => setSaid(null), ANSWERED_MS);
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
        typed === null || is(parseNumber(typed, unit))
          ? undefined
          : `Give a whole number, ${from} to ${ends.most}`
      }
      onType={(text) => setSaid({ text, over: count, sent: false })}
      onLeave={() => keep(typed)}
      onStep={(next) => {
        setSaid({ text: next, over: count, sent: false });
        clearTimeout(waits.current);
        waits.current = setTimeout(() => keep(next), STEPPED_MS);
      }}
    />
  );
}
