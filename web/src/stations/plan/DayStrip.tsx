import { scaleTime } from "d3-scale";
import { Fragment, type ReactNode } from "react";
import type { DayView } from "../../api/client";
import { clockText, MINUTE } from "../../writing/format";
import { blockText, hoursOf, isCritical, rowsOf, TONE } from "./strip";
import { WorkSign } from "./WorkSign";

/** A short block lies over the long ones beside it, and the earlier over the later, so that each can be hit. */
const above = (block: DayView["blocks"][number], place: number) =>
  100_000 - Math.round((block.ends - block.starts) / MINUTE) * 100 - place;

/** Wide enough to be hit, and wider by what a short block before it covers; both in per cent of the strip. */
const least = (from: number, before: number) => `calc(25px + max(0px, 25px - ${from - before}%))`;

/** The day as a strip: a lane for each pair of hands, burner, kettle and canner, "now" at its left edge. */
export function DayStrip({
  day,
  now,
  chosen,
  products,
  details,
  onChoose,
}: {
  day: DayView;
  now: number;
  chosen: string | null;
  /** What each batch becomes, by its code. */
  products: ReadonlyMap<string, string>;
  /** What is said of the chosen block; it stands under its lane. */
  details: ReactNode;
  onChoose: (key: string) => void;
}) {
  const start = day.now;
  const end = Math.max(day.finish ?? day.would_finish ?? start, start + 3_600_000);
  const percent = scaleTime([start, end], [0, 100]);
  const inside = percent.copy().clamp(true);
  const rows = rowsOf(day);
  const chosenRow = rows.find((row) => row.blocks.some((place) => day.blocks[place]?.key === chosen))?.name;
  const left = (at: number) => `${inside(at)}%`;
  const wide = (from: number, to: number) => `${percent(to) - percent(from)}%`;
  return (
    <div className="relative isolate grid gap-1.5 pb-6 pl-24" data-testid="strip">
      <div className="pointer-events-none absolute inset-y-0 right-0 left-24" aria-hidden="true">
        {hoursOf(start, end).map((at) => (
          <span key={at} className="absolute inset-y-0 border-l-2 border-line" style={{ left: left(at) }}>
            <span className="absolute bottom-0 pl-1 text-sm text-muted">{clockText(at)}</span>
          </span>
        ))}
      </div>
      {rows.map((row) => (
        <Fragment key={row.name}>
          <div className="relative h-12 rounded-xl bg-cloth/60">
            <span className="absolute top-1/2 -left-24 w-22 -translate-y-1/2 truncate text-sm font-semibold text-muted">
              {row.name}
            </span>
            {row.blocks.map((place, at) => {
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
                    onClick={() => onChoose(block.key)}
                    className={`@container absolute inset-y-0 overflow-hidden rounded-lg border-2 text-left text-sm leading-tight font-semibold ${tone} ${isCritical(block) ? "border-l-[7px]" : "border-dashed"} ${chosen === block.key ? "outline-4 outline-brass" : ""}`}
                    style={{
                      left: left(block.starts),
                      width: wide(block.starts, block.ends),
                      minWidth: least(
                        percent(block.starts),
                        percent(day.blocks[row.blocks[at - 1] ?? -1]?.starts ?? 0),
                      ),
                      zIndex: above(block, place),
                    }}
                  >
                    <span className="sr-only">
                      {blockText(block)}
                      {block.batch == null ? "" : ` of ${block.batch}`}, {clockText(block.starts)} to{" "}
                      {clockText(block.ends)}
                    </span>
                    <span className="hidden px-1.5 @min-[76px]:block" aria-hidden="true">
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
          {row.name === chosenRow && <div className="relative z-10 -ml-24">{details}</div>}
        </Fragment>
      ))}
      <div className="pointer-events-none absolute inset-y-0 right-0 left-24" aria-hidden="true">
        <span className="absolute inset-y-0 border-l-[3px] border-tomato" style={{ left: left(now) }} />
        {day.would_finish != null && (
          <span
            className="absolute inset-y-0 right-0 border-l-[3px] border-tomato-deep bg-[repeating-linear-gradient(135deg,transparent_0_10px,var(--color-line)_10px_13px)] opacity-70"
            style={{ left: left(day.day_ends) }}
          />
        )}
      </div>
    </div>
  );
}
