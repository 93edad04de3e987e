import type { Units } from "../api/client";

/** Exact, as the server counts; the front end only shows and reads with them. */
export const KG_PER_LB = 0.45359237;
export const L_PER_QUART = 0.946352946;
export const M_PER_FT = 0.3048;
export const MM_PER_IN = 25.4;

/** What a stick or a ruler is read in. */
export const rulerUnit = (units: Units) => (units === "us" ? "in" : "mm");

/** A length read off it, in millimetres. */
export const inMm = (typed: string, units: Units) => Number(typed) * (units === "us" ? MM_PER_IN : 1);
