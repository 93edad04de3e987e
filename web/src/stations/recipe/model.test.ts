import { expect, it } from "vitest";
import type { ReadLine } from "../../api/client";
import { cardSize, isOpen, place, written } from "./model";

const line: ReadLine = {
  line: "6 onions, chopped",
  name: "onions",
  amount: 6,
  unit: "piece",
  preparation: "chopped",
  role: "low_acid",
  group: "onions",
  per: "batch",
  asks: [],
};

it("is written down only when it says how much of what", () => {
  expect(isOpen(line)).toBe(false);
  expect(isOpen({ ...line, amount: null })).toBe(true);
  expect(isOpen({ ...line, role: null })).toBe(true);
  expect(isOpen({ ...line, up_to: 8 })).toBe(true);
  expect(isOpen({ ...line, per: null })).toBe(true);
  expect(isOpen({ ...line, role: "free", amount: null })).toBe(false);
  expect(written(line)).toEqual({
    part: { name: "onions", amount: 6, unit: "piece", role: "low_acid", group: "onions", per: "batch" },
    preparation: "chopped",
    ticked: false,
  });
});

it("places a proportion between none and twice as much", () => {
  expect([place(-1), place(0), place(0.5), place(3), place(null)]).toEqual([0, 0.5, 0.75, 1, null]);
});

it("writes a card as large as its page holds", () => {
  expect(cardSize(["5 lb tomatoes", "1 cup vinegar"])).toBe(12);
  const long = Array.from({ length: 30 }, (_, step) => `${step}: chop, stir and simmer it for a good while`);
  const size = cardSize(long);
  expect(size).toBeLessThan(5);
  expect(cardSize([...long, ...long])).toBeLessThan(size);
  // Never so small that nobody reads it.
  expect(cardSize(Array.from({ length: 400 }, () => "a line"))).toBe(3);
});
