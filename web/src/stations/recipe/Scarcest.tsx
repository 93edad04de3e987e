import { useState } from "react";
import { api, take, type Part, type RecipeView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { Trouble } from "../../parts/Note";
import { NumberField } from "../../parts/NumberField";
import { parseNumber } from "../../writing/number";
import { Touch } from "../../parts/Touch";
import { short } from "./model";

/** How often the recipe is made by what there is least of; what is left empty is no limit. */
export function Scarcest({ recipe, onTake }: { recipe: RecipeView; onTake: (factor: number) => void }) {
  const parts = recipe.text.lines.map((line) => line.part).filter((part) => part.amount != null);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const have: Part[] = parts.flatMap((part) => {
    const amount = parseNumber(typed[part.name] ?? "");
    return amount === null ? [] : [{ ...part, amount }];
  });
  const find = useChange(() =>
    take(api.POST("/api/recipes/{id}/scale", { params: { path: { id: recipe.id } }, body: { have } })),
  );
  const found = find.data;
  return (
    <div className="grid gap-3">
      <p className="text-muted">Say what there is; what is left empty is no limit.</p>
      <div className="grid gap-3 sm:grid-cols-2">
        {parts.map((part) => (
          <NumberField
            key={part.name}
            label={`There is: ${part.name}`}
            unit={part.unit == null || part.unit === "piece" ? "" : WORDS.Unit[part.unit]}
            typed={typed[part.name] ?? ""}
            onType={(next) => setTyped({ ...typed, [part.name]: next })}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <Touch disabled={have.length === 0 || find.isPending} onPress={() => find.mutate(undefined)}>
          How often?
        </Touch>
        {found !== undefined && (
          <>
            <strong className="text-xl" role="status">
              × {short(found.factor)}, by the {found.scarcest}
            </strong>
            <Touch look="main" onPress={() => onTake(found.factor)}>
              Take it
            </Touch>
          </>
        )}
      </div>
      <Trouble error={find.error} />
    </div>
  );
}
