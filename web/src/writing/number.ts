import { numberText, waysNow } from "./ways";

/** Numbers as people type them in this household: one reader for every field. Nothing is repaired; what could be read in two
 * ways is asked. */

/** What was made of what was typed. */
export type Read =
  | { is: "number"; value: number }
  /** It could be one of these, in this household. */
  | { is: "asked"; values: readonly number[] }
  | { is: "none" };

const NONE: Read = { is: "none" };

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

/** What people write behind a number, by the unit that a field has. */
const UNITS: Record<string, readonly string[]> = {
  ft: ["ft", "foot", "feet", "'"],
  m: ["m", "meter", "meters", "metre", "metres"],
  in: ["in", "inch", "inches", '"'],
  cm: ["cm"],
  mm: ["mm"],
  lb: ["lb", "lbs", "pound", "pounds", "#"],
  kg: ["kg", "kilo", "kilos"],
  g: ["g", "gram", "grams"],
  qt: ["qt", "qts", "quart", "quarts"],
  L: ["l", "liter", "liters", "litre", "litres"],
  mL: ["ml"],
  "°F": ["°f", "f", "°"],
  "°C": ["°c", "c", "°"],
  min: ["min", "mins", "minute", "minutes", "'"],
  h: ["h", "hr", "hrs", "hour", "hours"],
  leaves: ["leaf", "leaves"],
};

/** The number without its unit; `null` when there is another unit behind it. */
function withoutUnit(text: string, unit: string): string | null {
  const found = /^(.*?[\d½⅓⅔¼¾⅛⅜⅝⅞.,])\s*([^\d\s.,/½⅓⅔¼¾⅛⅜⅝⅞][^\d]*)$/u.exec(text);
  if (found === null) return text;
  const [, number = "", word = ""] = found;
  const words = UNITS[unit] ?? (unit === "" ? [] : [unit.toLowerCase()]);
  return words.includes(word.trim().toLowerCase()) ? number : null;
}

/** "1 1/2", "3/4", "½". */
function fraction(text: string): Read {
  const found = /^(?:(\d+) +)?(\d+)\/(\d+)$/.exec(text);
  if (found === null) return NONE;
  const [, whole = "0", over = "0", under = "0"] = found;
  // "7/4" beside a whole number is a slip of the finger.
  if (Number(under) === 0 || (found[1] !== undefined && Number(over) >= Number(under))) return NONE;
  return { is: "number", value: Number(whole) + Number(over) / Number(under) };
}

/** A number with one kind of sign in it, once or more often: the household's ways decide what it means. */
function signed(text: string, sign: "." | ","): Read {
  const isDecimal = (sign === ",") === (waysNow().decimal === "comma");
  const parts = text.split(sign);
  const [first = "", ...rest] = parts;
  const joined = parts.join("");
  if (!/^\d*$/.test(joined) || joined === "") return NONE;
  const decimal =
    rest.length === 1 ? Number(`${first === "" ? "0" : first}.${rest[0] === "" ? "0" : rest[0]}`) : null;
  const isGrouped = /^[1-9]\d{0,2}$/.test(first) && rest.every((part) => part.length === 3);
  if (isDecimal) return decimal === null ? NONE : { is: "number", value: decimal };
  if (isGrouped) {
    const grouped = Number(joined);
    // A point between thousands is what a phone's keypad gives for the decimal sign as well.
    return sign === "." && decimal !== null
      ? { is: "asked", values: [grouped, decimal] }
      : { is: "number", value: grouped };
  }
  // What ends in a sign goes on.
  if (decimal === null || rest[0] === "") return NONE;
  // A phone's keypad has a point and no comma: "6.5" is what it says.
  if (sign === ".") return { is: "number", value: decimal };
  return { is: "asked", values: [decimal, Number(joined)] };
}

/** A number with both signs in it: the last one is the decimal sign, whatever the household writes. */
function both(text: string): Read {
  const found = /^([1-9]\d{0,2}(?:([.,])\d{3})(?:\2\d{3})*)([.,])(\d+)$/.exec(text);
  if (found === null || found[2] === found[3]) return NONE;
  const [, whole = "", , , share = ""] = found;
  return { is: "number", value: Number(`${whole.replace(/[.,]/g, "")}.${share}`) };
}

/** What was typed, read as this household writes numbers; `unit` is the field's own, which may stand behind the number. */
export function readNumber(typed: string, unit = ""): Read {
  // A page that was pasted from brings spaces of every width.
  const spaced = typed.replace(/\s+/gu, " ").replace("⁄", "/").trim();
  const bare = withoutUnit(spaced, unit)?.trim();
  if (bare === undefined || bare === "") return NONE;
  const plain = bare.replace(/ ?[½⅓⅔¼¾⅛⅜⅝⅞]/u, (sign) => ` ${SIGNS[sign.trim()] ?? ""}`).trim();
  if (plain.includes("/")) return fraction(plain);
  const minus = /^[+-]/.exec(plain)?.[0] ?? "";
  const size = plain.slice(minus.length);
  // "6 500" and "6'500" are thousands wherever they are written.
  const closed = /^[1-9]\d{0,2}(?:[ '’]\d{3})+(?:[.,]\d+)?$/.test(size) ? size.replace(/[ '’]/g, "") : size;
  const turn = (value: number) => (minus === "-" ? -value : value);
  const read = ((): Read => {
    if (/^\d+$/.test(closed)) return { is: "number", value: Number(closed) };
    if (closed.includes(".") && closed.includes(",")) return both(closed);
    if (closed.includes(".")) return signed(closed, ".");
    return closed.includes(",") ? signed(closed, ",") : NONE;
  })();
  if (read.is === "number") return { is: "number", value: turn(read.value) };
  return read.is === "asked" ? { is: "asked", values: read.values.map(turn) } : NONE;
}

/** The number that was typed; `null` when it is none, or when it could be two. */
export function parseNumber(typed: string, unit = ""): number | null {
  const read = readNumber(typed, unit);
  return read.is === "number" ? read.value : null;
}

/** What a field says that was left with something else in it than a number. */
export function notANumber(typed: string, unit = ""): string {
  const read = readNumber(typed, unit);
  if (read.is !== "asked") return `Give a number, such as ${numberText(12.5, 1)}`;
  return `Which is it: ${read.values.map((value) => saidText(value, unit)).join(" or ")}?`;
}

/** A number as the household writes it, with its unit. */
export function saidText(value: number, unit: string): string {
  const text = numberText(value, 3);
  return unit === "" ? text : `${text} ${unit}`;
}

/** What was understood, where it does not stand there letter by letter; nothing where it does. */
export function understood(typed: string, unit: string): string | null {
  const value = parseNumber(typed, unit);
  if (value === null || typed.trim() === typedOf(value)) return null;
  return saidText(value, unit);
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
