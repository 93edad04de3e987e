import type { Goal } from "../../api/client";
import { jarText, PRODUCT } from "../../parts/format";
import { Stepper } from "../../parts/Stepper";
import { Touch } from "../../parts/Touch";

type Kind = Omit<Goal, "count" | "preference">;

const hot = { medium: null, pack: "hot", thickness: null } as const;

/** Everything the shelf can ask for, in its usual jars. */
const COULD_ASK: readonly Kind[] = [
  { product: "whole", medium: "water", pack: "raw", thickness: null, jar: "quart" },
  { product: "crushed", ...hot, jar: "quart" },
  { product: "crushed", ...hot, jar: "pint" },
  { product: "juice", ...hot, jar: "quart" },
  { product: "sauce", ...hot, thickness: "thin", jar: "pint" },
  { product: "sauce", ...hot, thickness: "thin", jar: "quart" },
  { product: "sauce", ...hot, thickness: "thick", jar: "pint" },
  { product: "paste", ...hot, jar: "half_pint" },
];

export function goalText(goal: Kind, count = 2): string {
  const thick = goal.thickness ? `${goal.thickness} ` : "";
  return `${jarText(goal.jar, count)} of ${thick}${PRODUCT[goal.product].toLowerCase()}`;
}

const same = (a: Kind, b: Kind) =>
  a.product === b.product && a.thickness === b.thickness && a.jar === b.jar && a.medium === b.medium;

const HOW_MUCH = ["a little", "rather", "very much"] as const;

/** So many of this, so many of that, and how much they are wanted. */
export function GoalList({ goals, onChange }: { goals: Goal[]; onChange: (goals: Goal[]) => void }) {
  const set = (place: number, next: Partial<Goal>) =>
    onChange(goals.map((goal, i) => (i === place ? { ...goal, ...next } : goal)));
  const open = COULD_ASK.filter((kind) => !goals.some((goal) => same(goal, kind)));
  return (
    <div>
      <p className="mb-1 text-sm font-semibold text-muted">The shelf asks for</p>
      <ul className="grid gap-2">
        {goals.map((goal, place) => (
          <li key={goalText(goal)} className="flex flex-wrap items-center gap-2">
            <Stepper
              text={String(goal.count)}
              onLess={() =>
                goal.count <= 1
                  ? onChange(goals.filter((_, i) => i !== place))
                  : set(place, { count: goal.count - 1 })
              }
              onMore={() => set(place, { count: goal.count + 1 })}
            />
            <span className="min-w-0 grow font-semibold">{goalText(goal, goal.count)}</span>
            <Touch onPress={() => set(place, { preference: (goal.preference % HOW_MUCH.length) + 1 })}>
              {HOW_MUCH[goal.preference - 1]}
            </Touch>
          </li>
        ))}
      </ul>
      {open.length > 0 && (
        <select
          aria-label="Ask for more"
          value=""
          onChange={(event) => {
            const kind = open.find((item) => goalText(item) === event.target.value);
            if (kind !== undefined) onChange([...goals, { ...kind, count: 6, preference: 2 }]);
          }}
          className="mt-2 min-h-[48px] w-full rounded-xl border-2 border-line bg-white px-3 font-semibold"
        >
          <option value="">Ask for something else…</option>
          {open.map((kind) => (
            <option key={goalText(kind)}>{goalText(kind)}</option>
          ))}
        </select>
      )}
    </div>
  );
}
