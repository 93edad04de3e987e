import type { FirstLine } from "../../api/client";
import { planPath } from "../plan/model";
import { jarText, loadsText, spanText } from "../../writing/format";

/** "50", or "45 to 60" while something is not said. */
function between(from: number, to: number, text: (minutes: number) => string): string {
  return from === to ? text(from) : `${text(from)} to ${text(to)}`;
}

/** The figures of one line in words. */
export function figuresOf(line: FirstLine): {
  jars: string;
  unit: string;
  range: string;
  time: string;
  work: string;
} {
  const { jars, minutes_from: from, minutes_to: to } = line;
  const time =
    from == null || to == null
      ? "No tested process"
      : `${between(from, to, String)} min, ${line.acid} lemon in each`;
  const loads = loadsText(line.loads);
  const work =
    from == null
      ? (line.refusal ?? "")
      : `${loads}, ${between(line.canner_from, line.canner_to, spanText)} of canner, ${spanText(line.stove)} of stove, ${spanText(line.hands)} of hands`;
  return {
    jars: String(jars.expected),
    unit: jarText(line.jar, jars.expected),
    range: `${jars.low} to ${jars.high}`,
    time,
    work,
  };
}

/** Where a line is begun: the scale first, with what was said, then the plan. */
export function beginPath(line: Parameters<typeof planPath>[0], weighed: string): string {
  return `${planPath(line).replace("/plan?", "/crates?")}&${new URLSearchParams({ weighed }).toString()}`;
}
