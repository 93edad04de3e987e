import type { DayView, Work } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { capital } from "../../writing/format";

export type Block = DayView["blocks"][number];

/** Colours of the work: at the sink, on the stove, at the bench, at the canner. */
export const TONE: Record<Work, string> = {
  wash: "bg-brass-wash border-brass",
  core: "bg-brass-wash border-brass",
  blanch: "bg-brass-wash border-brass",
  peel: "bg-brass-wash border-brass",
  chop: "bg-brass-wash border-brass",
  mill: "bg-brass-wash border-brass",
  chill: "bg-brass-wash border-brass",
  cook: "bg-tomato-wash border-tomato",
  heat: "bg-cloth border-muted",
  fill: "bg-vine-wash border-vine",
  load: "bg-cobalt-wash border-cobalt",
  lift: "bg-enamel border-ink",
  pause: "bg-cloth border-line",
};

const RESOURCE = ["Hands", "Burner", "Kettle", "Canner"];

/** "Fill the jars, load 2", "Blanch, 8 rounds" */
export function blockText(block: Pick<Block, "work" | "name" | "rounds" | "kettles">): string {
  const rounds = block.rounds == null ? null : `${block.rounds} ${block.rounds === 1 ? "round" : "rounds"}`;
  const kettles = block.kettles == null ? null : `in ${block.kettles} kettles`;
  return [capital(WORDS.Work[block.work]), block.name, kettles, rounds]
    .filter((part) => part != null)
    .join(", ");
}

/** Whether the evening hangs on it: it can start neither sooner nor later. */
export function isCritical(block: Pick<Block, "slack_minutes" | "sooner_minutes">): boolean {
  return block.slack_minutes === 0 && block.sooner_minutes === 0;
}

export interface Row {
  resource: number;
  number: number;
  name: string;
  blocks: number[];
}

/** What people look for first: the hands, then the canner they wait for. */
const ORDER = [0, 3, 2, 1];

/** Lanes that something lies in. */
export function rowsOf(day: Pick<DayView, "has" | "lanes">): Row[] {
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

/** Whole hours between two moments, with steps between them that leave room for their words. */
export function hoursOf(from: number, to: number): number[] {
  const hour = 3_600_000;
  const first = Math.ceil(from / hour) * hour;
  const step = to - from > 10 * hour ? 2 * hour : hour;
  return Array.from({ length: Math.max(0, Math.floor((to - first) / step) + 1) }, (_, i) => first + i * step);
}

/** What a lane is at now, and what comes next in it. */
export function atOf(day: Pick<DayView, "blocks">, row: Row, now: number): { now?: Block; next?: Block } {
  const blocks = row.blocks
    .map((place) => day.blocks[place])
    .filter((block) => block !== undefined)
    .sort((a, b) => a.starts - b.starts);
  const at = blocks.find((block) => block.starts <= now && block.ends > now);
  const next = blocks.find((block) => block.starts > now);
  return { ...(at !== undefined && { now: at }), ...(next !== undefined && { next }) };
}
