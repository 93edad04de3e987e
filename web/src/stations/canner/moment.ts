import type { BoilEvent, LoadView } from "../../api/client";
import { clockText, countdown } from "../../parts/format";

export interface Step {
  event: BoilEvent;
  key: string;
  look: "main" | "plain" | "heat" | "done";
}

/** What the canner's screen says at one moment. */
export interface Moment {
  figure: string;
  words: string;
  span: { since: number; ends: number } | null;
  steps: Step[];
  notes: { tone: "warn" | "note" | "good" | "stop"; text: string }[];
  boiling: boolean;
  running: boolean;
}

const JARS_IN: Step = { event: "jars_in", key: "J", look: "main" };
const VENTS: Step = { event: "vents", key: "V", look: "heat" };
const BOILS: Step = { event: "boils", key: "B", look: "heat" };
const LOST: Step = { event: "boil_lost", key: "L", look: "heat" };
const EARLY_OFF: Step = { event: "heat_off", key: "H", look: "plain" };
const HEAT_OFF: Step = { event: "heat_off", key: "H", look: "done" };
const DOWN: Step = { event: "pressure_down", key: "D", look: "main" };
const LIFTED: Step = { event: "lifted", key: "O", look: "done" };
const HOT_TOP_UP: Step = { event: "topped_up_boiling", key: "T", look: "plain" };
const COLD_TOP_UP: Step = { event: "topped_up_cold", key: "C", look: "plain" };

const still = { span: null, boiling: false, running: false, notes: [] };

/** The words that differ from one kind of canner to another. */
const KIND = {
  water: {
    in: "Lower the jars into hot water. The clock starts at the full rolling boil, not before.",
    heats: "Heating up. Touch “It boils” at a full rolling boil under the lid.",
    counts: "left at a full rolling boil.",
    keep: "Keep it boiling. Top up only with boiling water.",
    lost: "The boil was lost. Bring it back to a full boil; the whole time counts again from there.",
    off: "Turn the heat off and take the lid off, away from you.",
    unbroken: "at an unbroken boil",
  },
  steam: {
    in: "Stand the jars on the rack over hot water. The clock starts at full steam, not before.",
    heats: "Heating up. Touch “Full steam” when an unbroken column streams out.",
    counts: "left at full steam.",
    keep: "Leave the lid on and do not top up; the water must last.",
    lost: "The steam was lost. Bring it back; the whole time counts again from there.",
    off: "Turn the heat off and take the lid off, away from you.",
    unbroken: "at full steam",
  },
  pressure: {
    in: "Stand the jars on the rack in 2 to 3 in of hot water and lock the lid, the vent open.",
    heats: "Heating up. Touch “Steam streams out” when a steady jet leaves the open vent.",
    counts: "left at pressure.",
    keep: "Hold it at or a little above the pressure; below it, the time starts again.",
    lost: "The pressure was lost. Bring it back; the whole time counts again from there.",
    off: "Turn the heat off. Let the pressure drop by itself; never cool it with water.",
    unbroken: "at pressure without a break",
  },
};

function kindOf(load: LoadView): keyof typeof KIND {
  if (load.method === "boiling_water") return "water";
  return load.method === "atmospheric_steam" ? "steam" : "pressure";
}

function rested(load: LoadView): Moment {
  const unbroken = KIND[kindOf(load)].unbroken;
  return {
    ...still,
    figure: "Lift",
    words: load.processed
      ? "Lift the jars straight up onto the towel, gaps between them, no draught."
      : "Lift the jars, but they are not processed: see the note.",
    steps: [LIFTED],
    notes: load.processed
      ? [
          {
            tone: "good",
            text: `Processed: ${load.unbroken_minutes} minutes ${unbroken}, ${load.minutes} were needed.`,
          },
        ]
      : [],
  };
}

function timeUp(load: LoadView): Moment {
  return {
    ...still,
    figure: "Heat off",
    words: `The full ${load.minutes} minutes are done. ${KIND[kindOf(load)].off}`,
    steps: [HEAT_OFF],
    boiling: true,
    running: true,
  };
}

/** The phase as last heard, carried on to this second. */
export function momentOf(load: LoadView, now: number): Moment {
  const phase = load.now;
  const kind = kindOf(load);
  const says = KIND[kind];
  const topUps = kind === "water" ? [HOT_TOP_UP, COLD_TOP_UP] : [];
  const vented: Moment = {
    ...still,
    figure: "Close it",
    words: "Vented the full 10 minutes. Put the weight on; touch “Pressure is up” when it is there.",
    steps: [BOILS],
    boiling: true,
    running: true,
  };
  switch (phase.phase) {
    case "waiting":
      return { ...still, figure: `${load.minutes}:00`, words: says.in, steps: [JARS_IN] };
    case "heating": {
      const boilsAt = load.come_up_minutes == null ? null : phase.since + load.come_up_minutes * 60_000;
      const expected = boilsAt != null && boilsAt > now ? ` Expect it about ${clockText(boilsAt)}.` : "";
      return {
        ...still,
        figure: `${load.minutes}:00`,
        words: says.heats + expected,
        steps: [kind === "pressure" ? VENTS : BOILS, ...topUps],
        running: true,
      };
    }
    case "venting":
      if (phase.ends <= now) return vented;
      return {
        ...vented,
        figure: countdown(phase.ends - now),
        words: "of venting left: steam drives the air out. Then the weight goes on.",
        span: { since: phase.since, ends: phase.ends },
        steps: [],
      };
    case "vented":
      return vented;
    case "counting": {
      if (phase.ends <= now) return timeUp(load);
      const rest = load.rest_minutes;
      const after =
        kind === "pressure"
          ? ` Heat off at ${clockText(phase.ends)}.`
          : ` Lift at ${clockText(phase.ends + rest * 60_000)}, after ${rest} minutes with the lid off.`;
      return {
        ...still,
        figure: countdown(phase.ends - now),
        words: says.counts + after,
        span: { since: phase.since, ends: phase.ends },
        steps: [LOST, EARLY_OFF, ...topUps],
        notes: [{ tone: "note", text: says.keep }],
        boiling: true,
        running: true,
      };
    }
    case "boil_lost":
      return {
        ...still,
        figure: `${load.minutes}:00`,
        words: says.lost,
        steps: [BOILS, EARLY_OFF, ...topUps],
        running: true,
      };
    case "time_up":
      return timeUp(load);
    case "dropping":
      return {
        ...still,
        figure: "Wait",
        words: "The pressure drops by itself. When it is down, take the weight off.",
        steps: [DOWN],
        running: true,
      };
    case "resting":
      if (phase.ends <= now) return rested(load);
      return {
        ...rested(load),
        figure: countdown(phase.ends - now),
        words:
          kind === "pressure"
            ? "The pressure is down: wait before the lid is opened, away from you."
            : "Heat off, lid off: the jars rest before they are lifted.",
        steps: [LIFTED],
        running: true,
      };
    case "rested":
      return rested(load);
    case "lifted":
      return { ...still, figure: "Out", words: "The jars are on the towel.", steps: [] };
  }
}
