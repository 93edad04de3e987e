import type { CookEventRequest, CookRequest, CookView, Units } from "../../api/client";
import type { Bound } from "../../parts/fields";
import { temperatureText, weightText } from "../../parts/format";
import { heatScale, lengthScale, massScale, plain, volumeScale, type Scale } from "../../parts/units";

export type Goal = "thin" | "thick" | "paste";

/** How far down, as people say it. */
export const GOAL: Record<Goal, { text: string; target: CookRequest["target"] }> = {
  thin: { text: "Thin sauce, by a third", target: { fraction_left: 2 / 3 } },
  thick: { text: "Thick sauce, by half", target: { fraction_left: 0.5 } },
  paste: { text: "Paste", target: { brix: 17 } },
};

export type By = "depth" | "volume" | "mass" | "brix" | "drain" | "temp";

interface Reading {
  text: string;
  /** The field of a reading that it is sent as. */
  field: keyof CookEventRequest;
  bound: Bound;
  scale: (units: Units) => Scale;
}

/** How each reading is typed, and sent. */
export const READ: Record<By, Reading> = {
  depth: { text: "Depth", field: "depth_mm", bound: "CookEventRequest.depth_mm", scale: lengthScale },
  volume: { text: "Volume", field: "volume_l", bound: "CookEventRequest.volume_l", scale: volumeScale },
  mass: { text: "Weight", field: "mass_kg", bound: "CookEventRequest.mass_kg", scale: massScale },
  brix: { text: "Brix", field: "brix", bound: "CookEventRequest.brix", scale: () => plain("°") },
  drain: { text: "Drained off", field: "drain_l", bound: "CookEventRequest.drain_l", scale: volumeScale },
  temp: { text: "Temperature", field: "temp_c", bound: "CookEventRequest.temp_c", scale: heatScale },
};

export const BYS = Object.keys(READ) as By[];

/** The last line of a simulated instrument, in words; nothing for what people say. */
export function lastText(line: CookView["log"][number], units: Units): string {
  switch (line.what) {
    case "mass_kg":
      return weightText(line.value * 1000, units);
    case "temp_c":
      return temperatureText(line.value, units);
    case "brix":
      return `${line.value.toFixed(1)} °Brix`;
    case "volume_l":
    case "depth_mm":
    case "drain_l":
    case "lid_on":
    case "lid_off":
    case "heat_low":
    case "heat_medium":
    case "heat_high":
      return "";
  }
}

/** Whole minutes until the mark, none once it is reached. */
export function minutesLeft(cook: Pick<CookView, "finish">, now: number): number {
  return Math.max(0, Math.round((cook.finish - now) / 60_000));
}

/** What is said of readings that lie too far off to be believed. */
export function flaggedText(count: number): string {
  return count === 1
    ? "That reading looks wrong and was left out. Measure again."
    : `${count} readings look wrong and were left out. Measure again.`;
}
