import { describe, expect, test } from "vitest";
import { foodText, intoEach, jarsText, measuresOf, toAdd, touchOf, WARMTH, warmthOf } from "./model";

test("one touch does the next thing, takes the last one back, or tells that the food came first", () => {
  const empty = { next: "acid", last: null, has_acid: false } as const;
  const ready = { next: null, last: "lid", has_acid: true } as const;
  expect(touchOf(empty, "next")).toEqual({ step: "acid", done: true });
  expect(touchOf({ next: "rim", last: "bubbles", has_acid: true }, "next")).toEqual({
    step: "rim",
    done: true,
  });
  expect(touchOf(ready, "next")).toEqual({ step: "lid", done: false });
  expect(touchOf(ready, "back")).toEqual({ step: "lid", done: false });
  expect(touchOf({ next: "salt", last: "acid", has_acid: true }, "back")).toEqual({
    step: "acid",
    done: false,
  });
  expect(touchOf(empty, "back")).toBeNull();
  expect(touchOf(empty, "food_first")).toEqual({ step: "filled", done: true, food_first: true });
  expect(touchOf(ready, "food_first")).toBeNull();
});

test.each([
  [[], "No jars"],
  [[8], "Jar 8"],
  [[1, 2], "Jars 1, 2"],
  [[1, 2, 3, 4, 5], "Jars 1 to 5"],
  [[1, 3, 4], "Jars 1, 3, 4"],
])("%j read %s", (numbers, text) => expect(jarsText(numbers)).toBe(text));

test("a word for how warm the jars are gives the same word back", () => {
  for (const word of ["cold", "warm", "hot"] as const) expect(warmthOf(WARMTH[word])).toBe(word);
  expect([34.9, 35, 59.9, 60].map(warmthOf)).toEqual(["cold", "warm", "warm", "hot"]);
  expect(warmthOf(null)).toBe("");
  expect(warmthOf(undefined)).toBe("");
});

test("crystals are never measured by the bottle, and liquids never weighed", () => {
  expect(measuresOf("citric_acid")).not.toContain("bottle");
  expect(measuresOf("bottled_lemon_juice")).not.toContain("g");
  expect(measuresOf("vinegar_5pct")).toContain("bottle");
});

test("a hot pack is said to go in boiling hot", () => {
  const load = { jars: [{ batch: 1, pack: "hot" } as const, { batch: 2, pack: "raw" } as const] };
  expect([foodText(load, 1), foodText(load, 2)]).toEqual(["the food, boiling hot,", "food"]);
});

describe("the dose in big figures", () => {
  const dose = {
    acid_name: "citric acid",
    jar: "quart",
    count: 11,
    acid: "½ tsp",
    to_add_volume: "2.5 mL, 2.5 g",
    still_lacks: null,
  } as const;
  test.each([
    [{ ...dose, to_add: "½ tsp" }, "½ tsp", "(2.5 mL, 2.5 g) citric acid in each quart"],
    [{ ...dose, to_add: null, to_add_volume: null }, "In the pot", "✓ citric acid for 11 quarts"],
    [
      { ...dose, acid: null, to_add: null, to_add_volume: null },
      "No dose",
      "the acid of 11 quarts is in the recipe",
    ],
    [
      { ...dose, to_add: "⅛ tsp", to_add_volume: "0.7 mL, 0.7 g", still_lacks: "⅛ tsp" },
      "⅛ tsp",
      "(0.7 mL, 0.7 g) more citric acid in each quart: the pot had too little",
    ],
  ])("of %j is %s", (of, figure, words) => {
    expect([toAdd(of), intoEach(of)]).toEqual([figure, words]);
  });
});
