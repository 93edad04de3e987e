import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Condition, type Fault, type Kind, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { CONDITION, FAULT, KIND, weightText } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
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
  const change = useChange(({ id, removed }: { id: number; removed: boolean }) =>
    take(api.PATCH("/api/lots/{id}", { params: { path: { id } }, body: { removed } })),
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
            fault: condition === "out" ? fault : null,
            frozen: frozen === "frozen",
          },
        }),
      ),
    (lot) => {
      setTyped("");
      say(`${weightText(lot.weight_g, units)} weighed in`, () =>
        change.mutate({ id: lot.id, removed: true }),
      );
    },
  );
  const names = [...(containers?.taught ?? []), ...(containers?.known ?? [])].map(
    (container) => container.name,
  );
  const ready = typed.trim() !== "" && Number.isFinite(Number(typed));
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
        <Choice
          label="State"
          value={frozen}
          options={[
            { value: "fresh", text: "Fresh" },
            { value: "frozen", text: "Frozen" },
          ]}
          onChoose={setFrozen}
        />
        <Trouble error={add.error} />
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
