import type { Claims } from "../api/client";

/** What one touch confirms: all as it should be. Nothing of it is said before that touch. */
export const USUAL: Claims = {
  kind: "mason",
  lid: "new",
  nicked: false,
  covered: true,
  headspace_in: null,
  water_over_in: null,
};

/** The card with one thing said differently; the rest as it was, or as usual. */
export const changed = (claims: Claims | null | undefined, part: Partial<Claims>): Claims => ({
  ...(claims ?? USUAL),
  ...part,
});

/** Whether all is as it should be, so that the card may say so. */
export const isUsual = ({ kind, lid, nicked, covered }: Claims): boolean =>
  kind === USUAL.kind && lid === USUAL.lid && nicked === USUAL.nicked && covered === USUAL.covered;

/** How an eye judges the water over the lids, and the inches that stands for: the least of each. */
export const WATER_OVER: Record<string, { text: string; inches: number }> = {
  well: { text: "2 in or more", inches: 2 },
  some: { text: "1 to 2 in", inches: 1 },
  low: { text: "Less than 1 in", inches: 0.5 },
};

/** The word for water that was judged or measured; none while nobody looked. */
export function waterOver(claims: Pick<Claims, "water_over_in">): string {
  const inches = claims.water_over_in;
  if (inches == null) return "";
  return inches >= 2 ? "well" : inches >= 1 ? "some" : "low";
}
