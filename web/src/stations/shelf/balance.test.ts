import { expect, test } from "vitest";
import { flowOf, toneOf } from "./balance";

const part = (words: string, grams: number) => ({ words, grams, doubt_g: 0, told: null, id: null });

const books = {
  came_in_g: 10_000,
  came: [part("paste tomatoes", 10_000)],
  parts: [part("in jars", 6_000), part("boiled away", 0), part("thin juice, dinner", 1_000)],
  remainder_g: 3_000,
  remainder_doubt_g: 300,
  rest: "trimmings",
  usual_low_g: 2_000,
  usual_high_g: 4_000,
  verdict: "adds_up" as const,
  text: "It adds up.",
};

test("what came in is what goes out of the batch, and what is nothing is not drawn", () => {
  const { stops, links } = flowOf(books, "260912-1");
  expect(stops).toEqual(["paste tomatoes", "260912-1", "in jars", "thin juice, dinner", "trimmings"]);
  const out = links.filter((link) => link.from === 1).reduce((sum, link) => sum + link.grams, 0);
  expect(out).toBe(books.came_in_g);
});

test("when more came out than went in, the missing part comes from nobody", () => {
  const { stops, links } = flowOf({ ...books, remainder_g: -500 }, "260912-1");
  const last = links.at(-1);
  expect([stops[last?.from ?? -1], stops[last?.to ?? -1], last?.grams]).toEqual([
    "not told",
    "260912-1",
    500,
  ]);
});

test("cannot tell is neither good nor bad", () => {
  expect([toneOf("adds_up"), toneOf("cannot_tell"), toneOf("missing"), toneOf("too_much")]).toEqual([
    "good",
    "note",
    "warn",
    "warn",
  ]);
});
