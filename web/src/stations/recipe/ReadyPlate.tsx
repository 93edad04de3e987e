import { useState } from "react";
import type { RecipeLine, RecipeText, RecipeView, Units } from "../../api/client";
import { Fold } from "../../parts/Fold";
import { Plate } from "../../parts/Plate";
import { TextArea } from "../../parts/TextArea";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { EachOrAll, PacketFields } from "./LineQuestions";
import { MakesForm } from "./MakesForm";
import { ProcessForm } from "./ProcessForm";
import { SomethingElse } from "./SomethingElse";
import { SourceForm } from "./SourceForm";

/** What was ticked and typed of a recipe and not kept yet: whoever looks at another page meanwhile finds it again. */
const drafts = new Map<number, RecipeText>();

/** A line of the page: one touch when it stands so in the copy; what is still to be said of it, beside it. */
function PageLine({
  line,
  says,
  ask,
  onChange,
}: {
  line: RecipeLine;
  says: string;
  ask: RecipeView["line_asks"][number] | undefined;
  onChange: (line: RecipeLine) => void;
}) {
  const per = ask?.about === "each_jar" ? ask : undefined;
  return (
    <li className="grid gap-2 rounded-xl border-2 border-edge bg-enamel px-3 pb-1">
      <Tick label={says} on={line.ticked ?? false} onTick={(ticked) => onChange({ ...line, ticked })} />
      {per !== undefined && line.part.per == null && line.part.name !== per.name && (
        <div className="pb-2">
          <p className="mb-1 font-semibold">In every jar, or in the whole batch?</p>
          <EachOrAll
            jar={per.jar ?? null}
            onAnswer={(answer) =>
              onChange({ ...line, part: { ...line.part, name: per.name, per: answer ?? "batch" } })
            }
          />
        </div>
      )}
      {ask?.about === "packet" && (
        <div className="pb-2">
          <PacketFields
            name={line.part.name}
            label={line.part.packet}
            onChange={(packet) => onChange({ ...line, part: { ...line.part, packet } })}
          />
        </div>
      )}
    </li>
  );
}

/** A recipe made ready in the order of its printed page; nothing is kept before all of it is. */
export function ReadyPlate({
  recipe,
  units,
  isSaving,
  onSave,
}: {
  recipe: RecipeView;
  units: Units;
  isSaving: boolean;
  onSave: (text: RecipeText, done: () => void) => void;
}) {
  const [draft, setDraft] = useState<RecipeText | null>(drafts.get(recipe.id) ?? null);
  const text = draft ?? recipe.text;
  const change = (next: RecipeText) => {
    drafts.set(recipe.id, next);
    setDraft(next);
  };
  const drop = () => {
    drafts.delete(recipe.id);
    setDraft(null);
  };
  const put = (place: number, line: RecipeLine | null) =>
    change({
      ...text,
      lines: text.lines.flatMap((other, at) => (at !== place ? [other] : line === null ? [] : [line])),
    });
  const asksAcid = recipe.stands.findings.some((finding) => finding.code === "acid_short");
  const isKept = draft === null;
  return (
    <Plate title="Make it ready, down the printed page">
      <h3 className="mb-1 text-lg">Where it is printed</h3>
      <SourceForm text={text} onChange={change} />
      <h3 className="mt-4 mb-1 text-lg">Each line, as it is printed there</h3>
      <ul className="grid gap-1.5">
        {text.lines.map((line, place) => {
          // As it was read out when it was kept; what was struck out above it moves its place.
          const kept = recipe.text.lines.findIndex((other) => other.part.name === line.part.name);
          return (
            <PageLine
              key={`${place} ${line.part.name}`}
              line={line}
              says={recipe.says[kept] ?? line.part.name}
              ask={recipe.line_asks.find((ask) => ask.place === kept)}
              onChange={(next) => put(place, next)}
            />
          );
        })}
      </ul>
      <div className="mt-2 grid gap-2">
        <Fold words="One more line">
          <SomethingElse
            done="It stands there too"
            example="1 cup vinegar 5 %"
            onAdd={(line) => change({ ...text, lines: [...text.lines, { ...line, ticked: true }] })}
          />
        </Fold>
        <Fold words="A line is wrong">
          <ul className="grid gap-2">
            {text.lines.map((line, place) => (
              <li key={`${place} ${line.part.name}`} className="flex items-center justify-between gap-3">
                <span className="font-semibold">{line.part.name}</span>
                <Touch label={`Strike out ${line.part.name}`} onPress={() => put(place, null)}>
                  Strike it out
                </Touch>
              </li>
            ))}
          </ul>
        </Fold>
      </div>
      {asksAcid && (
        <Tick
          className="mt-3 rounded-xl border-2 border-brass bg-brass-wash px-3"
          label="We looked through the page: that is all of its acid"
          on={text.is_all_its_acid ?? false}
          onTick={(is_all_its_acid) => change({ ...text, is_all_its_acid })}
        />
      )}
      <h3 className="mt-4 mb-1 text-lg">What it fills, made once</h3>
      <MakesForm text={text} onChange={change} />
      <h3 className="mt-4 mb-1 text-lg">Jars and minutes</h3>
      <ProcessForm text={text} printed={recipe.altitude_printed ?? null} units={units} onChange={change} />
      <h3 className="mt-4 mb-1 text-lg">How it is made</h3>
      <TextArea
        label="Steps in the order of the work, a line for each, for the card on the wall"
        typed={text.note ?? ""}
        onType={(note) => change({ ...text, note })}
      />
      <div className="mt-4 grid gap-2">
        <Touch
          look={isKept ? "done" : "main"}
          big
          className="w-full"
          disabled={isKept || isSaving}
          onPress={() => onSave(text, drop)}
        >
          {isKept ? "Kept as it stands" : "Keep it so"}
        </Touch>
        {!isKept && <Touch onPress={drop}>As it was before</Touch>}
      </div>
    </Plate>
  );
}
