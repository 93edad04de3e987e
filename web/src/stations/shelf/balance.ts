import type { BatchRecord } from "../../api/client";
import type { FlowLink } from "../../parts/flow";

type Balance = BatchRecord["balance"];

/** How a verdict of the books is shown: fine, not fine, cannot tell. */
export function toneOf(verdict: Balance["verdict"]): "good" | "note" | "warn" {
  return verdict === "adds_up" ? "good" : verdict === "cannot_tell" ? "note" : "warn";
}

/** The drawing of a batch's books: what came in, the batch, where it went and what is left; like places stand together. */
export function flowOf(balance: Balance, code: string): { stops: string[]; links: FlowLink[] } {
  const stops: string[] = [];
  const at = (words: string) => {
    const place = stops.indexOf(words);
    return place >= 0 ? place : stops.push(words) - 1;
  };
  const links: FlowLink[] = [];
  const add = (from: string, to: string, grams: number, doubt_g: number) => {
    if (grams > 0) links.push({ from: at(from), to: at(to), grams, doubt_g });
  };
  for (const part of balance.came) add(part.words, code, part.grams, part.doubt_g);
  for (const part of balance.parts) add(code, part.words, part.grams, part.doubt_g);
  add(code, balance.rest, balance.remainder_g, balance.remainder_doubt_g);
  // More came out than went in: somebody did not tell where it is from.
  add("not told", code, -balance.remainder_g, balance.remainder_doubt_g);
  return { stops, links };
}
