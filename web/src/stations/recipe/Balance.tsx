import type { Proportion } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { capital } from "../../writing/format";
import { place } from "./model";

/** Where the safe side lies on the bar, between none of it and twice the recipe and more. */
const SAFE = {
  never_less: { from: 0.5, to: 1 },
  never_more: { from: 0, to: 0.5 },
  never: { from: 0, to: 0 },
} as const;

const SIGN = { true: "✓", false: "✕" } as const;

/** A proportion against the recipe's: the middle is the recipe, the safe side is hatched and named. */
function Bar({ line }: { line: Proportion }) {
  if (line.side === "any") return null;
  const side = SAFE[line.side];
  // What the recipe has none of stands at the far end.
  const at = place(line.change) ?? (line.safe === false ? 1 : null);
  const sign = line.safe == null ? "?" : SIGN[line.safe ? "true" : "false"];
  const tone = line.safe == null ? "text-ink" : line.safe ? "text-fine" : "text-alarm";
  return (
    <li className="grid items-center gap-x-3 sm:grid-cols-[minmax(0,15rem)_1fr]">
      <span className={`text-lg font-semibold ${tone}`}>
        {sign} {capital(line.says)}
      </span>
      <svg viewBox="0 0 300 34" className="w-full" aria-hidden="true" preserveAspectRatio="none">
        <defs>
          <pattern
            id="safe-side"
            width="8"
            height="8"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="8" height="8" className="fill-vine-wash" />
            <rect width="3" height="8" className="fill-vine/40" />
          </pattern>
        </defs>
        <rect x="1" y="7" width="298" height="20" rx="6" className="fill-white stroke-line" strokeWidth="2" />
        <rect
          x={side.from * 300 + 1}
          y="7"
          width={(side.to - side.from) * 298}
          height="20"
          rx="6"
          fill="url(#safe-side)"
        />
        <line x1="150" x2="150" y1="2" y2="32" className="stroke-cobalt" strokeWidth="3" />
        {at !== null && (
          <circle
            cx={10 + at * 280}
            cy="17"
            r="9"
            className={line.safe === false ? "fill-tomato stroke-white" : "fill-vine stroke-white"}
            strokeWidth="2"
          />
        )}
        <text
          x={side.from === 0.5 ? 292 : 8}
          y="22"
          textAnchor={side.from === 0.5 ? "end" : "start"}
          className="fill-ink text-[12px] font-semibold"
        >
          {at !== null && Math.abs(at - (side.from === 0.5 ? 1 : 0)) < 0.25 ? "" : WORDS.Side[line.side]}
        </text>
      </svg>
    </li>
  );
}

/** What is in the bowls against the recipe, each to the same tomatoes. */
export function Balance({ proportions }: { proportions: Proportion[] }) {
  return (
    <div>
      <p className="mb-2 text-muted">
        Each to the same tomatoes. The blue line is the recipe; the hatched side is safe.
        {proportions.some((line) => line.averaged) &&
          " Cups and pounds are compared by averages of what they weigh."}
      </p>
      <ul className="grid gap-2">
        {proportions.map((line) => (
          <Bar key={`${line.role} ${line.name}`} line={line} />
        ))}
      </ul>
    </div>
  );
}
