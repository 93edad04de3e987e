import { expect, test } from "vitest";
import type { FirstLine } from "../../api/client";
import { nameOf } from "../plan/model";
import { figuresOf, beginPath } from "./model";

const line: FirstLine = {
  product: "whole",
  medium: "water",
  pack: "raw",
  thickness: null,
  jar: "quart",
  jars: { low: 8, expected: 10, high: 13 },
  acid: "2 Tbsp",
  minutes_from: 45,
  minutes_to: 60,
  refusal: null,
  loads: 2,
  canner_from: 140,
  canner_to: 170,
  hands: 65,
  stove: 12,
};

test("what is not known is a range, what is known one figure", () => {
  expect(figuresOf(line).time).toBe("45 to 60 min, 2 Tbsp lemon in each");
  expect(figuresOf(line).work).toBe(
    "2 loads, 2 h 20 min to 2 h 50 min of canner, 12 min of stove, 1 h 5 min of hands",
  );
  expect(figuresOf({ ...line, minutes_from: 50, minutes_to: 50 }).time).toBe("50 min, 2 Tbsp lemon in each");
});

test("without a tested process the reason stands where the time would", () => {
  const refused = { ...line, minutes_from: null, minutes_to: null, refusal: "No process was tested." };
  expect(figuresOf(refused)).toMatchObject({ time: "No tested process", work: "No process was tested." });
});

test("a line begins at the scale with what was said", () => {
  expect(nameOf(line)).toBe("Whole, raw pack in water");
  expect(nameOf({ ...line, product: "sauce", medium: null, pack: "hot", thickness: "thin" })).toBe(
    "Thin sauce",
  );
  expect(beginPath(line, "30")).toBe("/crates?then=whole&medium=water&pack=raw&weighed=30");
});
