/** Numbers as people type them: with a point or a comma, nothing repaired. */

/** The number that was typed; `null` when it is none. */
export function parseNumber(typed: string): number | null {
  const plain = typed.trim().replace(",", ".");
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return null;
  return Number(plain);
}

/** A number as it is written into a field again: without the noise of a conversion. */
export function typedOf(value: number): string {
  return String(Math.round(value * 1000) / 1000);
}

/** One step up or down from what was typed, held within the bounds; an empty field starts at the nearest bound to zero. */
export function stepped(typed: string, by: number, least: number, most: number): string {
  const from = parseNumber(typed) ?? Math.min(Math.max(0, least), most) - by;
  return typedOf(Math.min(Math.max(from + by, least), most));
}
