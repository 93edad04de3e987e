import type { Condition, Food, Lot } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { numberText } from "../../writing/ways";

/** Weighed on a scale, and not counted in containers. */
export const BY_SCALE = "scale";

/** Whether fruit sorted so goes on to jars, and so has a ripe share. */
export function goesOn(condition: Condition): boolean {
  return condition === "firm_ripe" || condition === "trim";
}

/** What can be weighed in, in the order people think of it. */
export const FORMS: readonly Food[] = ["fruit", "juice", "thin_juice", "cooked", "bits"];

/** An amount as somebody told it: "2.5 quarts". */
export function told({ amount, measure }: NonNullable<Lot["told"]>): string {
  const rounded = numberText(amount, 2);
  return `${rounded} ${WORDS.FoodMeasure[measure]}`;
}

const G_PER_TOMATO_DRAWN = 700;
const MOST_DRAWN = 27;

/** Tomatoes to draw in a crate for what is left of a lot: at least one, and no more than fit the picture. */
export function tomatoesDrawn(lot: Pick<Lot, "left_g">): number {
  return Math.max(1, Math.min(MOST_DRAWN, Math.round(lot.left_g / G_PER_TOMATO_DRAWN)));
}
