import type { Units } from "../api/client";
import { parseNumber } from "./number";
import { waysNow } from "./ways";

/** Exact, as the server counts; the front end only shows and reads with them. */
export const KG_PER_LB = 0.45359237;
export const L_PER_QUART = 0.946352946;
export const M_PER_FT = 0.3048;
export const MM_PER_IN = 25.4;

/** What a number is typed in, and how it is sent. */
export interface Scale {
  unit: string;
  toApi: (typed: number) => number;
  fromApi: (sent: number) => number;
}

function times(unit: string, factor: number): Scale {
  return { unit, toApi: (typed) => typed * factor, fromApi: (sent) => sent / factor };
}

/** A number that is sent as it is typed. */
export const plain = (unit = ""): Scale => times(unit, 1);
/** A length off a stick or a ruler, sent in millimetres. */
export const lengthScale = (units: Units): Scale =>
  units === "us" ? times("in", MM_PER_IN) : times("cm", 10);
/** A short length off a ruler, sent in inches. */
export const inchScale = (units: Units): Scale =>
  units === "us" ? times("in", 1) : times("cm", 10 / MM_PER_IN);
/** A volume, sent in litres. */
export const volumeScale = (units: Units): Scale =>
  units === "us" ? times("qt", L_PER_QUART) : times("L", 1);
/** A weight, sent in kilograms. */
export const massScale = (units: Units): Scale => (units === "us" ? times("lb", KG_PER_LB) : times("kg", 1));
/** A small weight on a kitchen scale, sent in kilograms. */
export const ounceScale = (units: Units): Scale =>
  units === "us" ? times("oz", KG_PER_LB / 16) : times("g", 1 / 1000);
/** A height above the sea, sent in feet. */
export const heightScale = (): Scale =>
  waysNow().height === "feet" ? times("ft", 1) : times("m", 1 / M_PER_FT);
/** An altitude of a few feet that was typed with a sign in it may be thousands: what it could be, or `null` when it is plain. */
export function lowAsked(typed: string, scale: Scale): readonly number[] | null {
  const value = parseNumber(typed, scale.unit);
  const isOdd = value !== null && /\d[.,]\d/.test(typed) && Math.abs(value) < 10;
  return isOdd ? [Math.round(value * 1000), value] : null;
}
/** A temperature, sent in degrees Celsius. */
export const heatScale = (): Scale =>
  waysNow().heat === "fahrenheit"
    ? { unit: "°F", toApi: (typed) => (typed - 32) / 1.8, fromApi: (sent) => sent * 1.8 + 32 }
    : times("°C", 1);
/** The unit a scale in this kitchen reads, as the API names it. */
export const weighedIn = (units: Units) => (units === "us" ? "lb" : "kg");
