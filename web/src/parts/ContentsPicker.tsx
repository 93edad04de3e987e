import { useState } from "react";
import type { Added, Ingredient } from "../api/client";
import { Choice } from "./Choice";
import {
  addedOf,
  ELSE,
  type Group,
  GROUPS,
  groupOf,
  isMeasured,
  LEAVES,
  MEASURES,
  type Measures,
  measuresOf,
  NAMED,
  typedOf,
} from "./contents";
import { INGREDIENT } from "../writing/format";
import { NumberField } from "./NumberField";
import { Pick } from "./Pick";
import { TextField } from "./TextField";

const MEASURE = { cup: "cups", piece: "pieces", lb: "lb", oz: "oz", kg: "kg", g: "g" } as const;

const GROUP: Record<Group, string> = {
  nothing: "Nothing",
  herbs: "Herbs",
  vegetables: "Vegetables",
  else: "Something else",
};

/** What goes in besides tomatoes, acid and salt; nothing is taken as said before somebody says it. */
export function ContentsPicker({
  value,
  onSay,
}: {
  value: Added[] | null;
  onSay: (additions: Added[] | null) => void;
}) {
  const [group, setGroup] = useState<Group | "">(groupOf(value));
  const [typed, setTyped] = useState(() => typedOf(value));
  const [measures, setMeasures] = useState(() => measuresOf(value));
  // What is said elsewhere is shown here; what is being typed here is never drawn anew.
  const given = JSON.stringify(value);
  const [seen, setSeen] = useState(given);
  const [told, setTold] = useState(given);
  if (given !== seen) {
    setSeen(given);
    if (given !== told) {
      setTold(given);
      setGroup(groupOf(value));
      setTyped(typedOf(value));
      setMeasures(measuresOf(value));
    }
  }
  const tell = (next: Added[] | null) => {
    setTold(JSON.stringify(next));
    onSay(next);
  };
  const change = (next: Partial<Record<Ingredient, string>>, by: Measures = measures) => {
    setTyped(next);
    setMeasures(by);
    tell(addedOf(next, by));
  };
  const choose = (next: Group) => {
    setGroup(next);
    if (next === "nothing") {
      setTyped({});
      tell([]);
    } else tell(addedOf(typed, measures));
  };
  const toggle = (what: Ingredient) => {
    const { [what]: had, ...others } = typed;
    change(had === undefined ? { ...typed, [what]: "" } : others);
  };
  return (
    <div className="grid gap-2">
      <Choice
        label="What else goes in?"
        value={group}
        options={GROUPS.map((name) => ({ value: name, text: GROUP[name] }))}
        onChoose={(next) => choose(next)}
      />
      {group !== "" && group !== "nothing" && (
        <div className="flex flex-wrap gap-1.5">
          {ELSE[group].map((what) => (
            <button
              key={what}
              type="button"
              aria-pressed={what in typed}
              onClick={() => toggle(what)}
              className="min-h-[48px] rounded-xl border-2 border-edge bg-enamel px-3 font-semibold hover:border-cobalt aria-pressed:border-cobalt aria-pressed:bg-cobalt-wash"
            >
              {INGREDIENT[what]}
            </button>
          ))}
        </div>
      )}
      {NAMED in typed && (
        <TextField
          label="What is it called?"
          typed={typed[NAMED] ?? ""}
          onType={(text) => change({ ...typed, [NAMED]: text })}
        />
      )}
      <div className="flex flex-wrap gap-x-4 gap-y-2 empty:hidden">
        {(Object.keys(typed) as Ingredient[]).filter(isMeasured).map((what) => (
          <div key={what} className="flex flex-wrap items-end gap-2">
            <NumberField
              label={what === LEAVES ? "Basil leaves in all" : `${INGREDIENT[what]}, chopped, in all`}
              typed={typed[what] ?? ""}
              unit={what === LEAVES ? "leaves" : ""}
              step={what === LEAVES ? 1 : 0.5}
              onType={(text) => change({ ...typed, [what]: text })}
            />
            {what !== LEAVES && (
              <Pick
                label={`${INGREDIENT[what]} measured in`}
                value={measures[what] ?? "cup"}
                options={MEASURES.map((unit) => ({ value: unit, text: MEASURE[unit] }))}
                onChoose={(unit) => change(typed, { ...measures, [what]: unit })}
              />
            )}
          </div>
        ))}
      </div>
    </div>
  );
}
