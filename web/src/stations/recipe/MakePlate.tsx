import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type JarSize, type RecipePlan, type RecipeView, type Units } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { CountField } from "../../parts/CountField";
import {
  CANNED_SIZES,
  capital,
  headspaceText,
  jarsText,
  jarText,
  loadsText,
  METHOD,
  spanText,
  weightText,
} from "../../writing/format";
import { Fold } from "../../parts/Fold";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Pick } from "../../parts/Pick";
import { Touch } from "../../parts/Touch";
import { LoadPictures } from "../plan/LoadPictures";
import { LotPicker } from "../plan/LotPicker";
import { useWaiting } from "../plan/useWaiting";
import { short } from "./model";
import { AltitudeHere } from "../../parts/AltitudeHere";

type Jars = NonNullable<RecipePlan["jars"]>;

/** The recipe's own minutes, how many jars, how many loads. */
function InJars({ jars, plan, units }: { jars: Jars; plan: RecipePlan; units: Units }) {
  const { low, expected, high } = jars.full_jars;
  const first = jars.lines[0];
  const longest = jars.loads[0]?.minutes ?? 0;
  if (first === undefined) return null;
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <Answer value={expected} unit={jarText(first.jar, expected)}>
          {low === high ? "" : `expect ${low} to ${high}. `}
          {longest} min in {METHOD[plan.method].toLowerCase()}
          {first.option.psi != null && ` at ${first.option.psi} lb`}, its own printed time;{" "}
          {headspaceText(jars.headspace_in, units)} headspace. {plan.stands.acid}
        </Answer>
        <LoadPictures loads={jars.loads} />
      </div>
      <p className="text-lg">
        {loadsText(jars.loads.length)} in {plan.canner_name}, {spanText(jars.canner_minutes)}. {jars.why}
      </p>
      {[...new Set(jars.lines.flatMap((line) => line.cautions))].map((caution) => (
        <Note key={caution} tone="warn">
          <p>{caution}</p>
        </Note>
      ))}
      {jars.missing.length > 0 && (
        <Note tone="warn">
          <p>
            The cupboard lacks <strong>{jars.missing.join(", ")}</strong>.
          </p>
        </Note>
      )}
    </div>
  );
}

/** A recipe on its way to jars: from which lots, into which jars, in which loads, and what is to be bought. */
export function MakePlate({
  recipe,
  units,
  factor,
  isAgain,
  onFactor,
}: {
  recipe: RecipeView;
  units: Units;
  factor: number;
  /** It is being made already. */
  isAgain: boolean;
  onFactor: (factor: number) => void;
}) {
  const { ready, chosen, setChosen } = useWaiting();
  const [mix, setMix] = useState<{ jar: JarSize; count: number }[] | null>(null);
  const [jar, setJar] = useState<JarSize | null>(null);
  const say = useSay();
  const fruit = (ready ?? []).filter((lot) => lot.food === "fruit" || lot.food === "bits");
  const lots = fruit.filter((lot) => chosen?.includes(lot.id)).map((lot) => lot.id);
  const grams = fruit.filter((lot) => lots.includes(lot.id)).reduce((sum, lot) => sum + lot.left_g, 0);
  const body = { factor, lots, jar, jars: mix };
  const { data: plan, error } = useQuery(ask.recipePlan(recipe.id, body));
  const path = { path: { id: recipe.id } };
  const remove = useChange((id: number) =>
    take(api.PATCH("/api/batches/{id}", { params: { path: { id } }, body: { removed: true } })),
  );
  const bowls = useChange(() =>
    take(api.POST("/api/recipes/{id}/bowls", { params: path, body: { factor } })),
  );
  const make = useChange(
    () => take(api.POST("/api/recipes/{id}/batches", { params: path, body })),
    (batch) => {
      setMix(null);
      say(`Batch ${batch.code} is on the line: ${jarsText(batch.jars)}`, () => remove.mutate(batch.id));
    },
  );
  const cold = useChange(
    () => take(api.POST("/api/recipes/{id}/cold", { params: path, body: { factor, lots } })),
    (batch) => say(`Batch ${batch.code} is begun, not for jars`, () => remove.mutate(batch.id)),
  );
  const lasts = useChange(
    (kilograms: number) =>
      take(api.POST("/api/recipes/{id}/scale", { params: path, body: { tomatoes_kg: kilograms } })),
    (card) => onFactor(card.factor),
  );
  const may = plan?.stands.standing === "checked" && plan.jars != null;
  // What may never go into jars as it stands is made for the cold at once.
  const { standing } = recipe.stands;
  const isOut = standing === "no_process" || standing === "not_for_jars";
  const forTheCold = "Make it for the refrigerator or freezer";
  const first = may
    ? { text: "Set out bowls and jars", change: make }
    : isOut
      ? { text: forTheCold, change: cold }
      : { text: "Set the bowls out", change: bowls };
  const { data: card } = useQuery(ask.recipeScale(recipe.id, { factor }));
  return (
    <Plate title={`Make it × ${short(factor)}`}>
      <div className="grid gap-4">
        {plan?.jars != null && <InJars jars={plan.jars} plan={plan} units={units} />}
        {plan?.refusal != null && (
          <Note tone="stop">
            <p>
              <strong>{plan.refusal.message}</strong> {plan.refusal.instead.join(" ")}
            </p>
          </Note>
        )}
        {plan?.no_jars != null && plan.stands.standing !== "no_process" && (
          <Note tone="stop">
            <p>{plan.no_jars}.</p>
          </Note>
        )}
        <Trouble error={error} />
        <AltitudeHere />
        <Touch
          look={isAgain ? "plain" : "main"}
          big
          className="w-full"
          disabled={first.change.isPending}
          onPress={() => first.change.mutate(undefined)}
        >
          {first.text}
        </Touch>
        {!isOut && (
          <Touch className="w-full" disabled={cold.isPending} onPress={() => cold.mutate(undefined)}>
            {forTheCold}
          </Touch>
        )}
        <Trouble error={make.error ?? bowls.error ?? cold.error ?? remove.error ?? lasts.error} />
        <LotPicker lots={fruit} chosen={lots} units={units} onChoose={setChosen} />
        {plan?.tomatoes_g != null && (
          <p className="flex flex-wrap items-center gap-3 text-lg">
            <span>
              It takes about {weightText(plan.tomatoes_g, units)} of tomatoes
              {grams > 0 &&
                (plan.short_g == null
                  ? `; ${weightText(grams - plan.tomatoes_g, units)} are left over`
                  : `; ${weightText(plan.short_g, units)} are missing`)}
              .
            </span>
            {grams > 0 && <Touch onPress={() => lasts.mutate(grams / 1000)}>As often as these last</Touch>}
          </p>
        )}
        {plan !== undefined && plan.stands.standing !== "no_process" && (
          <div className="flex flex-wrap items-end gap-5">
            <Pick
              label="Into"
              value={jar ?? plan.jars?.lines[0]?.jar ?? recipe.text.makes?.jar ?? "pint"}
              options={CANNED_SIZES.map((size) => ({ value: size, text: jarText(size, 2) }))}
              onChoose={(size) => {
                setJar(size);
                setMix(null);
              }}
            />
            {plan.jars?.lines.map((line) => (
              <CountField
                key={line.jar}
                label={`${capital(jarText(line.jar, 2))} to fill`}
                count={line.count}
                bound="JarCount.count"
                onSet={(count) =>
                  setMix(
                    (plan.jars?.lines ?? []).map((other) => ({
                      jar: other.jar,
                      count: other.jar === line.jar ? count : other.count,
                    })),
                  )
                }
              />
            ))}
          </div>
        )}
        {card?.pots != null && (
          <p className="text-lg">Raw: {card.pots}. A deep pot cooks unevenly and scorches.</p>
        )}
        {plan !== undefined && plan.shopping.length > 0 && (
          <Fold words="To buy or to fetch">
            <ul className="list-disc pl-6 text-lg">
              {plan.shopping.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </Fold>
        )}
      </div>
    </Plate>
  );
}
