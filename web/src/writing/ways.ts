import type { Units, Ways } from "../api/client";
import { numberWriter } from "./writers";

/** What a kitchen writes that has said nothing. */
export function usualWays(units: Units): Ways {
  return {
    hours: "24",
    days: "day_first",
    decimal: "point",
    heat: units === "us" ? "fahrenheit" : "celsius",
    height: units === "us" ? "feet" : "metres",
  };
}

let ways = usualWays("us");

/** How the household writes, as the server said last. */
export const waysNow = (): Ways => ways;

/** From now on everything is written so. */
export function showWays(next: Ways) {
  ways = next;
}

/** A number as the household writes it. */
export function numberText(value: number, digits: number): string {
  // France writes a comma, and a thin space between thousands, which nobody takes for the other.
  const language = ways.decimal === "comma" ? "fr" : "en";
  return numberWriter(language, digits).format(value);
}
