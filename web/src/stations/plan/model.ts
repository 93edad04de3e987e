import type {
  DayView,
  Goal,
  JarSize,
  Kitchen,
  Medium,
  Pack,
  PlanAnswer,
  PlanRequest,
  Product,
  Thickness,
  Units,
} from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { batchText, capital, jarText, PRODUCT, spanText, volumeText } from "../../writing/format";
import { KG_PER_LB, L_PER_QUART } from "../../writing/units";

export type GoalKind = Omit<Goal, "count" | "preference">;

const hot = { medium: null, pack: "hot", thickness: null } as const;

/** Everything the shelf can ask for, in its usual jars. */
export const COULD_ASK: readonly GoalKind[] = [
  { product: "whole", medium: "water", pack: "raw", thickness: null, jar: "quart" },
  { product: "crushed", ...hot, jar: "quart" },
  { product: "crushed", ...hot, jar: "pint" },
  { product: "juice", ...hot, jar: "quart" },
  { product: "sauce", ...hot, thickness: "thin", jar: "pint" },
  { product: "sauce", ...hot, thickness: "thin", jar: "quart" },
  { product: "sauce", ...hot, thickness: "thick", jar: "pint" },
  { product: "paste", ...hot, jar: "half_pint" },
];

export function goalText(goal: GoalKind, count = 2): string {
  const thick = goal.thickness ? `${goal.thickness} ` : "";
  return `${jarText(goal.jar, count)} of ${thick}${PRODUCT[goal.product].toLowerCase()}`;
}

/** Whether two lines ask for the same. */
export const sameGoal = (a: GoalKind, b: GoalKind) =>
  a.product === b.product && a.thickness === b.thickness && a.jar === b.jar && a.medium === b.medium;

export const HOW_MUCH = ["a little", "rather", "very much"] as const;

/** "at most 12 min longer than the best possible", or that there is no shorter day. */
export function proofText(day: DayView): string {
  if (day.status === "optimal") return "No shorter day is possible.";
  return day.why == null ? "" : `It is ${day.why}.`;
}

/** When a kitchen sits down that has not said: half past five. */
export const USUAL_BREAK = 17 * 60 + 30;

/** How far a block may move without a later evening. */
export function roomText(
  block: Pick<DayView["blocks"][number], "sooner_minutes" | "slack_minutes" | "begun">,
): string {
  const { sooner_minutes: sooner, slack_minutes: later } = block;
  if (block.begun) return "It has begun.";
  if (sooner === 0 && later === 0) return "Any delay makes the evening later.";
  if (later === 0) return `It may start ${spanText(sooner)} sooner; any delay makes the evening later.`;
  if (sooner === 0) return `It may start ${spanText(later)} later without a later evening.`;
  return `It may start ${spanText(sooner)} sooner or ${spanText(later)} later without a later evening.`;
}

/** "published 2½ to 3½ lb a quart, yours 2.9 from 6 batches" */
export function yieldText({ published, learned, batches }: PlanAnswer["yields"], units: Units): string {
  const amount = (pounds: number) =>
    (units === "us" ? pounds : (pounds * KG_PER_LB) / L_PER_QUART).toFixed(1);
  const per = units === "us" ? "lb a quart" : "kg a litre";
  if (batches === 0) return "by the published range";
  const count = batches === 1 ? "1 batch" : `${batches} batches`;
  return `published ${amount(published.low)} to ${amount(published.high)} ${per}, yours ${amount(learned.expected)} from ${count}`;
}

/** Enough of a jar to be worth a word, in litres. */
const WORTH_SAYING_L = 0.12;

/** What is said of what fills no jar; `null` when the jars hold more than is expected. */
export function restText(left: number, units: Units): string | null {
  if (left < -WORTH_SAYING_L) return null;
  return left < WORTH_SAYING_L
    ? "If a little fills no jar, put it in the"
    : `Put the last ${volumeText(left, units)} in the`;
}

/** What takes a slip back. */
export function backText(slip: number): string {
  return `Back to plan (${spanText(Math.abs(slip))} ${slip > 0 ? "earlier" : "later"})`;
}

const FIRST: PlanRequest = {
  product: "whole",
  medium: "water",
  pack: "raw",
  thickness: null,
  jar: "quart",
  jars: null,
  agent: "bottled_lemon_juice",
  salt: false,
  rest: "refrigerator",
  additions: null,
  lots: [],
};

/** What a plan begins with: the household's acid and salt of last time, and what was wished for in the address. */
export function firstWish(
  search: URLSearchParams,
  kitchen: Pick<Kitchen, "agent" | "salt"> | undefined,
): PlanRequest {
  const usual = { ...FIRST, agent: kitchen?.agent ?? FIRST.agent, salt: kitchen?.salt ?? false };
  const product = Object.keys(WORDS.Product).find((word) => word === search.get("then")) as
    Product | undefined;
  if (product === undefined || product === "recipe") return usual;
  const asked = { ...usual, ...startWith(product, "quart") };
  const medium = Object.keys(WORDS.Medium).find((word) => word === search.get("medium"));
  const pack = Object.keys(WORDS.Pack).find((word) => word === search.get("pack"));
  const thickness = Object.keys(WORDS.Thickness).find((word) => word === search.get("thickness"));
  return {
    ...asked,
    ...(product === "whole" && medium !== undefined && { medium: medium as Medium }),
    ...(pack !== undefined && { pack: pack as Pack }),
    ...(product === "sauce" && thickness !== undefined && { thickness: thickness as Thickness }),
    // Sauce is usually put into pints.
    ...(product === "sauce" && { jar: "pint" as const }),
  };
}

/** What a product brings with it, so that nothing is asked twice. */
export function startWith(product: Product, jar: JarSize): Partial<PlanRequest> {
  return {
    product,
    medium: product === "whole" ? "water" : null,
    pack: product === "whole" ? "raw" : "hot",
    thickness: product === "sauce" ? "thin" : null,
    jar: product === "paste" ? "half_pint" : jar === "half_pint" ? "pint" : jar,
  };
}

/** "Raw: in water 45 min, in juice 85, no liquid 85. Hot: …": what a preset changes stands beside it. */
export function packsText(packs: PlanAnswer["packs"]): string {
  const of = (pack: Pack) => {
    const ways = packs.filter((way) => way.pack === pack);
    const said = ways.map(
      ({ medium, minutes }, place) =>
        `${medium == null ? "" : medium === "none" ? "no liquid " : `${WORDS.Medium[medium]} `}${minutes}${place === 0 ? " min" : ""}`,
    );
    return said.length === 0 ? "" : `${capital(WORDS.Pack[pack])}: ${said.join(", ")}.`;
  };
  return [of("raw"), of("hot")].filter(Boolean).join(" ");
}

/** Where the plan of one line of the comparison opens. */
export function planPath(line: Pick<PlanRequest, "product" | "pack" | "medium" | "thickness">): string {
  const words = { then: line.product, medium: line.medium, pack: line.pack, thickness: line.thickness };
  const said = Object.entries(words).flatMap(([key, word]) => (word == null ? [] : [[key, word]]));
  return `/plan?${new URLSearchParams(said).toString()}`;
}

/** "Whole, raw pack in water", "Thin sauce". */
export function nameOf(line: Pick<PlanRequest, "product" | "pack" | "medium" | "thickness">): string {
  const thick = line.thickness == null ? "" : `${line.thickness} `;
  return capital(thick + batchText({ ...line, medium: line.medium ?? null }));
}
