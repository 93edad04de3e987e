import type { DayView, Work } from "../../api/client";
import { clockText, MINUTE } from "../../parts/format";
import { WorkSign } from "./WorkSign";

export type Block = DayView["blocks"][number];

/** The words of the counter for each kind of work, and its colours. */
export const WORK: Record<Work, { text: string; tone: string }> = {
  wash: { text: "Wash", tone: "bg-brass-wash border-brass" },
  core: { text: "Core and cut", tone: "bg-brass-wash border-brass" },
  blanch: { text: "Blanch", tone: "bg-brass-wash border-brass" },
  peel: { text: "Peel", tone: "bg-brass-wash border-brass" },
  mill: { text: "Simmer and mill", tone: "bg-brass-wash border-brass" },
  chill: { text: "Into the refrigerator", tone: "bg-brass-wash border-brass" },
  cook: { text: "Cook", tone: "bg-tomato-wash border-tomato" },
  heat: { text: "Put the canner on", tone: "bg-cloth border-muted" },
  fill: { text: "Fill the jars", tone: "bg-vine-wash border-vine" },
  load: { text: "In the canner", tone: "bg-cobalt-wash border-cobalt" },
  lift: { text: "Lift the jars", tone: "bg-white border-ink" },
  pause: { text: "Break", tone: "bg-cloth border-line" },
};

const RESOURCE = ["Hands", "Burner", "Kettle", "Canner"];

/** "Fill the jars, load 2", "Blanch, 8 rounds" */
export function blockText(block: Block): string {
  const rounds = block.rounds == null ? null : `${block.rounds} ${block.rounds === 1 ? "round" : "rounds"}`;
  return [WORK[block.work].text, block.name, rounds].filter((part) => part != null).join(", ");
}

/** Whether the evening hangs on it: it can start neither sooner nor later. */
const isCritical = (block: Block) => block.slack_minutes === 0 && block.sooner_minutes === 0;

interface Row {
  resource: number;
  number: number;
  name: string;
  blocks: number[];
}

/** What people look for first: the hands, then the canner they wait for. */
const ORDER = [0, 3, 2, 1];

/** Lanes that something lies in. */
function rowsOf(day: DayView): Row[] {
  return ORDER.map((resource) => ({ resource, count: day.has[resource] ?? 0 }))
    .flatMap(({ resource, count }) =>
      Array.from({ length: count }, (_, number) => ({
        resource,
        number,
        name: `${RESOURCE[resource] ?? ""}${count > 1 ? ` ${number + 1}` : ""}`,
        blocks: day.lanes
          .filter((lane) => lane.resource === resource && lane.number === number)
          .map((lane) => lane.block),
      })),
    )
    .filter((row) => row.blocks.length > 0);
}

/** Whole hours between two moments, and the steps between them that leave room for their words. */
function hoursOf(from: number, to: number): number[] {
  const hour = 3_600_000;
  const first = Math.ceil(from / hour) * hour;
  const step = to - from > 10 * hour ? 2 * hour : hour;
  return Array.from({ length: Math.max(0, Math.floor((to - first) / step) + 1) }, (_, i) => first + i * step);
}

/** The day as a strip: a lane for each pair of hands, burner, kettle and canner, "now" at its left edge. */
export function DayStrip({
  day,
  now,
  chosen,
  products,
  onChoose,
}: {
  day: DayView;
  now: number;
  chosen: string | null;
  /** What each batch becomes, by its code. */
  products: ReadonlyMap<string, string>;
  onChoose: (key: string) => void;
}) {
  const start = day.now;
  const end = Math.max(day.finish ?? start, start + 3_600_000);
  const left = (at: number) => `${((Math.min(Math.max(at, start), end) - start) / (end - start)) * 100}%`;
  const wide = (from: number, to: number) => `${((to - from) / (end - start)) * 100}%`;
  return (
    <div className="relative grid gap-1.5 pb-6 pl-24" data-testid="strip">
      <div className="pointer-events-none absolute inset-y-0 right-0 left-24" aria-hidden="true">
        {hoursOf(start, end).map((at) => (
          <span key={at} className="absolute inset-y-0 border-l-2 border-line" style={{ left: left(at) }}>
            <span className="absolute bottom-0 pl-1 text-sm text-muted">{clockText(at)}</span>
          </span>
        ))}
      </div>
      {rowsOf(day).map((row) => (
        <div key={row.name} className="relative h-12 rounded-xl bg-cloth/60">
          <span className="absolute top-1/2 -left-24 w-22 -translate-y-1/2 truncate text-sm font-semibold text-muted">
            {row.name}
          </span>
          {row.blocks.map((place) => {
            const block = day.blocks[place];
            if (block === undefined) return null;
            const { tone } = WORK[block.work];
            // The second burner of a load keeps the water for topping up at the boil.
            const first = day.lanes.find((lane) => lane.resource === row.resource && lane.block === place);
            const water = block.work === "load" && first?.number !== row.number;
            // How far it may slip is always seen; how much sooner it may start, once it is touched.
            const sooner = chosen === block.key ? block.sooner_minutes : 0;
            const from = block.starts - sooner * MINUTE;
            const until = block.ends + block.slack_minutes * MINUTE;
            return (
              <span key={place}>
                {!block.begun && (
                  <span
                    className="absolute top-5 h-2 rounded-full bg-line"
                    style={{ left: left(from), width: wide(from, until) }}
                    aria-hidden="true"
                  />
                )}
                <button
                  type="button"
                  data-block={water ? undefined : block.key}
                  aria-pressed={chosen === block.key}
                  aria-label={`${blockText(block)}${block.batch == null ? "" : ` of ${block.batch}`}, ${clockText(block.starts)} to ${clockText(block.ends)}`}
                  onClick={() => onChoose(block.key)}
                  className={`@container absolute inset-y-0 z-10 overflow-hidden rounded-lg border-2 text-left text-sm leading-tight font-semibold ${tone} ${isCritical(block) ? "border-l-[7px]" : "border-dashed"} ${chosen === block.key ? "outline-4 outline-brass" : ""}`}
                  style={{ left: left(block.starts), width: wide(block.starts, block.ends) }}
                >
                  <span className="hidden px-1.5 @min-[76px]:block">
                    <span className="block truncate">{water ? "Water to top up" : blockText(block)}</span>
                    <span className="block truncate font-normal text-muted">
                      {block.batch == null ? "" : (products.get(block.batch) ?? block.batch)}
                    </span>
                  </span>
                  <WorkSign work={block.work} className="mx-auto w-full max-w-5 @min-[76px]:hidden" />
                </button>
              </span>
            );
          })}
        </div>
      ))}
      <div className="pointer-events-none absolute inset-y-0 right-0 left-24" aria-hidden="true">
        <span className="absolute inset-y-0 border-l-[3px] border-tomato" style={{ left: left(now) }} />
      </div>
    </div>
  );
}
