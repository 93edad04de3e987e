import { useState, type ReactNode } from "react";
import {
  api,
  take,
  type Canner,
  type Kitchen,
  type Method,
  type PotSize,
  type Units,
} from "../../api/client";
import { useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { CANNED_SIZES, depthText, jarText, METHOD, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Stepper } from "../../parts/Stepper";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { inMm, rulerUnit } from "../../parts/units";
import { PotForm } from "./PotForm";

const METHODS = Object.keys(METHOD) as Method[];

interface CannerPatch {
  method?: Method;
  pot?: PotSize;
  capacity?: Record<string, number>;
  power_w?: number;
  burner_mm?: number;
}

function BurnerForm({
  canner,
  units,
  onSet,
}: {
  canner: Canner;
  units: Units;
  onSet: (patch: CannerPatch) => void;
}) {
  const [power, setPower] = useState("");
  const [wide, setWide] = useState("");
  const number = (typed: string) => (typed.trim() === "" ? undefined : Number(typed));
  const ready = [power, wide].some(isNumber);
  const set = () => {
    onSet({ power_w: number(power), burner_mm: wide.trim() === "" ? undefined : inMm(wide, units) });
    setPower("");
    setWide("");
  };
  const has = [
    canner.power_w == null ? null : `${Math.round(canner.power_w)} W`,
    canner.burner_mm == null ? null : `${depthText(canner.burner_mm, units)} wide`,
  ].filter((part) => part !== null);
  return (
    <div className="mt-4 border-t-2 border-line pt-3">
      <p className="mb-2 text-muted">
        {has.length === 0
          ? "Its burner: with its power, Bodega says when it will boil."
          : `Its burner: ${has.join(", ")}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <WeightField label="Burner power" typed={power} unit="W" onType={setPower} />
        <WeightField label="Burner width" typed={wide} unit={rulerUnit(units)} onType={setWide} />
        <Touch disabled={!ready} onPress={set}>
          Set the burner
        </Touch>
      </div>
    </div>
  );
}

/** The canners of the household: how each heats, what it holds, what it stands on. */
export function CannerList({
  kitchen,
  onPlanFor,
  children,
}: {
  kitchen: Kitchen;
  onPlanFor: (id: number) => void;
  children?: ReactNode;
}) {
  const [wanted, setWanted] = useState<number | null>(null);
  const [name, setName] = useState("");
  const say = useSay();
  const canner = kitchen.canners.find((item) => item.id === wanted) ?? kitchen.canner;
  const change = useChange((body: CannerPatch) =>
    take(api.PATCH("/api/canners/{id}", { params: { path: { id: canner.id } }, body })),
  );
  const add = useChange(
    (body: { name: string; method: Method }) => take(api.POST("/api/canners", { body })),
    (added) => {
      setName("");
      setWanted(added.id);
      say(`${added.name} is there`);
    },
  );
  const capacity = canner.capacity;
  return (
    <Plate title="Your canners">
      {kitchen.canners.length > 1 && (
        <div className="mb-3">
          <Choice
            label="Canner"
            value={String(canner.id)}
            options={kitchen.canners.map((item) => ({ value: String(item.id), text: item.name }))}
            onChoose={(id) => setWanted(Number(id))}
          />
        </div>
      )}
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <p className="text-xl font-semibold">{canner.name}</p>
        {canner.id === kitchen.canner.id ? (
          <span className="font-semibold text-vine">✓ planned for</span>
        ) : (
          <Touch onPress={() => onPlanFor(canner.id)}>Plan for this one</Touch>
        )}
      </div>
      <Choice
        label="It heats with"
        value={canner.method}
        options={optionsOf(METHODS, METHOD)}
        onChoose={(method) => change.mutate({ method })}
      />
      <ul className="mt-4 grid gap-2 sm:grid-cols-2">
        {CANNED_SIZES.map((jar) => {
          const count = capacity[jar] ?? 0;
          const set = (next: number) => change.mutate({ capacity: { ...capacity, [jar]: next } });
          return (
            <li key={jar}>
              <Stepper
                wide
                text={`${count} ${jarText(jar, count)}`}
                onLess={count > 1 ? () => set(count - 1) : undefined}
                onMore={() => set(count + 1)}
              />
            </li>
          );
        })}
      </ul>
      <PotForm pot={canner.pot ?? null} units={kitchen.units} onSet={(pot) => change.mutate({ pot })} />
      <BurnerForm canner={canner} units={kitchen.units} onSet={(patch) => change.mutate(patch)} />
      {children}
      <form
        className="mt-4 flex flex-wrap items-end gap-2 border-t-2 border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== "") add.mutate({ name, method: "boiling_water" });
        }}
      >
        <TextField label="Another canner, called" typed={name} onType={setName} />
        <Touch disabled={name.trim() === ""} onPress={() => add.mutate({ name, method: "boiling_water" })}>
          Add it
        </Touch>
      </form>
      <div className="mt-3">
        <Trouble error={change.error ?? add.error} />
      </div>
    </Plate>
  );
}
