import { waysNow } from "./ways";

/** Numbers as people type them: with a point or a comma, or as a fraction, nothing repaired. */

/** Fractions that have a sign of their own. */
const SIGNS: Record<string, string> = {
  "½": "1/2",
  "⅓": "1/3",
  "⅔": "2/3",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};

/** The number that was typed, "12.5", "12,5", "1 1/2", "1½" or "½"; `null` when it is none. */
export function parseNumber(typed: string): number | null {
  const plain = typed
    .trim()
    .replace(",", ".")
    .replace(/[½⅓⅔¼¾⅛⅜⅝⅞]/u, (sign) => ` ${SIGNS[sign] ?? ""}`)
    .trim();
  if (/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return Number(plain);
  const found = /^(?:(\d+) +)?(\d+)\/(\d+)$/.exec(plain);
  if (found === null) return null;
  const [, whole = "0", over = "0", under = "0"] = found;
  // "7/4" beside a whole number is a slip of the finger.
  if (Number(under) === 0 || (found[1] !== undefined && Number(over) >= Number(under))) return null;
  return Number(whole) + Number(over) / Number(under);
}

/** A number as it is written into a field again: without the noise of a conversion. */
export function typedOf(value: number): string {
  const text = String(Math.round(value * 1000) / 1000);
  return waysNow().decimal === "comma" ? text.replace(".", ",") : text;
}

/** One step up or down from what was typed, held within the bounds; an empty field starts at the nearest bound to zero. */
export function stepped(typed: string, by: number, least: number, most: number): string {
  const from = parseNumber(typed) ?? Math.min(Math.max(0, least), most) - by;
  return typedOf(Math.min(Math.max(from + by, least), most));
}
