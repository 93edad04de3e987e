import type {
  Agent,
  Condition,
  Discard,
  Fault,
  HeatSetting,
  Ingredient,
  JarSize,
  Kind,
  LoadView,
  Medium,
  Method,
  Mouth,
  Pack,
  Product,
  Rescue,
  Units,
  Verdict,
  Warmth,
} from "../api/client";
import { CANNED, JAR_PLURAL, WORDS } from "../api/words.generated";
import { KG_PER_LB, L_PER_QUART, M_PER_FT, MM_PER_IN } from "./units";
import { numberText, waysNow } from "./ways";
import { dateWriter } from "./writers";

/** "30 lb", "9.4 lb" or "13.6 kg". */
export function weight(grams: number, units: Units): { value: string; unit: string } {
  const value = units === "us" ? grams / 1000 / KG_PER_LB : grams / 1000;
  return { value: numberText(value, value < 20 ? 1 : 0), unit: units === "us" ? "lb" : "kg" };
}

export function weightText(grams: number, units: Units): string {
  const { value, unit } = weight(grams, units);
  return `${value} ${unit}`;
}

export function volumeText(litres: number, units: Units): string {
  return units === "us" ? `${numberText(litres / L_PER_QUART, 1)} qt` : `${numberText(litres, 1)} L`;
}

export function altitudeText(feet: number): string {
  return waysNow().height === "feet"
    ? `${numberText(feet, 0)}\u00a0ft`
    : `${numberText(feet * M_PER_FT, 0)}\u00a0m`;
}

/** "12 mi" or "20 km". */
export function distanceText(km: number, units: Units): string {
  const value = units === "us" ? km / 1.609344 : km;
  return `${numberText(value, value < 10 ? 1 : 0)}\u00a0${units === "us" ? "mi" : "km"}`;
}

export function headspaceText(inches: number, units: Units): string {
  if (units === "metric") return `${numberText((inches * MM_PER_IN) / 10, 1)}\u00a0cm`;
  return inches === 0.25 ? "¼\u00a0in" : inches === 0.5 ? "½\u00a0in" : `${inches} in`;
}

export function temperatureText(celsius: number): string {
  return waysNow().heat === "fahrenheit"
    ? `${Math.round(celsius * 1.8 + 32)}\u00a0°F`
    : `${Math.round(celsius)}\u00a0°C`;
}

/** Depth on a stick: "4¼ in" to the eighth, or centimetres to the tenth. */
export function depthText(mm: number, units: Units): string {
  if (units === "metric") return `${numberText(mm / 10, 1)}\u00a0cm`;
  const eighths = Math.round((mm / MM_PER_IN) * 8);
  const part = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"][eighths % 8] ?? "";
  const whole = Math.floor(eighths / 8);
  return `${whole > 0 || part === "" ? whole : ""}${part}\u00a0in`;
}

/** Milliseconds of a minute. */
export const MINUTE = 60_000;

/** The kitchen's time zone: a phone that has another one shows the kitchen's hours all the same. */
let kitchenZone: { timeZone?: string } = {};

export function showZone(zone: string | null | undefined) {
  try {
    kitchenZone = zone == null ? {} : { timeZone: zone };
    dateWriter("en-GB", kitchenZone);
  } catch {
    // A browser that does not know the zone shows its own.
    kitchenZone = {};
  }
}

/** Wall clock, "14:56" or "2:56 pm". */
export function clockText(ms: number): string {
  if (waysNow().hours === "24")
    return dateWriter("en-GB", { hour: "2-digit", minute: "2-digit", ...kitchenZone }).format(ms);
  const twelve = { hour: "numeric", minute: "2-digit", hourCycle: "h12", ...kitchenZone } as const;
  return dateWriter("en-US", twelve).format(ms).toLowerCase().replace(/\s/u, "\u00a0");
}

/** Minutes after midnight as the wall clock says them: "17:30" or "5:30 pm". */
export function minuteText(minutes: number): string {
  const [h, m] = [Math.floor(minutes / 60), String(minutes % 60).padStart(2, "0")];
  if (waysNow().hours === "24") return `${String(h).padStart(2, "0")}:${m}`;
  return `${h % 12 === 0 ? 12 : h % 12}:${m}\u00a0${h % 24 < 12 ? "am" : "pm"}`;
}

/** A day in the household's order. */
function written(date: Date, parts: Intl.DateTimeFormatOptions): string {
  const { days } = waysNow();
  // Sweden writes days as the records do.
  if (days === "year_first") return dateWriter("sv-SE", { timeZone: parts.timeZone }).format(date);
  return dateWriter(days === "month_first" ? "en-US" : "en-GB", parts).format(date);
}

export function dayText(ms: number): string {
  return written(new Date(ms), { day: "numeric", month: "long", year: "numeric", ...kitchenZone });
}

/** The day of a moment, written as 2026-09-17. */
export function dayOf(ms: number): string {
  // Sweden writes days as the records do.
  return dateWriter("sv-SE", kitchenZone).format(ms);
}

/** Time left, rounded up to the second so that it never says done too early: "23:10" or "1:02:45". */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000));
  const pad = (n: number) => String(n).padStart(2, "0");
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return h > 0 ? `${h}:${pad(m)}:${pad(s)}` : `${pad(m)}:${pad(s)}`;
}

/** "2 h 30 min". */
export function spanText(minutes: number): string {
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  return [h > 0 ? `${h} h` : "", m > 0 || h === 0 ? `${m} min` : ""].filter(Boolean).join(" ");
}

export function ageText(day: string, now: number): string {
  const days = (Date.parse(dayOf(now)) - Date.parse(day)) / 86_400_000;
  return days <= 0 ? "picked today" : days === 1 ? "picked yesterday" : `picked ${days} days ago`;
}

/** "17 September" of a day written as 2026-09-17, in the household's order. */
export function shortDay(day: string): string {
  return written(new Date(`${day}T12:00:00`), { day: "numeric", month: "long" });
}

/** Whether a day has come. */
export function isDue(day: string, now: number): boolean {
  return day <= dayOf(now);
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** The words of a vocabulary with a capital, as they stand on a touch or begin a line. */
export function capitals<Word extends string>(words: Record<Word, string>): Record<Word, string> {
  const lines = (Object.entries(words) as [Word, string][]).map(([word, text]) => [word, capital(text)]);
  return Object.fromEntries(lines) as Record<Word, string>;
}

export const JAR_SIZES = Object.keys(WORDS.JarSize) as JarSize[];
/** Those that have a tested process for tomatoes. */
export const CANNED_SIZES: readonly JarSize[] = CANNED;

/** "quart", or "quarts" for any number but one. */
export function jarText(jar: JarSize, count = 1): string {
  return count === 1 ? WORDS.JarSize[jar] : JAR_PLURAL[jar];
}

/** "1 load", "3 loads". */
export const loadsText = (count: number) => `${count} ${count === 1 ? "load" : "loads"}`;

/** A number of jars of any size: "1 jar", "7 jars". */
export function jarsText(count: number): string {
  return count === 1 ? "1 jar" : `${count} jars`;
}

export const PRODUCT: Record<Product, string> = capitals(WORDS.Product);
export const MEDIUM: Record<Medium, string> = WORDS.Medium;
export const PACK: Record<Pack, string> = capitals(WORDS.Pack);
export const AGENT: Record<Agent, string> = WORDS.Agent;
export const METHOD: Record<Method, string> = capitals(WORDS.Method);
export const HEAT_SETTING: Record<HeatSetting, string> = capitals(WORDS.HeatSetting);
export const WARMTH: Record<Warmth, string> = capitals(WORDS.Warmth);
export const MOUTH: Record<Mouth, string> = WORDS.Mouth;
export const VERDICT: Record<Verdict, string> = capitals(WORDS.LidVerdict);
export const RESCUE: Record<Rescue, string> = capitals(WORDS.Rescue);
export const DISCARD: Record<Discard, string> = capitals(WORDS.Discard);
export const INGREDIENT: Record<Ingredient, string> = capitals(WORDS.Ingredient);
export const FAULT: Record<Fault, string> = capitals(WORDS.Fault);
export const KIND: Record<Kind, string> = capitals(WORDS.Kind);
export const CONDITION: Record<Condition, string> = capitals(WORDS.Condition);

/** What is in a jar or a batch: "Sauce", "Sauce, with the yellow ones", "Chile salsa". */
export function contentText(of: { product: Product; named?: string | null }): string {
  if (of.product === "recipe") return of.named ?? PRODUCT.recipe;
  return of.named == null ? PRODUCT[of.product] : `${PRODUCT[of.product]}, ${of.named}`;
}

/** "whole, raw pack in water", "Chile salsa" */
export function batchText(batch: {
  product: Product;
  pack: Pack;
  medium?: Medium | null;
  name?: string | null;
  named?: string | null;
}): string {
  const named = batch.named ?? batch.name ?? null;
  if (batch.product === "recipe") return contentText({ product: "recipe", named });
  const pack = batch.product === "whole" ? `, ${PACK[batch.pack].toLowerCase()}` : "";
  const medium = batch.medium ? (batch.medium === "none" ? ", no liquid" : ` ${MEDIUM[batch.medium]}`) : "";
  return `${PRODUCT[batch.product].toLowerCase()}${pack}${medium}${named === null ? "" : `, ${named}`}`;
}

/** Whether jars of several batches share a load. */
export function isShared(load: LoadView): boolean {
  return load.doses.some((dose) => dose.batch !== load.batch.id);
}

/** What is in a load: its batch, or that several share it. */
export function loadText(load: LoadView): string {
  return isShared(load) ? "several batches together" : batchText(load.batch);
}

/** "13:44 jars are in, 14:06 it boils" */
export function historyText(load: LoadView): string {
  return load.events
    .map((item) => {
      const jar = item.jar_number == null ? "" : ` (jar ${item.jar_number})`;
      return `${clockText(item.at)} ${item.says.toLowerCase()}${jar}`;
    })
    .join(", ");
}
