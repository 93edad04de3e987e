import { Link } from "react-router";
import type { LoadView } from "../../api/client";
import { Note } from "../../parts/Note";

/** A batch by a recipe: whose it is and its own minutes; while its bowls do not hold, or were not told, the way to them. */
export function RecipeStop({ load }: { load: LoadView }) {
  return load.recipes.map((recipe) =>
    recipe.stops ? (
      <Note key={recipe.batch} tone="stop">
        <p className="text-lg">
          <strong>
            {recipe.name}, batch {recipe.code}: no jar is filled yet.
          </strong>{" "}
          What is in its bowls is not the recipe, or nobody has said it.
        </p>
        <Link
          to={`/plan/recipes/${recipe.recipe}`}
          className="mt-1 inline-grid min-h-[48px] place-items-center rounded-xl bg-cobalt px-4 font-semibold text-white"
        >
          To the bowls
        </Link>
      </Note>
    ) : (
      recipe.says != null && (
        <p key={recipe.batch} className="text-lg">
          {recipe.says}
        </p>
      )
    ),
  );
}
