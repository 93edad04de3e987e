import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { Link } from "react-router";
import * as v from "valibot";
import {
  api,
  take,
  type CookRequest,
  type HeatSetting,
  type KettleView,
  type Kind,
  type Units,
} from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { optionsOf } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { HEAT_SETTING, KIND, volumeText } from "../../parts/format";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { massScale, volumeScale } from "../../parts/units";
import { allowNotifications } from "../../parts/useAlarm";
import { GOAL, type Goal } from "./model";

const NONE = "none";
const EMPTY = {
  kettle: "",
  by: "juice",
  amount: "",
  kind: "paste",
  setting: "high",
  goal: "thin",
  batch: NONE,
};

interface Sent {
  kettle: string;
  by: "juice" | "fruit";
  amount: number;
  kind: Kind;
  setting: HeatSetting;
  goal: Goal;
  batch: string;
}

function schemaOf(units: Units) {
  const rest = {
    kettle: v.string(),
    kind: v.string(),
    setting: v.string(),
    goal: v.string(),
    batch: v.string(),
  };
  return v.variant("by", [
    v.object({ ...rest, by: v.literal("juice"), amount: number("CookRequest.volume_l", volumeScale(units)) }),
    v.object({ ...rest, by: v.literal("fruit"), amount: number("CookRequest.weight_kg", massScale(units)) }),
  ]) as unknown as v.GenericSchema<typeof EMPTY, Sent>;
}

/** What a kettle holds and boils away at a setting, as far as it is known. */
function RateText({ kettle, setting, units }: { kettle: KettleView; setting: string; units: Units }) {
  const rate = kettle.rates.find((item) => item.setting === setting);
  if (rate === undefined) return null;
  return (
    <p className="text-muted">
      Holds {volumeText(kettle.brim_l, units)} to the brim, boils away{" "}
      {volumeText(rate.litres_per_hour, units)} an hour
      {rate.learned_from > 0 ? `, learned from ${rate.learned_from} at this heat` : ", as far as is known"}.
    </p>
  );
}

/** Puts a kettle on: which, how much, how far. */
export function PutOn({ units }: { units: Units }) {
  const { data: kettles } = useQuery(ask.kettles());
  const { data: batches } = useQuery(ask.batches());
  const say = useSay();
  const form = useFields(schemaOf(units), EMPTY);
  const { control, handleSubmit, reset } = form;
  const typed = useWatch({ control }) as typeof EMPTY;
  // The largest free kettle is the one people reach for.
  const free = (kettles ?? []).filter((kettle) => !kettle.busy).sort((a, b) => b.brim_l - a.brim_l);
  const kettle = free.find((item) => String(item.id) === typed.kettle) ?? free[0];
  const start = useChange(
    (body: CookRequest) => take(api.POST("/api/cooks", { body })),
    (cook) => {
      reset(EMPTY);
      say(`${cook.kettle.name} is on`);
    },
  );
  const left = useRefusal(form, start.error, { volume_l: "amount", weight_kg: "amount", kettle: "kettle" });
  if (kettles === undefined) return <Pending of={[ask.kettles()]} />;
  if (kettle === undefined) {
    return (
      <Plate title="Put a kettle on">
        <p className="text-lg text-muted">
          {kettles.length === 0 ? "No kettle is measured yet. " : "Every kettle is on the stove. "}
          <Link to="/kitchen" className="font-semibold text-cobalt underline underline-offset-4">
            {kettles.length === 0 ? "Measure one in the kitchen" : "Add another in the kitchen"}
          </Link>
        </p>
      </Plate>
    );
  }
  const put = (sent: Sent) => {
    allowNotifications();
    start.mutate({
      kettle: kettle.id,
      batch: sent.batch === NONE ? null : Number(sent.batch),
      ...(sent.by === "juice" ? { volume_l: sent.amount } : { weight_kg: sent.amount }),
      kind: sent.kind,
      setting: sent.setting,
      target: GOAL[sent.goal].target,
    });
  };
  const forKettle = (batches ?? []).filter((batch) => ["sauce", "paste", "juice"].includes(batch.product));
  const juice = typed.by === "juice";
  return (
    <Plate title="Put a kettle on">
      <form className="grid gap-4 lg:grid-cols-2" onSubmit={(event) => void handleSubmit(put)(event)}>
        <div className="grid content-start gap-3">
          <ChoiceOf
            control={control}
            name="kettle"
            label="Kettle"
            options={free.map((item) => ({ value: String(item.id), text: item.name }))}
            fallback={String(kettle.id)}
          />
          <ChoiceOf
            control={control}
            name="setting"
            label="The heat"
            options={optionsOf(["low", "medium", "high"], HEAT_SETTING)}
          />
          <RateText kettle={kettle} setting={typed.setting} units={units} />
          <ChoiceOf
            control={control}
            name="by"
            label="Measured as"
            options={[
              { value: "juice", text: "Juice in the kettle" },
              { value: "fruit", text: "Weight of raw fruit" },
            ]}
          />
          <NumberOf
            control={control}
            name="amount"
            label={juice ? "Juice and pulp that go in" : "Raw fruit that was milled"}
            bound={juice ? "CookRequest.volume_l" : "CookRequest.weight_kg"}
            scale={juice ? volumeScale(units) : massScale(units)}
          />
        </div>
        <div className="grid content-start gap-3">
          <ChoiceOf
            control={control}
            name="kind"
            label="Made of"
            options={optionsOf(["paste", "slicer", "cherry", "mixed"], KIND)}
          />
          <ChoiceOf
            control={control}
            name="goal"
            label="Cook it down to"
            options={(Object.keys(GOAL) as Goal[]).map((key) => ({ value: key, text: GOAL[key].text }))}
          />
          {forKettle.length > 0 && (
            <ChoiceOf
              control={control}
              name="batch"
              label="For the batch"
              options={[
                { value: NONE, text: "None yet" },
                ...forKettle.map((item) => ({
                  value: String(item.id),
                  text: `${item.code}, ${item.product}`,
                })),
              ]}
            />
          )}
          <Trouble error={left} />
          <Touch big submit look="main" disabled={typed.amount.trim() === "" || start.isPending}>
            Start cooking
          </Touch>
        </div>
      </form>
    </Plate>
  );
}
