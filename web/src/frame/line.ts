import type { Counter } from "../api/client";
import { clockText, countdown, spanText, weight } from "../writing/format";
import type { StationName } from "./StationPicture";

type Call = Counter["calls"][number];

/** Calls whose moment has come, the most urgent first; the first of those that ring until somebody comes, and all that are said once. */
export function callsNow(
  calls: readonly Call[],
  now: number,
): { due: Call[]; ringing: string | null; once: string[] } {
  const due = calls.filter((call) => call.from <= now);
  return {
    due,
    ringing: due.find((call) => !call.once)?.text ?? null,
    once: due.filter((call) => call.once).map((call) => call.text),
  };
}

/** Pages beside the line, by the first part of their address. */
const PAGES: Record<string, string> = {
  start: "The first answer",
  almanac: "Almanac",
  batches: "Batch",
  books: "Where it went",
  jar: "Jar",
  labels: "Labels",
};

/** What the page is called: the station, or what lies beside the line. */
export function pageOf(path: string): string {
  const [, first = "", second = ""] = path.split("/");
  if (first === "plan") return PLANS[second] ?? "Plan";
  if (first === "kitchen") return KITCHEN[second] ?? "Kitchen";
  return PAGES[first] ?? (first === "" ? "Crates" : first.charAt(0).toUpperCase() + first.slice(1));
}

const PLANS: Record<string, string> = {
  compare: "Side by side",
  split: "Share it all out",
  day: "The day",
  recipes: "Recipes",
  ph: "pH bench",
};

const KITCHEN: Record<string, string> = {
  canners: "Canners",
  kettles: "Kettles",
  cupboard: "Cupboard",
  devices: "Devices and people",
  safe: "Safe keeping",
};

/** What the browser's tab says: "22:49 boiling · Canner". */
export function titleOf(places: readonly Place[], path: string): string {
  const place = places.find((one) => path === `/${one.station}`);
  const page = pageOf(path);
  return place === undefined ? `${page} · Bodega` : `${place.figure} ${place.words}`.trim() + ` · ${page}`;
}

/** What the line says of one station. */
export interface Place {
  station: StationName;
  name: string;
  figure: string;
  words: string;
  hot?: boolean;
}

function cannerPlace(counter: Counter, now: number): Place {
  const place = { station: "canner", name: "Canner" } as const;
  const [load, ...others] = counter.canners;
  if (load === undefined) return { ...place, figure: "–", words: "empty" };
  if (load.not_processed) return { ...place, figure: "Again", words: "not processed" };
  const phase = load.now;
  switch (phase.phase) {
    case "waiting":
    case "heating":
      return { ...place, figure: String(load.jars), words: "heating up" };
    case "venting":
      return phase.ends > now
        ? { ...place, figure: countdown(phase.ends - now), words: "vents" }
        : { ...place, figure: "Close", words: "the vent" };
    case "vented":
      return { ...place, figure: "Close", words: "the vent" };
    case "dropping":
      return { ...place, figure: String(load.jars), words: "pressure drops" };
    case "counting":
      return phase.ends > now
        ? {
            ...place,
            figure: countdown(phase.ends - now),
            words: others.length > 0 ? `first of ${others.length + 1}` : "boiling",
            hot: true,
          }
        : { ...place, figure: "Heat off", words: "" };
    case "unwatched":
      return { ...place, figure: "Held?", words: "the boil" };
    case "boil_lost":
      return { ...place, figure: "Lost", words: "no boil" };
    case "time_up":
      return { ...place, figure: "Heat off", words: "" };
    case "resting":
      return phase.ends > now
        ? { ...place, figure: countdown(phase.ends - now), words: "rest" }
        : { ...place, figure: "Lift", words: "" };
    case "rested":
      return { ...place, figure: "Lift", words: "" };
    case "lifted":
      return { ...place, figure: "–", words: "empty" };
  }
}

function towelPlace(counter: Counter, now: number): Place {
  const place = { station: "towel", name: "Towel" } as const;
  const due = counter.next_check;
  if (counter.unprocessed > 0)
    return { ...place, figure: String(counter.unprocessed), words: "not processed" };
  if (counter.undosed > 0) return { ...place, figure: String(counter.undosed), words: "no acid" };
  if (counter.stopped > 0) return { ...place, figure: String(counter.stopped), words: "not for the shelf" };
  const words = due == null ? "cooling" : due > now ? `check ${clockText(due)}` : "check now";
  return { ...place, figure: String(counter.cooling), words };
}

/** By how much a clock was set: "forward by 40 min", "back by 1 h". */
export function stepText(minutes: number): string {
  const way = minutes > 0 ? "forward" : "back";
  return `${way} by ${spanText(Math.max(1, Math.round(Math.abs(minutes))))}`;
}

/** The line: where everything is. */
export function placesOf(counter: Counter, now: number): Place[] {
  const waiting = weight(counter.waiting_g, counter.kitchen.units);
  const bench = counter.bench;
  return [
    { station: "crates", name: "Crates", figure: waiting.value, words: `${waiting.unit} waiting` },
    {
      station: "plan",
      name: "Plan",
      figure: String(counter.batches),
      words: counter.batches === 1 ? "batch" : "batches",
    },
    counter.kettle == null
      ? { station: "kettle", name: "Kettle", figure: "–", words: "stove clear" }
      : {
          station: "kettle",
          name: "Kettle",
          figure: counter.kettle.finish > now ? `${Math.round(counter.kettle.done * 100)} %` : "Off",
          words:
            counter.kettle.finish <= now
              ? "mark reached"
              : counter.kettle.vague
                ? `by ${clockText(counter.kettle.finish_high)}`
                : `done ${clockText(counter.kettle.finish)}`,
          hot: counter.kettle.finish > now,
        },
    bench
      ? { station: "jars", name: "Jars", figure: String(bench.acid), words: `of ${bench.jars} acid in` }
      : { station: "jars", name: "Jars", figure: "–", words: "bench clear" },
    cannerPlace(counter, now),
    towelPlace(counter, now),
    { station: "shelf", name: "Shelf", figure: String(counter.shelved), words: "jars" },
  ];
}
