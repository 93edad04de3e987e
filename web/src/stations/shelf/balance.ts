import type { BatchRecord } from "../../api/client";

/** How a verdict of the books is shown: fine, not fine, cannot tell. */
export function toneOf(verdict: BatchRecord["balance"]["verdict"]): "good" | "note" | "warn" {
  return verdict === "adds_up" ? "good" : verdict === "cannot_tell" ? "note" : "warn";
}
