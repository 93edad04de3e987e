import { expect, test } from "vitest";
import { changed, isUsual, USUAL, WATER_OVER, waterOver } from "./claims";

test("one thing that differs leaves the rest as it was said", () => {
  expect(changed(null, { nicked: true })).toEqual({ ...USUAL, nicked: true });
  const used = changed(null, { lid: "reused" });
  expect(changed(used, { covered: false })).toEqual({ ...USUAL, lid: "reused", covered: false });
  expect(USUAL.water_over_in).toBeNull();
  expect(isUsual(changed(null, { water_over_in: 2 }))).toBe(true);
  for (const part of [{ kind: "packer" }, { lid: "reused" }, { nicked: true }, { covered: false }] as const)
    expect(isUsual(changed(null, part))).toBe(false);
});

test("a word for the water over the lids gives the same word back, and none before anybody looked", () => {
  for (const [word, { inches }] of Object.entries(WATER_OVER))
    expect(waterOver({ water_over_in: inches })).toBe(word);
  expect([0, 0.99, 1, 1.99, 2].map((inches) => waterOver({ water_over_in: inches }))).toEqual([
    "low",
    "low",
    "some",
    "some",
    "well",
  ]);
  expect(waterOver({ water_over_in: null })).toBe("");
});
