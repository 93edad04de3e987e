import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import * as v from "valibot";
import type { Food, FoodMeasure, FoodMove, FoodPlace, Units } from "../api/client";
import { ask } from "../queries/queries";
import { WORDS } from "../api/words.generated";
import { allOf, optionsOf } from "./Choice";
import { number, optionalNumber, useFields, useRefusal } from "./fields";
import { capital } from "../writing/format";
import { ChoiceOf, NumberOf } from "./FormFields";
import { Trouble } from "./Note";
import { Touch } from "./Touch";
import { plain } from "../writing/units";

const schemaOf = (mayBeAll: boolean) => {
  const amount = mayBeAll ? optionalNumber("Told.amount") : number("Told.amount");
  return v.object({
    food: v.pipe(v.string(), v.minLength(1, "Choose what it is")),
    amount: amount,
    measure: v.string(),
    packs: optionalNumber("FoodMoveRequest.packs"),
  });
};

/** Measures people tell food in, the kitchen's own first; fruit is weighed. */
export function measuresOf(units: Units, isFruit = false): FoodMeasure[] {
  const weights: FoodMeasure[] = units === "metric" ? ["kg", "lb"] : ["lb", "kg"];
  const volumes: FoodMeasure[] =
    units === "metric" ? ["litre", "quart", "cup"] : ["quart", "pint", "cup", "gallon", "litre"];
  return isFruit ? [...weights, ...volumes] : [...volumes, ...weights];
}

/**
 * Says how much food goes where: an amount and one touch for the place. Without an amount all of it goes, where that is
 * known.
 */
export function MoveFood({
  foods,
  places,
  mayBeAll,
  units,
  send,
  error,
}: {
  /** What it may be; asked when there are several. */
  foods: readonly Food[];
  places: readonly FoodPlace[];
  mayBeAll: boolean;
  units: Units;
  send: (move: FoodMove, done: () => void) => void;
  error: Error | null;
}) {
  const { data: almanac } = useQuery(ask.almanac());
  const only = foods.length === 1 ? (foods[0] ?? "") : "";
  const measures = measuresOf(units, only === "fruit");
  const empty = { food: only, amount: "", measure: measures[0] ?? "quart", packs: "" };
  const form = useFields(schemaOf(mayBeAll), empty);
  const { control, handleSubmit, reset } = form;
  const { amount, food } = useWatch({ control });
  const left = useRefusal(form, error, { "told.amount": "amount", told: "amount", packs: "packs" });
  const go = (place: FoodPlace) =>
    void handleSubmit((typed) =>
      send(
        {
          food: typed.food as Food,
          place,
          told:
            typed.amount === undefined
              ? null
              : { amount: typed.amount, measure: typed.measure as FoodMeasure },
          packs: typed.packs === undefined ? null : Math.round(typed.packs),
        },
        () => reset(empty),
      ),
    )();
  const freezes = places.includes("freezer");
  return (
    <form className="grid gap-3 print:hidden" onSubmit={(event) => event.preventDefault()}>
      {foods.length > 1 && (
        <ChoiceOf control={control} name="food" label="What" options={optionsOf(foods, WORDS.Food)} />
      )}
      <div className="flex flex-wrap items-end gap-3">
        <NumberOf
          control={control}
          name="amount"
          label={mayBeAll ? "How much, or all of it" : "How much"}
          bound="Told.amount"
          scale={plain("")}
        />
        <ChoiceOf
          control={control}
          name="measure"
          label="Of"
          options={optionsOf(measures, WORDS.FoodMeasure)}
        />
        {freezes && (
          <NumberOf
            control={control}
            name="packs"
            label="In packs"
            bound="FoodMoveRequest.packs"
            scale={plain("")}
          />
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        {allOf(WORDS.FoodPlace)
          .filter((place) => places.includes(place.value as FoodPlace))
          .map((place) => (
            <Touch
              key={place.value}
              disabled={food === "" || (!mayBeAll && (amount ?? "").trim() === "")}
              onPress={() => go(place.value as FoodPlace)}
            >
              {capital(place.text)}
            </Touch>
          ))}
      </div>
      {freezes && <p className="text-sm text-muted">For the freezer: {almanac?.freezer_headspace}</p>}
      <Trouble error={left} />
    </form>
  );
}
