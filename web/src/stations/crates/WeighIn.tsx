import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Condition, type Fault, type Kind, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { CONDITION, FAULT, KIND, weightText, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Stepper } from "../../parts/Stepper";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";

const BY_SCALE = "scale";

/** Weigh in by the scale or by counted containers. */
export function WeighIn({ units }: { units: Units }) {
  const { data: containers } = useQuery(ask.containers());
  const say = useSay();
  const [by, setBy] = useState(BY_SCALE);
  const [typed, setTyped] = useState("");
  const [kind, setKind] = useState<Kind>("paste");
  const [condition, setCondition] = useState<Condition>("firm_ripe");
  const [fault, setFault] = useState<Fault>("overripe");
  const [frozen, setFrozen] = useState<"fresh" | "frozen">("fresh");
  const unit = units === "us" ? "lb" : "kg";
  const [ripe, setRipe] = useState(100);
  const goesOn = condition === "firm_ripe" || condition === "trim";
  const remove = useChange((ids: number[]) =>
    Promise.all(
      ids.map((id) =>
        take(api.PATCH("/api/lots/{id}", { params: { path: { id } }, body: { removed: true } })),
      ),
    ),
  );
  const add = useChange(
    (value: number) =>
      take(
        api.POST("/api/lots", {
          body: {
            amount:
              by === BY_SCALE ? { weighed: { value, unit } } : { counted: { container: by, count: value } },
            kind,
            condition,
            ripe_percent: goesOn ? ripe : null,
            fault: condition === "out" ? fault : null,
            frozen: frozen === "frozen",
          },
        }),
      ),
    (lots) => {
      setTyped("");
      setRipe(100);
      const grams = lots.reduce((sum, lot) => sum + lot.weight_g, 0);
      const sill = lots.length > 1 ? `, ${weightText(lots[1]?.weight_g ?? 0, units)} of it to the sill` : "";
      say(`${weightText(grams, units)} weighed in${sill}`, () => remove.mutate(lots.map((lot) => lot.id)));
    },
  );
  const names = [...(containers?.taught ?? []), ...(containers?.known ?? [])].map(
    (container) => container.name,
  );
  const ready = isNumber(typed);
  return (
    <Plate title="Weigh in">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) add.mutate(Number(typed));
        }}
      >
        <div className="flex flex-wrap items-end gap-4">
          <WeightField
            wide
            label={by === BY_SCALE ? "On the scale" : `How many of ${by}`}
            typed={typed}
            unit={by === BY_SCALE ? unit : "×"}
            onType={setTyped}
          />
          <label className="grow">
            <span className="mb-1 block text-sm font-semibold text-muted">Counted in</span>
            <select
              value={by}
              onChange={(event) => setBy(event.target.value)}
              className="min-h-[52px] w-full rounded-xl border-2 border-line bg-white px-3 font-semibold"
            >
              <option value={BY_SCALE}>{unit} on a scale</option>
              {names.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
        </div>
        <Choice
          label="Kind"
          value={kind}
          options={optionsOf(["paste", "slicer", "cherry", "mixed"], KIND)}
          onChoose={setKind}
        />
        <Choice
          label="Sorted as"
          value={condition}
          options={optionsOf(["firm_ripe", "trim", "unripe", "out"], CONDITION)}
          onChoose={setCondition}
        />
        {condition === "out" && (
          <Choice
            label="Because it is"
            value={fault}
            options={optionsOf(["overripe", "mouldy", "bruised", "dead_vine"], FAULT)}
            onChoose={setFault}
          />
        )}
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <Choice
            label="State"
            value={frozen}
            options={[
              { value: "fresh", text: "Fresh" },
              { value: "frozen", text: "Frozen" },
            ]}
            onChoose={setFrozen}
          />
          {goesOn && (
            <Stepper
              label="Of it ripe"
              text={`${ripe} %`}
              onLess={ripe > 0 ? () => setRipe(ripe - 10) : undefined}
              onMore={ripe < 100 ? () => setRipe(ripe + 10) : undefined}
            />
          )}
        </div>
        <Trouble error={add.error ?? remove.error} />
        <Touch
          big
          look="main"
          disabled={!ready || add.isPending}
          onPress={() => add.mutate(Number(typed))}
          className="w-full"
        >
          Weigh in
        </Touch>
      </form>
    </Plate>
  );
}
