import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, take, type RecipeText, type RecipeView } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { altitudeText, jarText, METHOD } from "../../writing/format";
import { Findings } from "../../parts/Findings";
import { Fold } from "../../parts/Fold";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { BowlsPlate } from "./BowlsPlate";
import { CardPlate } from "./CardPlate";
import { HistoryPlate } from "./HistoryPlate";
import { MakePlate } from "./MakePlate";
import { ReadyPlate } from "./ReadyPlate";
import { short } from "./model";

/** The answer first: the minutes in this kitchen, or why there are none. */
function FirstAnswer({ recipe }: { recipe: RecipeView }) {
  const { standing, says, missing } = recipe.stands;
  const time = recipe.times.find((line) => line.minutes != null);
  if (standing === "no_process" || standing === "not_for_jars") {
    return (
      <div className={standing === "not_for_jars" ? "text-alarm" : ""}>
        <Answer value="No jars">{says}</Answer>
      </div>
    );
  }
  return (
    <>
      {standing === "checked" && time?.minutes != null ? (
        <Answer value={String(time.minutes)} unit="min">
          {METHOD[time.method]}, {jarText(time.jar)}
          {recipe.altitude_ft != null && `, at ${altitudeText(recipe.altitude_ft)}`}
          {time.psi != null && `, ${time.psi} lb`}.
        </Answer>
      ) : (
        <Answer value={standing === "checked" ? "No time" : "Not yet"}>
          {standing === "checked"
            ? (recipe.times[0]?.why_not ?? "Say how high the kitchen is, under Kitchen.")
            : says}
        </Answer>
      )}
      {missing.length > 0 && (
        <ul className="mt-3 list-disc pl-6 text-lg">
          {missing.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </>
  );
}

/** One recipe: whether it may be canned, the card for the wall, and what is in its bowls. */
export function RecipeStation() {
  const id = Number(useParams().id);
  const { data: recipe, error } = useQuery(ask.recipe(id));
  const { data: bowls } = useQuery(ask.bowls(id));
  const { data: counter } = useQuery(ask.counter());
  const [factor, setFactor] = useState(1);
  // How often it was taken from elsewhere: the card begins anew with it.
  const [round, setRound] = useState(0);
  const set = (next: number) => {
    setFactor(next);
    setRound(round + 1);
  };
  const say = useSay();
  const go = useNavigate();
  const save = useChange((text: RecipeText) =>
    take(api.PUT("/api/recipes/{id}", { params: { path: { id } }, body: text })),
  );
  const remove = useChange(
    (removed: boolean) =>
      take(api.PATCH("/api/recipes/{id}", { params: { path: { id } }, body: { removed } })),
    (_, removed, again) => {
      if (!removed) return;
      say("Taken out of the book", () => again(false));
      void go("/plan/recipes");
    },
  );
  const copy = useChange(
    () => take(api.POST("/api/recipes/{id}/copies", { params: { path: { id } }, body: { factor } })),
    (made) => {
      setFactor(1);
      void go(`/plan/recipes/${made.id}`);
    },
  );
  if (error !== null && recipe === undefined) return <Trouble error={error} />;
  if (recipe === undefined || counter === undefined) return <Pending of={[ask.recipe(id), ask.counter()]} />;
  const units = counter.kitchen.units;
  // Nobody printed a process for it: it is made, and not made ready.
  const isForTheCold = recipe.stands.standing !== "checked" && recipe.text.kind === "other";
  const ready = (
    <ReadyPlate
      key={recipe.id}
      recipe={recipe}
      units={units}
      isSaving={save.isPending}
      onSave={(text, done) => save.mutate(text, { onSuccess: done })}
    />
  );
  return (
    <div className="grid gap-3">
      <p className="print:hidden">
        <Link
          to="/plan/recipes"
          className="inline-grid min-h-[48px] place-items-center font-semibold text-link underline underline-offset-4"
        >
          ← The book
        </Link>
      </p>
      {(bowls ?? []).map((one) => (
        <BowlsPlate
          key={one.id}
          bowls={one}
          name={recipe.text.name}
          isChecked={recipe.stands.standing === "checked"}
          units={units}
        />
      ))}
      <div className="grid gap-3 lg:grid-cols-2">
        <div className="grid content-start gap-3 print:hidden">
          <Plate title={recipe.text.name}>
            <FirstAnswer recipe={recipe} />
            <div className="mt-3 grid gap-3 empty:hidden">
              <Findings items={recipe.stands.findings} />
            </div>
            {recipe.parent != null && (
              <p className="mt-3">
                <Link
                  to={`/plan/recipes/${recipe.parent}`}
                  className="inline-grid min-h-[48px] place-items-center font-semibold text-link underline underline-offset-4"
                >
                  The recipe it was made from
                </Link>
              </p>
            )}
          </Plate>
          {recipe.stands.standing !== "checked" && !isForTheCold && ready}
          <MakePlate
            recipe={recipe}
            units={units}
            factor={factor}
            isAgain={bowls !== undefined && bowls.length > 0}
            onFactor={set}
          />
          {recipe.stands.standing === "checked" && <Fold words="It was held against a copy">{ready}</Fold>}
          {isForTheCold && <Fold words="Its page, its source, its steps">{ready}</Fold>}
          <HistoryPlate recipe={id} />
          <Trouble error={save.error ?? remove.error} />
          <p className="flex flex-wrap gap-3">
            <Touch disabled={remove.isPending} onPress={() => remove.mutate(true)}>
              Take it out of the book
            </Touch>
            <a
              href={`/api/recipes/${id}/recipe.jsonld`}
              className="inline-flex min-h-[50px] items-center px-2 font-semibold text-link underline underline-offset-4"
            >
              As a recipe file
            </a>
          </p>
        </div>
        <div className="grid content-start gap-3">
          <CardPlate
            key={round}
            recipe={recipe}
            units={units}
            factor={factor}
            onFactor={setFactor}
            onScarcest={set}
          />
          {factor !== 1 && (
            <p className="print:hidden">
              <Touch disabled={copy.isPending} onPress={() => copy.mutate(undefined)}>
                Keep × {short(factor)} in the book
              </Touch>
            </p>
          )}
          <Trouble error={copy.error} />
        </div>
      </div>
    </div>
  );
}
