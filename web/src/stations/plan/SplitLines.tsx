import type { Lot, SplitAnswer, Units } from "../../api/client";
import { KIND, volumeText, weightText } from "../../writing/format";
import { JarPicture } from "../../parts/JarPicture";
import { CountField } from "../../parts/CountField";
import { Touch } from "../../parts/Touch";
import { goalText } from "./model";

type Line = SplitAnswer["lines"][number];

function FruitText({ line, lots, units }: { line: Line; lots: Lot[]; units: Units }) {
  const parts = line.fruit.map((fruit) => {
    const lot = lots.find((item) => item.id === fruit.lot);
    return `${weightText(fruit.weight_g, units)} ${lot === undefined ? "" : KIND[lot.kind].toLowerCase()}`;
  });
  if (line.drained_l > 0.1)
    parts.push(`${volumeText(line.drained_l, units)} of thin juice drained off for the juice jars`);
  return <span className="block text-sm text-muted">{parts.join(", ") || "nothing"}</span>;
}

/** What goes where; a number that is changed is kept, and the rest is shared out again. */
export function SplitLines({
  answer,
  lots,
  units,
  onPin,
}: {
  answer: SplitAnswer;
  lots: Lot[];
  units: Units;
  onPin: (choice: number, jars: number | null) => void;
}) {
  const shown = answer.lines.filter((line) => line.jars > 0 || line.goal > 0 || line.pinned);
  return (
    <ul className="grid gap-1.5">
      {shown.map((line) => (
        <li
          key={line.choice}
          data-choice={line.choice}
          className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t-2 border-line pt-1.5"
        >
          <span className="h-14 w-11">
            <JarPicture
              size={line.jar}
              product={line.product}
              acid={line.jars > 0}
              filled={line.jars > 0}
              lid={line.jars > 0}
            />
          </span>
          <p className="min-w-0 flex-1 basis-52 leading-snug">
            <strong className="font-slab text-xl">{line.jars}</strong>{" "}
            <span className="font-semibold">{goalText(line, line.jars)}</span>
            {line.goal > 0 && <span className="text-muted"> of {line.goal} asked</span>}
            <FruitText line={line} lots={lots} units={units} />
          </p>
          <CountField
            quiet
            label={goalText(line)}
            count={line.jars}
            bound="Pin.jars"
            onSet={(jars) => onPin(line.choice, jars)}
          />
          {line.pinned ? (
            <Touch look="done" onPress={() => onPin(line.choice, null)}>
              Kept
            </Touch>
          ) : (
            <Touch onPress={() => onPin(line.choice, line.jars)}>Keep</Touch>
          )}
        </li>
      ))}
    </ul>
  );
}
