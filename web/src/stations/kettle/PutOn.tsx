import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { Link } from "react-router";
import * as v from "valibot";
import {
  api,
  take,
  type Batch,
  type CookRequest,
  type HeatSetting,
  type KettleView,
  type Kind,
  type Units,
  type Warmth,
} from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { optionsOf } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { HEAT_SETTING, KIND, volumeText, WARMTH } from "../../writing/format";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { massScale, volumeScale } from "../../writing/units";
import { allowNotifications } from "../../parts/useAlarm";
import { Fold } from "../../parts/Fold";
import { GOAL, goalOf, promiseText, type Goal } from "./model";
import { Dock } from "../../parts/Dock";

const NONE = "none";
/** How what goes in is measured. */
type By = "batch" | "juice" | "fruit";
const EMPTY = {
  kettle: "",
  by: "",
  amount: "",
  kind: "",
  setting: "high",
  start: "",
  goal: "",
  value: "",
  batch: NONE,
};

/** How what goes in is measured, and how far it goes; a batch says both until somebody does. */
function chosen(typed: typeof EMPTY, batches: readonly Batch[]) {
  const batch = batches.find((item) => String(item.id) === typed.batch);
  const goal = (typed.goal as Goal | "") || (batch === undefined ? "thin" : goalOf(batch));
  const by = (typed.by as By | "") || (batch === undefined ? "juice" : "batch");
  return { batch, goal, by };
}

/** What is asked for a number depends on what is chosen. */
function schemaOf(units: Units, batches: readonly Batch[]) {
  const text = v.string();
  const typed = v.object({
    kettle: text,
    by: text,
    amount: text,
    kind: text,
    setting: text,
    start: text,
    goal: text,
    value: text,
    batch: text,
  });
  return v.pipe(
    typed,
    v.rawTransform(({ dataset, addIssue, NEVER }) => {
      const given = dataset.value;
      const { goal, by, batch } = chosen(given, batches);
      if (batch === undefined && given.kind === "") {
        const message = "Which kind are they made of? It decides how they thicken";
        addIssue({
          message,
          path: [{ type: "object", origin: "value", input: given, key: "kind", value: "" }],
        });
        return NEVER;
      }
      const one = (key: "amount" | "value", schema: v.GenericSchema<string, number>) => {
        const read = v.safeParse(schema, given[key]);
        if (read.success) return read.output;
        addIssue({
          message: read.issues[0].message,
          path: [{ type: "object", origin: "value", input: given, key, value: given[key] }],
        });
        return undefined;
      };
      const amounts = {
        batch: null,
        juice: number("CookRequest.volume_l", volumeScale(units)),
        fruit: number("CookRequest.weight_kg", massScale(units)),
      };
      const wanted = amounts[by];
      const amount = wanted === null ? 0 : one("amount", wanted);
      const asks = GOAL[goal].asks;
      const value = asks === undefined ? 0 : one("value", number(asks.bound, asks.scale(units)));
      return amount === undefined || value === undefined ? NEVER : { ...given, amount, value };
    }),
  );
}

/** What a kettle holds and boils away at a setting, as far as it is known. */
function RateText({ kettle, setting, units }: { kettle: KettleView; setting: string; units: Units }) {
  const rate = kettle.rates.find((item) => item.setting === setting);
  if (rate === undefined) return null;
  return (
    <p className="text-muted">
      Holds {volumeText(kettle.brim_l, units)} to the brim, boils away{" "}
      {volumeText(rate.litres_per_hour, units)} an hour
      {rate.learned_from > 0
        ? `, learned from ${rate.learned_from} at this heat`
        : ", a usual burner: this one has not shown its own yet"}
      .
    </p>
  );
}

/** A pot that nobody measured: a stick with thirds does instead of litres. */
function NoMeasures() {
  return (
    <div className="grid gap-3 sm:grid-cols-[150px_1fr] sm:items-center">
      <svg viewBox="0 0 150 150" className="w-[150px]" aria-hidden="true">
        <path
          d="M14 30v98q0 12 12 12h98q12 0 12-12V30"
          fill="none"
          stroke="var(--color-cobalt)"
          strokeWidth="7"
        />
        <rect x="18" y="50" width="114" height="86" fill="#c8371f" opacity="0.85" />
        <path d="M104 8v128" stroke="#a87b47" strokeWidth="8" strokeLinecap="round" />
        {[50, 79, 107].map((y) => (
          <path key={y} d={`M94 ${y}h24`} stroke="var(--color-ink)" strokeWidth="4" />
        ))}
      </svg>
      <ol className="list-decimal pl-5 text-lg">
        <li>Stand a wooden spoon straight in the pot and mark where the juice reaches at the start.</li>
        <li>Divide the part below into three and mark both thirds.</li>
        <li>
          At the upper third it is boiled down by a third: thin sauce. Halfway down it is by half: thick
          sauce. This holds for straight walls.
        </li>
      </ol>
    </div>
  );
}

/** Puts a kettle on: for which batch, which kettle, how much, how far. */
export function PutOn({ units }: { units: Units }) {
  const { data: kettles } = useQuery(ask.kettles());
  const { data: batches } = useQuery(ask.batches());
  const say = useSay();
  const form = useFields(schemaOf(units, batches ?? []), EMPTY);
  const { control, handleSubmit, reset } = form;
  const typed = useWatch({ control }) as typeof EMPTY;
  // The largest free kettle is the one people reach for.
  const free = (kettles ?? []).filter((kettle) => !kettle.busy).sort((a, b) => b.brim_l - a.brim_l);
  const kettle = free.find((item) => String(item.id) === typed.kettle) ?? free[0];
  const { batch, goal, by } = chosen(typed, batches ?? []);
  const asks = GOAL[goal].asks;
  const start = useChange(
    (body: CookRequest) => take(api.POST("/api/cooks", { body })),
    (cook) => {
      reset({ ...EMPTY, batch: typed.batch });
      say(`${cook.kettle.name} is on`);
    },
  );
  const left = useRefusal(form, start.error, {
    volume_l: "amount",
    weight_kg: "amount",
    kettle: "kettle",
    target: "value",
    "target.fraction_left": "value",
    "target.volume_l": "value",
    "target.boil_minutes": "value",
    "target.hold_minutes": "value",
  });
  if (kettles === undefined) return <Pending of={[ask.kettles()]} />;
  if (kettle === undefined) {
    return (
      <Plate title="Put a kettle on">
        <p className="mb-4 text-lg text-muted">
          {kettles.length === 0 ? "No kettle is measured yet. " : "Every kettle is on the stove. "}
          <Link to="/kitchen/kettles" className="font-semibold text-link underline underline-offset-4">
            {kettles.length === 0 ? "Measure one in the kitchen" : "Add another in the kitchen"}
          </Link>
          {kettles.length === 0 && ", and Bodega says when it is thick and where its mark is."}
        </p>
        {kettles.length === 0 && (
          <Fold words="I have no measurements">
            <NoMeasures />
          </Fold>
        )}
      </Plate>
    );
  }
  const put = (sent: v.InferOutput<ReturnType<typeof schemaOf>>) => {
    allowNotifications();
    start.mutate({
      kettle: kettle.id,
      batch: batch?.id ?? null,
      ...(by === "juice" && { volume_l: sent.amount }),
      ...(by === "fruit" && { weight_kg: sent.amount }),
      kind: sent.kind === "" ? null : (sent.kind as Kind),
      setting: sent.setting as HeatSetting,
      start: sent.start === "" ? "room" : (sent.start as Warmth),
      target: GOAL[goal].target(sent.value),
    });
  };
  const forKettle = (batches ?? []).filter((item) => item.pack === "hot");
  return (
    <Plate title="Put a kettle on">
      <form className="grid gap-4 lg:grid-cols-2" onSubmit={(event) => void handleSubmit(put)(event)}>
        <div className="grid content-start gap-3">
          {forKettle.length > 0 && (
            <ChoiceOf
              control={control}
              name="batch"
              label="For the batch"
              options={[
                { value: NONE, text: "None yet" },
                ...forKettle.map((item) => ({
                  value: String(item.id),
                  text: `${item.code}, ${item.thickness ?? ""} ${item.product === "recipe" ? (item.name ?? "") : item.product}`.replace(
                    "  ",
                    " ",
                  ),
                })),
              ]}
            />
          )}
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
          {promiseText(kettle.promises) !== "" && (
            <p className="text-muted">{promiseText(kettle.promises)}</p>
          )}
        </div>
        <div className="grid content-start gap-3">
          <ChoiceOf
            control={control}
            name="by"
            label="What goes in"
            options={[
              ...(batch === undefined ? [] : [{ value: "batch", text: "All of the batch" }]),
              { value: "juice", text: "So much juice" },
              { value: "fruit", text: "Weight of raw fruit" },
            ]}
            fallback={by}
          />
          {by !== "batch" && (
            <NumberOf
              control={control}
              name="amount"
              label={by === "juice" ? "Juice and pulp that go in" : "Raw fruit that was milled"}
              bound={by === "juice" ? "CookRequest.volume_l" : "CookRequest.weight_kg"}
              scale={by === "juice" ? volumeScale(units) : massScale(units)}
            />
          )}
          <ChoiceOf
            control={control}
            name="start"
            label="It goes in"
            options={optionsOf(["room", "mill", "chilled", "frozen", "boiling"], WARMTH)}
            fallback="room"
          />
          {batch === undefined && (
            <ChoiceOf
              control={control}
              name="kind"
              label="Made of"
              options={optionsOf(["paste", "slicer", "cherry", "mixed"], KIND)}
            />
          )}
          <ChoiceOf
            control={control}
            name="goal"
            label="Cook it"
            options={(Object.keys(GOAL) as Goal[]).map((key) => ({ value: key, text: GOAL[key].text }))}
            fallback={goal}
          />
          {asks !== undefined && (
            <NumberOf
              key={goal}
              control={control}
              name="value"
              label={asks.label}
              bound={asks.bound}
              scale={asks.scale(units)}
            />
          )}
          <Trouble error={left} />
          <Dock>
            <Touch
              big
              submit
              className="w-full"
              look="main"
              disabled={(by !== "batch" && typed.amount.trim() === "") || start.isPending}
            >
              Start cooking
            </Touch>
          </Dock>
        </div>
      </form>
    </Plate>
  );
}
