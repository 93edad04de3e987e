import type { Counter } from "../api/client";

type Call = Counter["calls"][number];

/** Calls whose moment has come: those that ring until somebody comes, and those that are said once. */
export function callsNow(calls: readonly Call[], now: number): { ringing: string | null; once: string[] } {
  const due = calls.filter((call) => call.from <= now);
  return {
    ringing: due.find((call) => !call.once)?.text ?? null,
    once: due.filter((call) => call.once).map((call) => call.text),
  };
}
