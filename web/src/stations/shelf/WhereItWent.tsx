import { Link } from "react-router";
import { api, take, type BatchRecord, type Food, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import { BatchFood } from "../../parts/BatchFood";
import { FlowPicture } from "../../parts/FlowPicture";
import { weightText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { flowOf, toneOf } from "./balance";

const FOODS: readonly Food[] = ["product", "fruit", "thin_juice", "juice", "bits", "cooked", "trimmings"];

/** The day that a batch's code names: "260912-1" is 2026-09-12. */
function dayOfCode(code: string): string {
  return `20${code.slice(0, 2)}-${code.slice(2, 4)}-${code.slice(4, 6)}`;
}

/** Where a batch's food went, with the figures, whether that adds up, and a touch for what is not told. */
export function WhereItWent({ record, units }: { record: BatchRecord; units: Units }) {
  const { balance, batch } = record;
  const takeBack = useChange((id: number) =>
    take(api.DELETE("/api/moves/{id}", { params: { path: { id } } })),
  );
  const { stops, links } = flowOf(balance, batch.code);
  return (
    <section>
      <h3 className="mt-4 text-xl">Where it all went</h3>
      <p className="mb-2 text-lg">
        {weightText(balance.came_in_g, units)} came in.{" "}
        <Link
          to={`/books/${dayOfCode(batch.code)}`}
          className="font-semibold text-link underline underline-offset-4 print:hidden"
        >
          The whole day
        </Link>
      </p>
      <FlowPicture stops={stops} links={links} units={units} />
      <ul className="mt-2">
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
        <Note tone={toneOf(balance.verdict)}>
          {balance.text}
          {balance.verdict !== "cannot_tell" &&
            ` Usual are ${weightText(balance.usual_low_g, units)} to ${weightText(balance.usual_high_g, units)} of ${balance.rest}.`}
        </Note>
      </div>
      <Trouble error={takeBack.error} />
      <h4 className="text-lg font-semibold print:hidden">Something went elsewhere</h4>
      <BatchFood batch={batch.id} foods={FOODS} units={units} />
    </section>
  );
}
