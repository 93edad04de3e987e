import type { Agent, DoseMeasure, JarSize, JarStep, LoadView } from "../../api/client";
import { jarText } from "../../writing/format";

export type Jar = LoadView["jars"][number];

/** What a touch on a jar says. */
export type Hand = "next" | "back" | "food_first";
export const HANDS = {
  next: "Next step done",
  back: "Last step not done",
  food_first: "Food in, acid not yet",
} as const satisfies Record<Hand, string>;

export interface Tick {
  step: JarStep;
  done: boolean;
  food_first?: boolean;
}

/** One touch does the next thing, or takes the last one back; touching a finished jar takes its lid off. */
export function touchOf(jar: Pick<Jar, "next" | "last" | "has_acid">, hand: Hand): Tick | null {
  if (hand === "food_first" && !jar.has_acid && jar.next === "acid")
    return { step: "filled", done: true, food_first: true };
  if (hand === "back") return jar.last == null ? null : { step: jar.last, done: false };
  if (jar.next != null) return { step: jar.next, done: true };
  return hand === "next" ? { step: "lid", done: false } : null;
}

type Dose = LoadView["doses"][number];

/** The figure of a dose: what goes into each jar now, that the pot has it, or that it is a part of the recipe. */
export const toAdd = (dose: Pick<Dose, "to_add" | "acid">): string =>
  dose.to_add ?? (dose.acid == null ? "No dose" : "In the pot");

/** What that figure is of. */
export function intoEach(
  dose: Pick<Dose, "acid" | "to_add" | "to_add_volume" | "still_lacks" | "acid_name" | "jar" | "count">,
): string {
  const { acid_name: acid, jar, count, to_add_volume: volume } = dose;
  if (dose.acid == null) return `the acid of ${count} ${jarText(jar, count)} is in the recipe`;
  if (dose.to_add == null) return `✓ ${acid} for ${count} ${jarText(jar, count)}`;
  const into = `${acid} in each ${jarText(jar)}`;
  if (volume == null) return into;
  return dose.still_lacks == null
    ? `(${volume}) ${into}`
    : `(${volume}) more ${into}: the pot had too little`;
}

/** What an acid is measured out with, the likeliest first: crystals are weighed, liquids come in bottles. */
export const measuresOf = (agent: Agent): readonly [DoseMeasure, ...DoseMeasure[]] =>
  agent === "citric_acid" ? ["tsp", "tbsp", "g", "ml"] : ["tbsp", "cup", "tsp", "ml", "bottle"];

/** What goes in after the acid: a hot pack goes in boiling hot. */
export const foodText = (load: { jars: readonly Pick<Jar, "batch" | "pack">[] }, batch: number): string =>
  load.jars.some((jar) => jar.batch === batch && jar.pack === "hot") ? "the food, boiling hot," : "food";

/** How warm a hand finds the empty jars, in degrees Celsius. */
export const WARMTH = { cold: 15, warm: 50, hot: 70 } as const;
export type Warmth = keyof typeof WARMTH;

/** The word for a temperature that was said or measured; none while nothing was. */
export function warmthOf(jarsC: number | null | undefined): Warmth | "" {
  if (jarsC == null) return "";
  return jarsC < 35 ? "cold" : jarsC < 60 ? "warm" : "hot";
}

/** "Jar 8", "Jars 1 to 5", "Jars 1, 3, 4". */
export function jarsText(numbers: readonly number[]): string {
  const [first, last] = [numbers[0], numbers.at(-1)];
  if (first === undefined || last === undefined) return "No jars";
  if (numbers.length === 1) return `Jar ${first}`;
  const inARow = numbers.length > 2 && last - first === numbers.length - 1;
  return `Jars ${inARow ? `${first} to ${last}` : numbers.join(", ")}`;
}

/** Sizes that take a rest, the largest first. */
const SMALLER: readonly JarSize[] = ["pint", "half_pint"];

/** Jars that one more of each smaller size would make, of a batch's own sizes. */
export function moreJars(doses: readonly Pick<Dose, "jar" | "count">[]): { jar: JarSize; count: number }[] {
  return SMALLER.map((jar) => ({ jar, count: (doses.find((dose) => dose.jar === jar)?.count ?? 0) + 1 }));
}
