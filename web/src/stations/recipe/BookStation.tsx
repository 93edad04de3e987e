import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type RecipeView, type ShippedView } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { Fold } from "../../parts/Fold";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { PlanTabs } from "../plan/PlanTabs";
import { WriteDown } from "./WriteDown";

const SIGN = { checked: "✓", unchecked: "?", not_for_jars: "✕", no_process: "❄" } as const;
const LOOK = {
  checked: "bg-vine text-white",
  unchecked: "bg-brass text-night",
  not_for_jars: "bg-tomato text-white",
  no_process: "bg-cobalt text-white",
} as const;

function Own({ recipe }: { recipe: RecipeView }) {
  const { standing, says } = recipe.stands;
  return (
    <li>
      <Link
        to={`/plan/recipes/${recipe.id}`}
        className="flex min-h-[60px] items-center gap-3 rounded-xl border-2 border-edge bg-enamel px-4 py-2 hover:border-cobalt"
      >
        <span
          aria-hidden="true"
          className={`grid size-8 shrink-0 place-items-center rounded-full font-bold ${LOOK[standing]}`}
        >
          {SIGN[standing]}
        </span>
        <span>
          <span className="block text-lg font-semibold">{recipe.text.name}</span>
          <span className="block text-muted">{says}</span>
        </span>
      </Link>
    </li>
  );
}

function Remembered({ recipe }: { recipe: ShippedView }) {
  const copy = useChange(() => take(api.POST("/api/recipes", { body: { text: recipe.text } })));
  return (
    <li className="rounded-xl border-2 border-edge bg-enamel p-3">
      <Fold words={recipe.text.name}>
        <ul className="mb-3 list-disc pl-6 text-lg">
          {recipe.says.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        {copy.data === undefined ? (
          <Touch disabled={copy.isPending} onPress={() => copy.mutate(undefined)}>
            Put it into our book, to check it
          </Touch>
        ) : (
          <p className="flex flex-wrap items-center gap-3 font-semibold" role="status">
            ✓ It is in our book.
            <Link
              to={`/plan/recipes/${copy.data.id}`}
              className="inline-grid min-h-[48px] place-items-center text-link underline underline-offset-4"
            >
              To it
            </Link>
          </p>
        )}
        <Trouble error={copy.error} />
      </Fold>
    </li>
  );
}

/** The book of recipes: the household's own, and those that are remembered and have to be checked first. */
export function BookStation() {
  const { data: book } = useQuery(ask.recipes());
  if (book === undefined) return <Pending of={[ask.recipes()]} />;
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <div className="grid gap-3 lg:grid-cols-2">
        <Plate
          title="Our book"
          aside={
            <Link
              to="/plan/ph"
              className="inline-grid min-h-[48px] place-items-center font-semibold text-link underline underline-offset-4"
            >
              pH bench
            </Link>
          }
        >
          {book.own.length === 0 && (
            <p className="mb-3 text-lg text-muted">
              Nothing is in it yet. A recipe with peppers, onions or anything else in it is canned by its own
              printed time, or not at all.
            </p>
          )}
          <ul className="mb-4 grid gap-2">
            {book.own.map((recipe) => (
              <Own key={recipe.id} recipe={recipe} />
            ))}
          </ul>
          <Fold words="Write one down">
            <WriteDown />
          </Fold>
        </Plate>
        <Plate title="To look at, from memory">
          <p className="mb-3 text-muted">
            Recalled from memory of published guides, and locked: nobody may can by them before every line was
            held against a copy.
          </p>
          <ul className="grid gap-2">
            {book.shipped.map((recipe) => (
              <Remembered key={recipe.key} recipe={recipe} />
            ))}
          </ul>
        </Plate>
      </div>
    </div>
  );
}
