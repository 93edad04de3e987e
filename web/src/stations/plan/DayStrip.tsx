import { scaleTime } from "d3-scale";
import type { DayView } from "../../api/client";
import { clockText, MINUTE } from "../../parts/format";
import { blockText, hoursOf, isCritical, rowsOf, TONE } from "./strip";
import { WorkSign } from "./WorkSign";

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
  const percent = scaleTime([start, end], [0, 100]);
  const inside = percent.copy().clamp(true);
  const left = (at: number) => `${inside(at)}%`;
  const wide = (from: number, to: number) => `${percent(to) - percent(from)}%`;
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
            const tone = TONE[block.work];
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
