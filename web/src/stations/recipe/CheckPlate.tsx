import { useState } from "react";
import type { RecipeText, RecipeView, Units } from "../../api/client";
import { Plate } from "../../parts/Plate";
import { TextField } from "../../parts/TextField";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { MakesForm } from "./MakesForm";
import { ProcessForm } from "./ProcessForm";

/** A recipe held against a copy: where it is printed, each line, and its minutes. */
export function CheckPlate({
  recipe,
  units,
  onSave,
}: {
  recipe: RecipeView;
  units: Units;
  onSave: (text: RecipeText) => void;
}) {
  const { text } = recipe;
  const [source, setSource] = useState({
    title: text.title ?? "",
    edition: text.edition ?? "",
    page: text.page ?? "",
  });
  const field = (name: keyof typeof source, label: string, example: string) => (
    <TextField
      label={label}
      typed={source[name]}
      example={example}
      onType={(typed) => setSource({ ...source, [name]: typed })}
    />
  );
  const same = source.title === text.title && source.edition === text.edition && source.page === text.page;
  return (
    <Plate title="Hold it against a copy">
      <div className="flex flex-wrap gap-3">
        {field("title", "Title of the book or page", "title as it is printed")}
        {field("edition", "Edition or year", "2015")}
        {field("page", "Page", "12")}
      </div>
      <Touch className="mt-3" disabled={same} onPress={() => onSave({ ...text, ...source })}>
        Keep where it is printed
      </Touch>
      <h3 className="mt-4 mb-1 text-lg">Each line as it is printed there</h3>
      <ul className="grid gap-1.5">
        {text.lines.map((line, place) => (
          <li key={recipe.says[place]}>
            <Tick
              className="rounded-xl border-2 border-edge bg-enamel px-3"
              label={recipe.says[place]}
              on={line.ticked ?? false}
              onTick={(ticked) =>
                onSave({
                  ...text,
                  lines: text.lines.map((other, at) => (at === place ? { ...other, ticked } : other)),
                })
              }
            />
          </li>
        ))}
      </ul>
      <h3 className="mt-4 mb-1 text-lg">What it fills, made once</h3>
      <MakesForm text={text} onSave={onSave} />
      <h3 className="mt-4 mb-1 text-lg">Jars and minutes as they are printed there</h3>
      <ProcessForm text={text} units={units} onSave={onSave} />
    </Plate>
  );
}
