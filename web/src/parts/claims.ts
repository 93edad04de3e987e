import type { Claims } from "../api/client";

/** What one touch confirms: all as it should be. Nothing of it is said before that touch. */
export const USUAL: Claims = {
  kind: "mason",
  lid: "new",
  nicked: false,
  covered: true,
  packed_raw: false,
  skins_on: false,
  acid_source: "bottled",
  headspace_in: null,
  water_c: null,
};

/** The card with one thing said differently; the rest as it was, or as usual. */
export const changed = (claims: Claims | null | undefined, part: Partial<Claims>): Claims => ({
  ...(claims ?? USUAL),
  ...part,
});

/** Whether all is as it should be, so that the card may say so. */
export const isUsual = ({
  kind,
  lid,
  nicked,
  covered,
  packed_raw = false,
  skins_on = false,
  acid_source = "bottled",
  headspace_in,
}: Claims): boolean =>
  kind === USUAL.kind &&
  lid === USUAL.lid &&
  nicked === USUAL.nicked &&
  covered === USUAL.covered &&
  packed_raw === USUAL.packed_raw &&
  skins_on === USUAL.skins_on &&
  acid_source === USUAL.acid_source &&
  headspace_in == null;

/** How an eye or a finger measures headspace, and the inches that stands for. */
export const HEADSPACE: Record<string, number | null> = {
  asked: null,
  less: 0.125,
  quarter: 0.25,
  half: 0.5,
  more: 1,
};

/** The word for headspace that was measured; none before anybody looked. */
export function headspaceWord(claims: Pick<Claims, "headspace_in"> | null | undefined): string {
  if (claims == null) return "";
  const inches = claims.headspace_in;
  if (inches == null) return "asked";
  return inches < 0.2 ? "less" : inches < 0.4 ? "quarter" : inches < 0.75 ? "half" : "more";
}

/** How a hand finds the canner's water, in degrees Celsius. */
export const WATER_WARMTH: Record<string, { text: string; celsius: number }> = {
  cold: { text: "Cold", celsius: 15 },
  warm: { text: "Warm", celsius: 55 },
  hot: { text: "Hot", celsius: 80 },
  boiling: { text: "Near boiling", celsius: 95 },
};

/** The word for water that was felt or measured; none while nobody looked. */
export function waterWarmth(claims: Pick<Claims, "water_c">): string {
  const degrees = claims.water_c;
  if (degrees == null) return "";
  return degrees < 35 ? "cold" : degrees < 70 ? "warm" : degrees < 90 ? "hot" : "boiling";
}
