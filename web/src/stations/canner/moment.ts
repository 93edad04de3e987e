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

const REST_MINUTES = 5;
const JARS_IN: Step = { event: "jars_in", key: "J", look: "main" };
const BOILS: Step = { event: "boils", key: "B", look: "heat" };
const LOST: Step = { event: "boil_lost", key: "L", look: "heat" };
const EARLY_OFF: Step = { event: "heat_off", key: "H", look: "plain" };
const HEAT_OFF: Step = { event: "heat_off", key: "H", look: "done" };
const LIFTED: Step = { event: "lifted", key: "O", look: "done" };

const still = { span: null, boiling: false, running: false, notes: [] };

function rested(load: LoadView): Moment {
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
            text: `Processed: ${load.unbroken_minutes} minutes at an unbroken boil, ${load.minutes} were needed.`,
          },
        ]
      : [],
  };
}

function timeUp(load: LoadView): Moment {
  return {
    ...still,
    figure: "Heat off",
    words: `The full ${load.minutes} minutes are done. Turn the heat off and take the lid off, away from you.`,
    steps: [HEAT_OFF],
    boiling: true,
    running: true,
  };
}

/** The phase as last heard, carried on to this second. */
export function momentOf(load: LoadView, now: number): Moment {
  const phase = load.now;
  switch (phase.phase) {
    case "waiting":
      return {
        ...still,
        figure: `${load.minutes}:00`,
        words: "Lower the jars into hot water. The clock starts at the full rolling boil, not before.",
        steps: [JARS_IN],
        notes: [{ tone: "note", text: "Water 1 to 2 in over the lids, a rack or towel under the jars." }],
      };
    case "heating":
      return {
        ...still,
        figure: `${load.minutes}:00`,
        words: "Heating up. Touch “It boils” at a full rolling boil under the lid.",
        steps: [BOILS],
        running: true,
      };
    case "counting": {
      if (phase.ends <= now) return timeUp(load);
      return {
        ...still,
        figure: countdown(phase.ends - now),
        words: `left at a full rolling boil. Lift at ${clockText(phase.ends + REST_MINUTES * 60_000)}, after ${REST_MINUTES} minutes with the lid off.`,
        span: { since: phase.since, ends: phase.ends },
        steps: [LOST, EARLY_OFF],
        notes: [{ tone: "note", text: "Keep it boiling. Top up only with boiling water." }],
        boiling: true,
        running: true,
      };
    }
    case "boil_lost":
      return {
        ...still,
        figure: `${load.minutes}:00`,
        words: "The boil was lost. Bring it back to a full boil; the whole time counts again from there.",
        steps: [BOILS, EARLY_OFF],
        running: true,
      };
    case "time_up":
      return timeUp(load);
    case "resting":
      if (phase.ends <= now) return rested(load);
      return {
        ...rested(load),
        figure: countdown(phase.ends - now),
        words: "Heat off, lid off: the jars rest before they are lifted.",
        steps: [LIFTED],
        running: true,
      };
    case "rested":
      return rested(load);
    case "lifted":
      return { ...still, figure: "Out", words: "The jars are on the towel.", steps: [] };
  }
}
