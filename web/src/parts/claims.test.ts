import { expect, test } from "vitest";
import { changed, HEADSPACE, headspaceWord, isUsual, USUAL, WATER_WARMTH, waterWarmth } from "./claims";

test("one thing that differs leaves the rest as it was said", () => {
  expect(changed(null, { nicked: true })).toEqual({ ...USUAL, nicked: true });
  const used = changed(null, { lid: "reused" });
  expect(changed(used, { covered: false })).toEqual({ ...USUAL, lid: "reused", covered: false });
  expect(isUsual(changed(null, { water_c: 55 }))).toBe(true);
  for (const part of [
    { kind: "packer" },
    { lid: "reused" },
    { nicked: true },
    { covered: false },
    { packed_raw: true },
    { headspace_in: 1 },
  ] as const)
    expect(isUsual(changed(null, part))).toBe(false);
});

test("a word for headspace and for the canner's water gives the same word back", () => {
  for (const [word, inches] of Object.entries(HEADSPACE))
    expect(headspaceWord({ headspace_in: inches })).toBe(word);
  expect(headspaceWord(null)).toBe("");
  for (const [word, { celsius }] of Object.entries(WATER_WARMTH))
    expect(waterWarmth({ water_c: celsius })).toBe(word);
  expect(waterWarmth({ water_c: null })).toBe("");
});
