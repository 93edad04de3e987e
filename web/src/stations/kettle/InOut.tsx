import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import * as v from "valibot";
import {
  api,
  take,
  type CookEventRequest,
  type CookView,
  type FoodPlace,
  type Units,
} from "../../api/client";
import { ask, useChange, useUndoLine } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { optionsOf } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { capital, weightText } from "../../writing/format";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { volumeScale } from "../../writing/units";
import { WAYS, type Way } from "./model";

/** Where what was taken off goes, the likeliest first. */
const PLACES: readonly FoodPlace[] = ["line", "refrigerator", "table", "neighbour", "discarded"];

const schemaOf = (units: Units) =>
  v.object({ way: v.string(), litres: number("CookEventRequest.drain_l", volumeScale(units)) });

/** Thin juice ladled off, juice taken off well mixed, or more that goes in: how much, and one touch for where. */
export function InOut({ cook, units }: { cook: CookView; units: Units }) {
  const { data: lots } = useQuery(ask.lots());
  const say = useSay();
  const form = useFields(schemaOf(units), { way: "ladle", litres: "" });
  const { control, handleSubmit, reset } = form;
  const { way, litres } = useWatch({ control }) as { way: Way; litres: string };
  const path = { path: { id: cook.id } };
  const undo = useUndoLine(cook.id);
  const write = useChange(
    (body: CookEventRequest) => take(api.POST("/api/cooks/{id}/events", { params: path, body })),
    ({ log }, sent) => {
      reset({ way, litres: "" });
      const line = log.findLast((item) => ["drain_l", "ladle_l", "add_l"].includes(item.what));
      const words = sent.place === "line" ? "It waits at the Plan for other jars" : "Written down";
      say(words, line && (() => undo.mutate(line.at)));
    },
  );
  const left = useRefusal(form, write.error, {
    drain_l: "litres",
    ladle_l: "litres",
    add_l: "litres",
    lot: "litres",
  });
  const send = (rest: CookEventRequest) =>
    void handleSubmit((typed) => write.mutate({ [WAYS[way].field]: typed.litres, ...rest }))();
  const waiting = (lots ?? []).filter((lot) => lot.condition === "firm_ripe" || lot.condition === "trim");
  const empty = litres.trim() === "";
  return (
    <form className="grid gap-3" onSubmit={(event) => event.preventDefault()}>
      <ChoiceOf
        control={control}
        name="way"
        label="What moved"
        options={(Object.keys(WAYS) as Way[]).map((key) => ({ value: key, text: WAYS[key].text }))}
      />
      <p className="text-muted">{WAYS[way].hint}</p>
      <NumberOf
        control={control}
        name="litres"
        label={way === "add" ? "How much goes in" : "How much"}
        bound="CookEventRequest.drain_l"
        scale={volumeScale(units)}
      />
      {way === "add" ? (
        <div className="flex flex-wrap gap-2">
          {waiting.map((lot) => (
            <Touch
              key={lot.id}
              onPress={() => (empty ? write.mutate({ lot: lot.id }) : send({ lot: lot.id }))}
            >
              {empty ? "All of" : "Of"} {weightText(lot.left_g, units)} {lot.words}
            </Touch>
          ))}
          <Touch disabled={empty} onPress={() => send({})}>
            Water or something else
          </Touch>
        </div>
      ) : (
        <div className="flex flex-wrap gap-2">
          {cook.batch == null ? (
            <Touch disabled={empty} onPress={() => send({})}>
              Taken off
            </Touch>
          ) : (
            optionsOf(PLACES, WORDS.FoodPlace).map((place) => (
              <Touch key={place.value} disabled={empty} onPress={() => send({ place: place.value })}>
                {capital(place.text)}
              </Touch>
            ))
          )}
        </div>
      )}
      <Trouble error={left ?? undo.error} />
    </form>
  );
}
