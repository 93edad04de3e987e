import { sankey, sankeyLinkHorizontal } from "d3-sankey";

/** So much from one stop to another, by their places in the list. */
export interface FlowLink {
  from: number;
  to: number;
  grams: number;
  doubt_g: number;
}

interface Drawn {
  height: number;
  /** One a link, in their order. */
  ribbons: { path: string; width: number }[];
  /** One a stop, in their order. */
  nodes: { x: number; y: number; height: number; isLast: boolean }[];
}

/** Room for one stop's words, in the drawing's units. */
const ROW = 26;
/** Width of a stop's bar. */
const BAR = 8;
/** Least height of the drawing. */
const LEAST = 220;

/** A drawing of flows, so many units wide; `null` when there is nothing to draw, or food went in a circle. */
export function drawFlow(stops: number, links: readonly FlowLink[], width: number): Drawn | null {
  if (links.length === 0) return null;
  const height = Math.max(LEAST, stops * (ROW + 16));
  try {
    const graph = sankey<{ place: number }, { place: number }>()
      .nodeWidth(BAR)
      .nodePadding(ROW)
      .nodeSort((a, b) => a.place - b.place)
      .extent([
        [0, ROW / 2],
        [width, height - ROW / 2],
      ])({
      nodes: Array.from({ length: stops }, (_, place) => ({ place })),
      links: links.map((link, place) => ({ source: link.from, target: link.to, value: link.grams, place })),
    });
    const across = sankeyLinkHorizontal();
    return {
      height,
      ribbons: graph.links.map((link) => ({ path: across(link) ?? "", width: link.width ?? 0 })),
      nodes: graph.nodes.map((node) => ({
        x: node.x0 ?? 0,
        y: node.y0 ?? 0,
        height: (node.y1 ?? 0) - (node.y0 ?? 0),
        isLast: (node.x1 ?? 0) > width - BAR,
      })),
    };
  } catch {
    // Food that came back to where it was is told in the list; it cannot be drawn from left to right.
    return null;
  }
}
