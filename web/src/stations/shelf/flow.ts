import { sankey, sankeyLinkHorizontal } from "d3-sankey";
import type { BatchRecord } from "../../api/client";

type Balance = BatchRecord["balance"];

/** A part of the fruit as it is drawn: a ribbon from the fruit to its row. */
export interface Ribbon {
  /** The outline of the ribbon's middle, `width` wide. */
  path: string;
  /** Width of the ribbon. */
  width: number;
  /** Middle of its row, from the top. */
  middle: number;
}

/** Height of one row, in pixels: three lines of words on a phone. */
const ROW = 64;
/** Least height of what is drawn. */
const LEAST = 160;

interface Node {
  name: string;
}

/** Parts that are drawn, the remainder last; one that is nothing has no ribbon. */
export function partsOf(balance: Balance): { words: string; grams: number }[] {
  const parts = balance.parts.map(({ words, grams }) => ({ words, grams }));
  return [...parts, { words: balance.rest, grams: balance.remainder_g }].filter((part) => part.grams > 0);
}

/** The drawing of a batch's books, so many units wide: ribbons as wide as what went there, in the order of the parts. */
export function flowOf(balance: Balance, width: number): { height: number; ribbons: Ribbon[] } {
  const parts = partsOf(balance);
  const height = Math.max(LEAST, parts.length * (ROW + 24));
  if (parts.length === 0) return { height: 0, ribbons: [] };
  const graph = sankey<Node, object>()
    .nodeWidth(1)
    .nodePadding(ROW)
    .nodeSort(null)
    .linkSort(null)
    .extent([
      [0, ROW / 2],
      [width, height - ROW / 2],
    ])({
    nodes: [{ name: "fruit" }, ...parts.map((part) => ({ name: part.words }))],
    links: parts.map((part, place) => ({ source: 0, target: place + 1, value: part.grams })),
  });
  const across = sankeyLinkHorizontal();
  const ribbons = graph.links.map((link) => {
    const target = typeof link.target === "object" ? link.target : null;
    return {
      path: across(link) ?? "",
      width: link.width ?? 0,
      middle: ((target?.y0 ?? 0) + (target?.y1 ?? 0)) / 2,
    };
  });
  return { height, ribbons };
}
