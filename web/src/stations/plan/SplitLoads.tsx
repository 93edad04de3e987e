import type { SplitAnswer } from "../../api/client";
import { loadsText } from "../../writing/format";
import { goalText } from "./model";

/** How many loads, and how many of them several products share. */
export function sharedText({ loads }: SplitAnswer): string {
  const all = loadsText(loads.length);
  const shared = loads.filter((load) => load.jars.length > 1).length;
  if (shared === 0) return all;
  return shared === loads.length ? `${all}, shared` : `${all}, ${shared} of them shared`;
}

/** What goes into the canner together; of interest when products share a load. */
export function SplitLoads({ answer }: { answer: SplitAnswer }) {
  const { loads, lines } = answer;
  if (loads.every((load) => load.jars.length <= 1)) return null;
  const jarsOf = ({ choice, jars }: SplitAnswer["loads"][number]["jars"][number]) => {
    const line = lines.find((line) => line.choice === choice);
    return line === undefined ? "" : `${jars} ${goalText(line, jars)}`;
  };
  return (
    <section aria-label="In the canner together">
      <h3 className="font-semibold">In the canner together, as long as the longest needs</h3>
      <ul className="mt-1 grid gap-1">
        {loads.map((load, place) => (
          <li key={place} className="flex gap-3 leading-snug">
            <strong className="w-16 shrink-0 font-slab">{load.minutes} min</strong>
            <span>{load.jars.map(jarsOf).join(", ")}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
