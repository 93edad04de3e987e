import type { Goal } from "../../api/client";
import { CountField } from "../../parts/CountField";
import { Pick } from "../../parts/Pick";
import { Touch } from "../../parts/Touch";
import { COULD_ASK, goalText, HOW_MUCH, sameGoal } from "./model";

/** So many of this, so many of that, and how much they are wanted. */
export function GoalList({ goals, onChange }: { goals: Goal[]; onChange: (goals: Goal[]) => void }) {
  const set = (place: number, next: Partial<Goal>) =>
    onChange(goals.map((goal, i) => (i === place ? { ...goal, ...next } : goal)));
  const open = COULD_ASK.filter((kind) => !goals.some((goal) => sameGoal(goal, kind)));
  return (
    <div>
      <p className="mb-1 text-sm font-semibold text-muted">The shelf asks for</p>
      <ul className="grid gap-2">
        {goals.map((goal, place) => (
          <li key={goalText(goal)} className="flex flex-wrap items-center gap-2">
            <CountField
              quiet
              label={goalText(goal)}
              count={goal.count}
              bound="Goal.count"
              onSet={(count) =>
                count === 0 ? onChange(goals.filter((_, i) => i !== place)) : set(place, { count })
              }
            />
            <span className="min-w-0 grow font-semibold">{goalText(goal, goal.count)}</span>
            <Touch onPress={() => set(place, { preference: (goal.preference % HOW_MUCH.length) + 1 })}>
              {HOW_MUCH[goal.preference - 1]}
            </Touch>
          </li>
        ))}
      </ul>
      {open.length > 0 && (
        <div className="mt-2">
          <Pick
            label="Ask for more"
            value=""
            placeholder="Ask for something else…"
            options={open.map((kind) => ({ value: goalText(kind), text: goalText(kind) }))}
            onChoose={(wanted) => {
              const kind = open.find((item) => goalText(item) === wanted);
              if (kind !== undefined) onChange([...goals, { ...kind, count: 6, preference: 2 }]);
            }}
          />
        </div>
      )}
    </div>
  );
}
