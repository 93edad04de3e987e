import { expect, test } from "vitest";
import type { BatchRecord } from "../../api/client";
import { flowOf, partsOf } from "./flow";

const part = (words: string, grams: number) => ({ words, grams, doubt_g: 10, told: null, id: null });
const balance = (parts: ReturnType<typeof part>[], remainder_g: number): BatchRecord["balance"] => ({
  came: [],
  came_in_g: parts.reduce((sum, { grams }) => sum + grams, remainder_g),
  parts,
  remainder_g,
  remainder_doubt_g: 100,
  rest: "skins and seeds",
  usual_low_g: 0,
  usual_high_g: 5000,
  verdict: "adds_up",
  text: "It adds up.",
});

test("ribbons are as wide as what went there, and rows keep apart", () => {
  const books = balance([part("in jars", 6000), part("boiled away", 3000)], 1000);
  const { ribbons, height } = flowOf(books, 100);
  expect(ribbons).toHaveLength(3);
  const [jars, steam, rest] = ribbons.map((ribbon) => ribbon.width);
  expect((jars ?? 0) / (steam ?? 1)).toBeCloseTo(2, 6);
  expect((steam ?? 0) / (rest ?? 1)).toBeCloseTo(3, 6);
  const middles = ribbons.map((ribbon) => ribbon.middle);
  expect(middles.every((middle, place) => place === 0 || middle - (middles[place - 1] ?? 0) >= 64)).toBe(
    true,
  );
  expect(Math.max(...middles)).toBeLessThan(height);
});

test("more came out than went in: nothing is left, and what came out is drawn", () => {
  const books = balance([part("in jars", 6000)], -500);
  expect(partsOf(books).map(({ words }) => words)).toEqual(["in jars"]);
  expect(flowOf(books, 100).ribbons).toHaveLength(1);
});

test("a batch that holds nothing yet has no drawing", () => {
  expect(flowOf(balance([part("in jars", 0)], 0), 100)).toEqual({ height: 0, ribbons: [] });
});
