import { useState, type ReactNode } from "react";
import * as v from "valibot";
import { api, take, type Kitchen, type Method, type PotSize } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { CountField } from "../../parts/CountField";
import { named, useFields, useRefusal } from "../../parts/fields";
import { useKitchenNow } from "../../base/clock";
import { CANNED_SIZES, dayOf, jarText, METHOD, MINUTE } from "../../writing/format";
import { Tick } from "../../parts/Tick";
import { Fold } from "../../parts/Fold";
import { TextOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { BurnerForm } from "./BurnerForm";
import { PotForm } from "./PotForm";

const HOUR = 60 * MINUTE;
const METHODS = Object.keys(METHOD) as Method[];

interface CannerPatch {
  method?: Method;
  pot?: PotSize;
  capacity?: Record<string, number>;
  power_w?: number;
  burner_mm?: number;
  multi_cooker?: boolean;
  gauge_tested_in?: number;
}

/** Another canner of the household. */
function AddCanner({ onAdd, error }: { onAdd: (name: string) => void; error: Error | null }) {
  const form = useFields(v.object({ name: named }), { name: "" });
  const { control, handleSubmit, reset } = form;
  const left = useRefusal(form, error, { name: "name" });
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-2 border-t-2 border-line pt-3"
      onSubmit={(event) =>
        void handleSubmit(({ name }) => {
          onAdd(name);
          reset({ name: "" });
        })(event)
      }
    >
      <TextOf control={control} name="name" label="Another canner, called" />
      <Touch submit>Add it</Touch>
      <Trouble error={left} />
    </form>
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
  const say = useSay();
  const canner = kitchen.canners.find((item) => item.id === wanted) ?? kitchen.canner;
  const change = useChange((body: CannerPatch) =>
    take(api.PATCH("/api/canners/{id}", { params: { path: { id: canner.id } }, body })),
  );
  const add = useChange(
    (body: { name: string; method: Method }) => take(api.POST("/api/canners", { body })),
    (added) => {
      setWanted(added.id);
      say(`${added.name} is there`);
    },
  );
  const capacity = canner.capacity;
  const year = Number(dayOf(useKitchenNow(HOUR)).slice(0, 4));
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
          <span className="font-semibold text-fine">✓ planned for</span>
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
      <div className="mt-4 flex flex-wrap gap-x-6 gap-y-3">
        <Tick
          label="It is an electric multi-cooker"
          on={canner.multi_cooker}
          onTick={(on) => change.mutate({ multi_cooker: on })}
        />
        {canner.multi_cooker && <p className="text-muted">A new canner is one of its own: add it below.</p>}
        {canner.method === "pressure_dial" && (
          <Choice
            label="Its dial gauge was tested"
            value={canner.gauge_tested_in == null ? "" : canner.gauge_tested_in >= year ? "now" : "before"}
            options={[
              { value: "now", text: `This year, ${year}` },
              { value: "before", text: "Longer ago, or never" },
            ]}
            onChoose={(when) => change.mutate({ gauge_tested_in: when === "now" ? year : year - 1 })}
          />
        )}
      </div>
      <ul className="mt-4 grid gap-2 sm:grid-cols-2">
        {CANNED_SIZES.map((jar) => {
          const count = capacity[jar] ?? 0;
          const set = (next: number) => change.mutate({ capacity: { [jar]: next } });
          return (
            <li key={jar}>
              <CountField
                quiet
                label={jarText(jar, 2)}
                unit={jarText(jar, count)}
                count={count}
                bound="AuditJar.count"
                least={1}
                onSet={set}
              />
            </li>
          );
        })}
      </ul>
      <div className="mt-4 flex flex-wrap gap-2 border-t-2 border-line pt-4">
        <Fold words="Its pot and burner">
          <PotForm
            pot={canner.pot ?? null}
            units={kitchen.units}
            error={change.error}
            onSet={(pot) => change.mutate({ pot })}
          />
          <BurnerForm canner={canner} units={kitchen.units} onSet={(patch) => change.mutate(patch)} />
        </Fold>
        <Fold words="Your jars, measured">{children}</Fold>
        <Fold words="Another canner">
          <AddCanner onAdd={(name) => add.mutate({ name, method: "boiling_water" })} error={add.error} />
        </Fold>
      </div>
      <div className="mt-3">
        <Trouble error={change.error} />
      </div>
    </Plate>
  );
}
