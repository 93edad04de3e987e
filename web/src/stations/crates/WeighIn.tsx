import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { useNavigate, useSearchParams } from "react-router";
import * as v from "valibot";
import {
  api,
  Refused,
  take,
  type Amount,
  type Condition,
  type Fault,
  type Food,
  type FoodMeasure,
  type Kind,
  type Units,
} from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { optionsOf } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { capitals, CONDITION, FAULT, KIND, weightText } from "../../writing/format";
import { ChoiceOf, DayOf, NumberOf, PickOf } from "../../parts/FormFields";
import { measuresOf } from "../../parts/MoveFood";
import { Note, Trouble } from "../../parts/Note";
import { saidText } from "../../writing/number";
import { sentence } from "../../parts/sentence";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { plain, weighedIn } from "../../writing/units";
import { BY_SCALE, FORMS, goesOn } from "./model";
import { Dock } from "../../parts/Dock";

/** A sign that slipped by two places. */
const SLIP = 100;

const FOOD_WORDS = capitals(WORDS.Food);

const EMPTY = {
  by: BY_SCALE,
  amount: "",
  kind: "",
  condition: "",
  fault: "",
  state: "fresh",
  ripe: "100",
  food: "fruit",
  picked: "",
};

const schema = v.pipe(
  v.object({
    by: v.string(),
    amount: number("Weight.value"),
    kind: v.pipe(v.string(), v.minLength(1, "Which kind are they? It decides what they give")),
    condition: v.string(),
    fault: v.string(),
    state: v.string(),
    ripe: number("LotRequest.ripe_percent"),
    food: v.string(),
    picked: v.string(),
  }),
  // What was seen is never taken for granted.
  v.forward(
    v.check((lot) => lot.food !== "fruit" || lot.condition !== "", "How are they? Say what you see"),
    ["condition"],
  ),
  v.forward(
    v.check((lot) => lot.condition !== "out" || lot.fault !== "", "Why not? Say what you see"),
    ["fault"],
  ),
);

/** Weigh in by the scale or by counted containers. */
export function WeighIn({ units }: { units: Units }) {
  const { data: containers } = useQuery(ask.containers());
  const say = useSay();
  const [search] = useSearchParams();
  const go = useNavigate();
  const form = useFields(schema, { ...EMPTY, amount: search.get("weighed") ?? "" });
  const { control, handleSubmit, reset } = form;
  const { by, condition, amount, food, state } = useWatch({ control }) as typeof EMPTY;
  const unit = weighedIn(units);
  const measures: FoodMeasure[] = measuresOf(units).filter((measure) => measure !== "lb" && measure !== "kg");
  const remove = useChange((ids: number[]) =>
    Promise.all(
      ids.map((id) =>
        take(api.PATCH("/api/lots/{id}", { params: { path: { id } }, body: { removed: true } })),
      ),
    ),
  );
  const add = useChange(
    ({ lot, sure }: { lot: v.InferOutput<typeof schema>; sure: boolean }) => {
      const condition = lot.condition as Condition;
      const amount: Amount =
        lot.by === BY_SCALE
          ? { weighed: { value: lot.amount, unit } }
          : measures.includes(lot.by as FoodMeasure)
            ? { measured: { amount: lot.amount, measure: lot.by as FoodMeasure } }
            : { counted: { container: lot.by, count: lot.amount } };
      const isFruit = lot.food === "fruit";
      return take(
        api.POST("/api/lots", {
          body: {
            amount,
            food: lot.food as Food,
            kind: lot.kind as Kind,
            condition: isFruit ? condition : "firm_ripe",
            ripe_percent: isFruit && goesOn(condition) ? lot.ripe : null,
            fault: isFruit && condition === "out" ? (lot.fault as Fault) : null,
            picked_on: lot.picked === "" ? null : lot.picked,
            frozen: lot.state === "frozen",
            sure,
          },
        }),
      );
    },
    (lots, { lot: sent }) => {
      reset({
        ...EMPTY,
        by: sent.by,
        food: sent.food,
        kind: sent.kind,
        state: sent.state,
      });
      const grams = lots.reduce((sum, lot) => sum + lot.weight_g, 0);
      const sill = lots.length > 1 ? `, ${weightText(lots[1]?.weight_g ?? 0, units)} of it to the sill` : "";
      say(`${weightText(grams, units)} weighed in${sill}`, () => remove.mutate(lots.map((lot) => lot.id)));
      // Whoever began with a wish goes on to its plan.
      if (search.has("then")) void go(`/plan?${search.toString()}`);
    },
  );
  const left = useRefusal(form, add.error, {
    "amount.weighed.value": "amount",
    "amount.counted.count": "amount",
    "amount.counted.container": "by",
    "amount.measured.amount": "amount",
    ripe_percent: "ripe",
    fault: "fault",
    picked_on: "picked",
  });
  const odd = add.error instanceof Refused && add.error.problem.code === "say_sure" ? add.error : null;
  const weighed = add.variables?.lot.amount ?? 0;
  const sayWeight = (times: number) => {
    if (add.variables !== undefined)
      add.mutate({ lot: { ...add.variables.lot, amount: weighed * times }, sure: true });
  };
  const isFruit = food === "fruit";
  const names = [...(containers?.taught ?? []), ...(containers?.known ?? [])].map((one) => one.name);
  const ways = [
    { value: BY_SCALE, text: `${unit} on a scale` },
    ...(isFruit ? names.map((name) => ({ value: name, text: name })) : []),
    ...measures.map((measure) => ({ value: measure, text: WORDS.FoodMeasure[measure] })),
  ];
  return (
    <Plate title="Weigh in">
      <form
        className="grid gap-4"
        onSubmit={(event) => void handleSubmit((lot) => add.mutate({ lot, sure: false }))(event)}
      >
        <ChoiceOf control={control} name="food" label="What came" options={optionsOf(FORMS, FOOD_WORDS)} />
        <div className="flex flex-wrap items-end gap-4">
          <NumberOf
            wide
            control={control}
            name="amount"
            label={
              by === BY_SCALE
                ? "On the scale"
                : `How many ${ways.find((way) => way.value === by)?.text ?? by}`
            }
            bound="Weight.value"
            scale={plain(by === BY_SCALE ? unit : "×")}
          />
          <PickOf control={control} name="by" label="Counted in" options={ways} />
        </div>
        <ChoiceOf
          control={control}
          name="kind"
          label="Kind"
          options={optionsOf(["paste", "slicer", "cherry", "mixed", "tomatillo"], KIND)}
        />
        {isFruit && (
          <ChoiceOf
            control={control}
            name="condition"
            label="Sorted as"
            options={optionsOf(["firm_ripe", "trim", "unripe", "out"], CONDITION)}
          />
        )}
        {isFruit && condition === "out" && (
          <ChoiceOf
            control={control}
            name="fault"
            label="Reason"
            options={optionsOf(["overripe", "mouldy", "bruised", "dead_vine", "blight"], FAULT)}
          />
        )}
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <ChoiceOf
            control={control}
            name="state"
            label="State"
            options={[
              { value: "fresh", text: "Fresh" },
              { value: "frozen", text: "Frozen" },
            ]}
          />
          {isFruit && goesOn(condition as Condition) && (
            <NumberOf
              control={control}
              name="ripe"
              label="Ripe share"
              bound="LotRequest.ripe_percent"
              scale={plain("%")}
              step={10}
            />
          )}
          <DayOf
            control={control}
            name="picked"
            label={state === "frozen" ? "Frozen on" : "Picked on, if not today"}
          />
        </div>
        {odd === null ? (
          <Trouble error={left ?? remove.error} />
        ) : (
          <Note tone="warn">
            <div className="grid gap-2" data-question="sure">
              <p>{sentence(odd.message)}</p>
              <div className="flex flex-wrap gap-2">
                {[1, SLIP].map((times) => (
                  <Touch key={times} onPress={() => sayWeight(times)}>
                    {saidText(weighed * times, by === BY_SCALE ? unit : "×")}
                  </Touch>
                ))}
              </div>
            </div>
          </Note>
        )}
        <Dock>
          <Touch big submit look="main" disabled={amount.trim() === "" || add.isPending} className="w-full">
            Weigh in
          </Touch>
        </Dock>
      </form>
    </Plate>
  );
}
