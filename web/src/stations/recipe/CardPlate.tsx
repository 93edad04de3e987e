import { useQuery } from "@tanstack/react-query";
import { useState, type CSSProperties } from "react";
import type { RecipeView, ScaleRequest, Units } from "../../api/client";
import { ask } from "../../queries/queries";
import { Fold } from "../../parts/Fold";
import { altitudeText, capital, headspaceText, jarText, METHOD, volumeText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { NumberField } from "../../parts/NumberField";
import { parseNumber } from "../../writing/number";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { massScale } from "../../writing/units";
import { cardSize, short } from "./model";
import { Scarcest } from "./Scarcest";

/** The printed process in this kitchen, for the card: "20 min in boiling water, pints, ½ in headspace". */
function processText(recipe: RecipeView, units: Units): string | undefined {
  const times = recipe.times.filter((line) => line.minutes != null);
  if (recipe.stands.standing !== "checked" || times.length === 0 || recipe.text.process == null)
    return undefined;
  const each = times.map(
    (line) =>
      `${jarText(line.jar, 2)} ${line.minutes} min in ${METHOD[line.method].toLowerCase()}${line.psi == null ? "" : ` at ${line.psi} lb`}`,
  );
  const height = recipe.altitude_ft == null ? "" : ` at ${altitudeText(recipe.altitude_ft)}`;
  return `${capital(each.join(", "))}${height}, ${headspaceText(recipe.text.process.headspace_in, units)} headspace`;
}

/** "6 to 8 pints" */
function fillsText({ low, high, jar }: NonNullable<RecipeView["text"]["makes"]>): string {
  return `${short(low)}${high > low ? ` to ${short(high)}` : ""} ${jarText(jar, 2)}`;
}

type By = "factor" | "tomatoes" | "jars";

/** The card for the wall: how often, big amounts, space for a tick each. */
export function CardPlate({
  recipe,
  units,
  factor,
  onFactor,
  onScarcest,
}: {
  recipe: RecipeView;
  units: Units;
  factor: number;
  onFactor: (factor: number) => void;
  onScarcest: (factor: number) => void;
}) {
  const [by, setBy] = useState<By>("factor");
  const [typed, setTyped] = useState("");
  const mass = massScale(units);
  const value = parseNumber(typed, by === "tomatoes" ? mass.unit : "");
  const request: ScaleRequest =
    by === "tomatoes" && value !== null
      ? { tomatoes_kg: mass.toApi(value) }
      : by === "jars" && value !== null
        ? { jars: value }
        : { factor };
  const { data: card, error } = useQuery(ask.recipeScale(recipe.id, request));
  const taken = card?.factor ?? factor;
  const process = processText(recipe, units);
  const { text } = recipe;
  // What goes into each jar stands on a line of its own.
  const isInPot = text.lines.every((line) => line.part.per == null || line.part.per === "batch");
  const steps = (text.note ?? "").split("\n").filter((step) => step.trim() !== "");
  const source = [text.title, text.edition, text.page]
    .filter((part) => part != null && part !== "")
    .join(", ");
  const title = `${text.name} × ${short(taken)}`;
  const acid = isInPot ? recipe.stands.acid : null;
  const raw = card === undefined || card.raw_l === 0 ? null : volumeText(card.raw_l, units);
  const toFill = [
    raw !== null && `Raw it takes about ${raw} of room${card?.pots == null ? "" : `: ${card.pots}`}.`,
    card?.makes != null && `Fills ${fillsText(card.makes)}.`,
    process !== undefined && `${process}.`,
  ].filter((line) => line !== false);
  const written = [
    title,
    ...(card?.lines ?? []).map((line) => `${line.says} ${line.preparation ?? ""}`),
    ...steps,
    ...toFill,
    acid ?? "",
    source,
  ];
  const times = (count: number) => (
    <Touch
      key={count}
      look={by === "factor" && factor === count ? "main" : "plain"}
      onPress={() => {
        setBy("factor");
        setTyped("");
        onFactor(count);
      }}
    >
      × {count}
    </Touch>
  );
  const field = (kind: By, label: string, unit: string) => (
    <NumberField
      label={label}
      unit={unit}
      typed={by === kind ? typed : ""}
      onType={(next) => {
        setBy(kind);
        setTyped(next);
      }}
      onLeave={() => onFactor(taken)}
    />
  );
  return (
    <Plate
      title={<span className="print:hidden">{title}</span>}
      aside={
        <span className="print:hidden">
          <Touch onPress={() => window.print()}>Print</Touch>
        </span>
      }
    >
      <div className="mb-4 flex flex-wrap items-end gap-3 print:hidden">
        {[1, 2, 3].map(times)}
        {field("tomatoes", "Tomatoes there are", mass.unit)}
        {recipe.text.makes != null && field("jars", "Jars wanted", "")}
      </div>
      <div className="mb-4 print:hidden">
        <Fold words="By what there is least of">
          <Scarcest recipe={recipe} onTake={onScarcest} />
        </Fold>
      </div>
      <Trouble error={error} />
      <div
        className="print:grid print:min-h-[88vh] print:content-between print:gap-[0.5em] print:text-(length:--card) print:leading-snug"
        style={{ "--card": `${cardSize(written)}mm` } as CSSProperties}
      >
        <h2 className="hidden leading-tight print:block print:text-[1.4em]">{title}</h2>
        <ul className="grid gap-1.5">
          {card?.lines.map((line) => (
            <li
              key={line.part.name}
              className="flex items-center gap-3 border-b-2 border-line py-1.5 text-xl print:py-[0.2em] print:text-[1em]"
            >
              <span
                aria-hidden="true"
                className="size-7 shrink-0 rounded-md border-[3px] border-vine print:size-[1em]"
              />
              <span>
                <b>{line.says}</b>
                {line.preparation != null && <span className="text-muted">, {line.preparation}</span>}
              </span>
            </li>
          ))}
        </ul>
        {steps.length > 0 && (
          <ol className="mt-3 grid list-decimal gap-1.5 pl-7 text-lg print:mt-0 print:pl-[1.4em] print:text-[1em]">
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        )}
        <div className="mt-3 grid gap-2 text-lg print:mt-0 print:text-[1em]">
          {toFill.map((line) => (
            <p key={line}>{line}</p>
          ))}
          {acid != null && <p className="font-semibold">{acid}</p>}
          {source !== "" && <p className="text-muted">{source}</p>}
        </div>
      </div>
    </Plate>
  );
}
