import type { DayView } from "../../api/client";
import { clockText, MINUTE } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { blockText, type Block } from "./strip";
import { useMark } from "./useMark";
import { WorkSign } from "./WorkSign";

/** Lines that a glance takes in; on paper all of them. */
const SHOWN = 7;

/** "Now", "since 14:40" or "15:20". */
function whenText(block: Block, now: number): string {
  if (block.begun) return `Until ${clockText(block.ends)}`;
  return block.starts <= now + MINUTE ? "Now" : clockText(block.starts);
}

/** What the hands are at and what comes next, in the order of the clock; on a phone this is the day. */
export function NextWork({
  day,
  now,
  products,
}: {
  day: DayView;
  now: number;
  products: ReadonlyMap<string, string>;
}) {
  const { mark, error } = useMark();
  const coming = day.blocks
    .filter((block) => block.ends > now && (block.is_said || !block.begun))
    .sort((a, b) => Number(b.begun) - Number(a.begun) || a.starts - b.starts);
  return (
    <>
      <ol className="grid gap-1.5 print:block print:columns-2">
        {coming.map((block, place) => (
          <li
            key={block.key}
            className={`min-h-[62px] items-center justify-between gap-3 rounded-xl border-2 px-3 py-1.5 text-lg print:flex print:min-h-0 print:break-inside-avoid print:rounded-none print:border-0 print:border-b-2 print:py-0.5 ${place < SHOWN ? "flex" : "hidden"} ${block.begun ? "border-brass bg-brass-wash" : "border-line bg-enamel"}`}
          >
            <span className="flex min-w-0 items-center gap-3">
              <span className="flex shrink-0 flex-col items-center gap-x-3 sm:flex-row">
                <strong className="min-w-14 text-center font-slab sm:text-left">
                  {whenText(block, now)}
                </strong>
                <WorkSign work={block.work} className="w-7 text-link" />
              </span>
              <span className="flex flex-wrap gap-x-3">
                {blockText(block)}
                {block.batch != null && (
                  <span className="text-muted">
                    {products.get(block.batch)} <span className="whitespace-nowrap">{block.batch}</span>
                  </span>
                )}
              </span>
            </span>
            {block.is_said && block.begun && (
              <Touch
                className="print:hidden"
                look="done"
                label={`${blockText(block)} of batch ${block.batch ?? ""}: done`}
                onPress={() => mark(block, "done")}
              >
                Done
              </Touch>
            )}
            {block.is_said && !block.begun && block.starts <= now + MINUTE && (
              <Touch
                className="print:hidden"
                label={`${blockText(block)} of batch ${block.batch ?? ""}: begin`}
                onPress={() => mark(block, "begun")}
              >
                Begin
              </Touch>
            )}
          </li>
        ))}
      </ol>
      <Trouble error={error} />
    </>
  );
}
