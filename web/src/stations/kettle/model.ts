import type { Batch, CookEventRequest, CookRequest, CookView, KettleView, Units } from "../../api/client";
import type { Bound } from "../../parts/fields";
import {
  clockText,
  depthText,
  spanText,
  temperatureText,
  volumeText,
  weightText,
} from "../../writing/format";
import { heatScale, lengthScale, massScale, plain, volumeScale, type Scale } from "../../writing/units";
import { numberText } from "../../writing/ways";

export type Goal = "thin" | "thick" | "paste" | "share" | "mark" | "simmer" | "hold" | "boil";

interface GoalWords {
  text: string;
  /** The field that is asked for it, with its words, unit and usual value. */
  asks?: { label: string; bound: Bound; scale: (units: Units) => Scale; usual: string };
  target: (value: number) => CookRequest["target"];
}

const percent: Scale = { unit: "%", toApi: (typed) => typed / 100, fromApi: (sent) => sent * 100 };

/** How far, as people say it. */
export const GOAL: Record<Goal, GoalWords> = {
  thin: { text: "By a third: two thirds are left", target: () => ({ fraction_left: 2 / 3 }) },
  thick: { text: "By half", target: () => ({ fraction_left: 0.5 }) },
  paste: { text: "To paste", target: () => ({ brix: 17 }) },
  share: {
    text: "To a share",
    asks: { label: "Share that is left", bound: "CookGoal.fraction_left", scale: () => percent, usual: "60" },
    target: (value) => ({ fraction_left: value }),
  },
  mark: {
    text: "To so much",
    asks: { label: "How much is left", bound: "CookGoal.volume_l", scale: volumeScale, usual: "" },
    target: (value) => ({ volume_l: value }),
  },
  simmer: {
    text: "Simmer for minutes",
    asks: {
      label: "Minutes from the boil",
      bound: "CookGoal.boil_minutes",
      scale: () => plain("min"),
      usual: "20",
    },
    target: (value) => ({ boil_minutes: value }),
  },
  hold: {
    text: "Hold hot for minutes",
    asks: {
      label: "Minutes held hot",
      bound: "CookGoal.hold_minutes",
      scale: () => plain("min"),
      usual: "20",
    },
    target: (value) => ({ hold_minutes: value }),
  },
  boil: { text: "Only to the boil", target: () => ({ to_boil: true }) },
};

/** The goal of a batch, as its product asks; juice is held and never boiled down. */
export function goalOf(batch: Pick<Batch, "product" | "thickness">): Goal {
  switch (batch.product) {
    case "sauce":
      return batch.thickness === "thick" ? "thick" : "thin";
    case "paste":
      return "paste";
    case "juice":
    case "vegetable_juice":
      return "hold";
    case "whole":
    case "crushed":
      return "boil";
    case "recipe":
      return "simmer";
  }
}

/** What a cook-down is to come to, in words. */
export function goalText(cook: Pick<CookView, "goal" | "goal_value">): string {
  switch (cook.goal) {
    case "fraction_left": {
      const share = cook.goal_value;
      if (Math.abs(share - 2 / 3) < 0.005) return "by a third, two thirds are left";
      if (Math.abs(share - 0.5) < 0.005) return "by half";
      return `to ${Math.round(share * 100)} %`;
    }
    case "brix":
      return `to ${numberText(cook.goal_value, 1)} °Brix`;
    case "volume_l":
      return "to its mark";
    case "boil_minutes":
      return `simmered for ${cook.goal_value} minutes`;
    case "hold_minutes":
      return `held hot for ${cook.goal_value} minutes`;
    case "to_boil":
      return "brought to the boil";
  }
}

export type Way = "ladle" | "drain" | "add";

/** What moves in or out of a kettle, as people say it. */
export const WAYS: Record<Way, { text: string; field: "ladle_l" | "drain_l" | "add_l"; hint: string }> = {
  ladle: {
    text: "Ladled off",
    field: "ladle_l",
    hint: "Thin juice from the top; the pulp stays in the pot.",
  },
  drain: { text: "Taken off", field: "drain_l", hint: "Well mixed, pulp and all." },
  add: { text: "More goes in", field: "add_l", hint: "The pot sinks, and more fruit or juice goes in." },
};

export type By = "depth" | "volume" | "mass" | "brix" | "temp";

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
  temp: { text: "Temperature", field: "temp_c", bound: "CookEventRequest.temp_c", scale: heatScale },
};

export const BYS = Object.keys(READ) as By[];

/** A line of the log in words; nothing for what is no number. */
export function lineText(line: CookView["log"][number], units: Units): string {
  switch (line.what) {
    case "mass_kg":
      return weightText(line.value * 1000, units);
    case "temp_c":
      return temperatureText(line.value);
    case "brix":
      return `${line.value.toFixed(1)} °Brix`;
    case "volume_l":
      return volumeText(line.value, units);
    case "depth_mm":
      return depthText(line.value, units);
    case "drain_l":
    case "ladle_l":
    case "add_l":
    case "boils":
    case "not_yet":
    case "hot_enough":
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

type Between = CookView["boils"];

/** When it boils, as far as that is known; nothing once it does. */
export function boilText(cook: Pick<CookView, "boiling" | "boils" | "kettle">, now: number): string {
  // In the oven hardly anybody sees it boil.
  if (cook.boiling === true || cook.kettle.heat === "oven") return "";
  const { low, high }: Between = cook.boils;
  const soon = Math.max(low, now);
  if (high - soon < 5 * 60_000) return `It boils at about ${clockText(cook.boils.expected)}.`;
  return `It boils between ${clockText(soon)} and ${clockText(high)}.`;
}

/** How sure the finish is. */
export function likelyText(
  cook: Pick<CookView, "finish_low" | "finish_high" | "vague">,
  now: number,
): string {
  const low = Math.max(cook.finish_low, now);
  if (!cook.vague) return `80 % likely between ${clockText(low)} and ${clockText(cook.finish_high)}.`;
  const hours = (moment: number) => spanText(Math.max(5, Math.round((moment - now) / 300_000) * 5));
  return `Between ${hours(low)} and ${hours(cook.finish_high)} from now: it is not known closer. A reading narrows it.`;
}

/** How the promises of a kettle came true. */
export function promiseText(promises: KettleView["promises"]): string {
  if (promises == null) return "";
  const percent = Math.round(Math.abs(promises.longer_percent));
  const times = ["the last time", "the last two times", "the last three times"][promises.of - 1] ?? "lately";
  if (percent < 5) return `This kettle took as long as said ${times}.`;
  return `This kettle took ${percent} % ${promises.longer_percent > 0 ? "longer" : "less"} than said ${times}.`;
}

/** A point of the curve in words, for those who hear it. */
export function curveText(cook: CookView, now: number, units: Units): string {
  const readings = cook.log.filter((line) => ["depth_mm", "volume_l", "mass_kg", "brix"].includes(line.what));
  const read = readings.map((line) => `${clockText(line.at)} ${lineText(line, units)}`).join(", ");
  return [
    `${volumeText(cook.start_l, units)} at ${clockText(cook.started_at)},`,
    `${volumeText(cook.now_l, units)} at ${clockText(now)},`,
    `${volumeText(cook.target_l, units)} at ${clockText(cook.finish)},`,
    `likely between ${clockText(cook.finish_low)} and ${clockText(cook.finish_high)}.`,
    read === "" ? "Nothing was read yet." : `Readings: ${read}.`,
  ].join(" ");
}
