import { api, take, type BatchRecord, type Food, type Units } from "../../api/client";
import { useChange } from "../../api/queries";
import { weightText } from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { flowOf, partsOf } from "./flow";
import { Link } from "react-router";
import { BatchFood } from "../../parts/BatchFood";
import { toneOf } from "./balance";

const WIDE = 100;
const COLORS = [
  "fill-none stroke-tomato",
  "fill-none stroke-brass",
  "fill-none stroke-vine",
  "fill-none stroke-cobalt",
];
const FOODS: readonly Food[] = ["product", "thin_juice", "juice", "bits", "cooked", "trimmings"];
const REST = "fill-none stroke-line";

/** The day that a batch's code names: "260912-1" is 2026-09-12. */
function dayOfCode(code: string): string {
  return `20${code.slice(0, 2)}-${code.slice(2, 4)}-${code.slice(4, 6)}`;
}

/** How far off a figure may be; below what a scale shows it is exact. */
function doubtText(grams: number, units: Units): string {
  return grams < 50 ? "weighed" : `give or take ${weightText(grams, units)}`;
}

/** Where a batch's food went: ribbons as wide as what went there, with their figures, and a touch for what is not told. */
export function WhereItWent({ record, units }: { record: BatchRecord; units: Units }) {
  const { balance, batch } = record;
  const takeBack = useChange((id: number) =>
    take(api.DELETE("/api/moves/{id}", { params: { path: { id } } })),
  );
  const shown = partsOf(balance);
  const { height, ribbons } = flowOf(balance, WIDE);
  const told = balance.parts.filter((part) => part.grams > 0);
  const tone = toneOf(balance.verdict);
  return (
    <section>
      <h3 className="mt-4 text-xl">Where it all went</h3>
      <p className="text-lg">
        {balance.came.map((part) => `${weightText(part.grams, units)} ${part.words}`).join(", ")} came in.{" "}
        <Link
          to={`/books/${dayOfCode(batch.code)}`}
          className="font-semibold text-cobalt underline underline-offset-4 print:hidden"
        >
          The whole day
        </Link>
      </p>
      <div className="relative mt-2 grid grid-cols-[minmax(90px,2fr)_minmax(210px,3fr)]" style={{ height }}>
        <svg
          viewBox={`0 0 ${WIDE} ${height}`}
          preserveAspectRatio="none"
          className="h-full w-full"
          aria-hidden="true"
        >
          {ribbons.map((ribbon, place) => (
            <path
              key={shown[place]?.words ?? place}
              d={ribbon.path}
              strokeWidth={Math.max(1, ribbon.width)}
              className={
                shown[place]?.words === balance.rest ? REST : (COLORS[place % COLORS.length] ?? REST)
              }
              strokeOpacity={0.75}
            />
          ))}
        </svg>
        <ul className="relative">
          {ribbons.map((ribbon, place) => {
            const part = told[place];
            return (
              <li
                key={`${shown[place]?.words ?? ""}${place}`}
                className="absolute right-0 left-3 -translate-y-1/2 leading-tight"
                style={{ top: ribbon.middle }}
              >
                <strong>{weightText(shown[place]?.grams ?? 0, units)}</strong> {shown[place]?.words}
                <br />
                <span className="text-sm text-muted">
                  {part !== undefined
                    ? doubtText(part.doubt_g, units)
                    : balance.verdict !== "cannot_tell" &&
                      `usual are ${weightText(balance.usual_low_g, units)} to ${weightText(balance.usual_high_g, units)}`}
                </span>
              </li>
            );
          })}
        </ul>
      </div>
      <ul>
        {balance.parts.map(
          (part) =>
            part.id != null && (
              <li key={part.id} className="flex flex-wrap items-center gap-x-3">
                Told: {part.told} {part.words}
                <Touch
                  className="print:hidden"
                  label={`Take back: ${part.words}`}
                  onPress={() => part.id != null && takeBack.mutate(part.id)}
                >
                  Take back
                </Touch>
              </li>
            ),
        )}
      </ul>
      <div className="my-3" data-testid="balance">
        <Note tone={tone}>{balance.text}</Note>
      </div>
      <Trouble error={takeBack.error} />
      <h4 className="text-lg font-semibold print:hidden">Something went elsewhere</h4>
      <BatchFood batch={batch.id} foods={FOODS} units={units} />
    </section>
  );
}
