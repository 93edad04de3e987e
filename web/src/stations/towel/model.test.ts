import { expect, test } from "vitest";
import type { Towel } from "../../api/client";
import { figureText, saidNow, sayingText } from "./model";

const HOUR = 3_600_000;
type Said = Towel["says"][number];

const said = (from: number, words: string, at: number | null): Said => ({
  from,
  figure: { shows: "word", word: words },
  words,
  at,
  bad: false,
});
const SAYS: Said[] = [
  said(0, "Leave them alone for {left} more. Lifted at {at}.", 0),
  said(12 * HOUR, "Again until {at} on {day}.", Date.UTC(2026, 8, 13, 12)),
  said(24 * HOUR + 1, "Too late.", null),
];

test.each([
  [-1, 0],
  [0, 0],
  [12 * HOUR - 1, 0],
  [12 * HOUR, 1],
  [24 * HOUR, 1],
  [24 * HOUR + 1, 2],
  [30 * HOUR, 2],
])("after %d ms saying %d holds", (now, place) => {
  expect(saidNow(SAYS, now)).toBe(SAYS[place]);
});

test.each([
  [12 * HOUR, "for 12 h more"],
  [90 * 60_000, "for 1 h 30 min more"],
  [60_000, "for a minute more"],
  [1, "for a minute more"],
])("with %d ms to go what is left is said as %s", (left, text) => {
  expect(sayingText(SAYS, SAYS[0]!, 12 * HOUR - left)).toContain(text);
});

test("the hour and the day are written in the words, and the figure may be an hour", () => {
  expect(sayingText(SAYS, SAYS[1]!, 13 * HOUR)).toContain("13 September 2026");
  expect(sayingText(SAYS, SAYS[1]!, 13 * HOUR)).not.toContain("{");
  expect(figureText({ shows: "clock", at: 0 })).toMatch(/^\d?\d:\d\d/);
  expect(figureText({ shows: "word", word: "Wash" })).toBe("Wash");
});
