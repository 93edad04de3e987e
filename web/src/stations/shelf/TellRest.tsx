import * as v from "valibot";
import { api, take } from "../../api/client";
import { useChange } from "../../api/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../counter/notices";
import { number, useFields, useRefusal } from "../../parts/fields";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { allOf } from "../../parts/Choice";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { plain } from "../../parts/units";

type Food = keyof typeof WORDS.Food;
type Place = keyof typeof WORDS.FoodPlace;
type Measure = keyof typeof WORDS.FoodMeasure;

/** A word of a list; nothing is preset, because nothing was seen yet. */
const word = <T extends string>() =>
  v.pipe(
    v.string(),
    v.minLength(1, "Choose one"),
    v.transform((given) => given as T),
  );

const schema = v.object({
  food: word<Food>(),
  place: word<Place>(),
  amount: number("Told.amount"),
  measure: word<Measure>(),
});

/** What left a batch beside its jars: what, where to, how much. */
export function TellRest({ batch, metric }: { batch: number; metric: boolean }) {
  const say = useSay();
  const empty = { food: "", place: "", amount: "", measure: metric ? "litre" : "quart" };
  const form = useFields(schema, empty);
  const { control, handleSubmit, reset } = form;
  const tell = useChange(
    ({ food, place, amount, measure }: v.InferOutput<typeof schema>) =>
      take(
        api.POST("/api/batches/{id}/moves", {
          params: { path: { id: batch } },
          body: { food, place, told: { amount, measure } },
        }),
      ),
    () => {
      reset(empty);
      say("It is in the books");
    },
  );
  const left = useRefusal(form, tell.error, { "told.amount": "amount" });
  return (
    <form
      className="grid gap-3 print:hidden"
      aria-label="Something went elsewhere"
      onSubmit={(event) => void handleSubmit((told) => tell.mutate(told))(event)}
    >
      <ChoiceOf control={control} name="food" label="What went elsewhere" options={allOf(WORDS.Food)} />
      <ChoiceOf control={control} name="place" label="Where to" options={allOf(WORDS.FoodPlace)} />
      <div className="flex flex-wrap items-end gap-3">
        <NumberOf control={control} name="amount" label="How much" bound="Told.amount" scale={plain("")} />
        <ChoiceOf control={control} name="measure" label="Of" options={allOf(WORDS.FoodMeasure)} />
      </div>
      <div>
        <Touch submit>Into the books</Touch>
      </div>
      <Trouble error={left} />
    </form>
  );
}
