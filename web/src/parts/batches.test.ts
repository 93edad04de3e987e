import { expect, test } from "vitest";
import { batchesOf, sizesText } from "./batches";

const jar = (batch: number, product: "sauce" | "juice", size: "pint" | "quart") => ({
  batch,
  code: `260912-${batch}`,
  product,
  size,
});

test("jars of several batches never share a name", () => {
  const both = batchesOf([jar(3, "sauce", "pint"), jar(4, "juice", "quart"), jar(3, "sauce", "pint")]);
  expect(both.map((one) => [one.letter, one.name, one.jars.length])).toEqual([
    ["A", "260912-3, sauce", 2],
    ["B", "260912-4, juice", 1],
  ]);
  expect(batchesOf([jar(3, "sauce", "pint")])[0]?.letter).toBe("");
});

test("jars are counted by size", () => {
  expect(sizesText([jar(3, "sauce", "pint"), jar(3, "sauce", "quart"), jar(3, "sauce", "pint")])).toBe(
    "2 pints, 1 quart",
  );
});
