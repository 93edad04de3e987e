import { expect, test } from "vitest";
import { isUnder, wordsOf } from "./fresh";

test.each([
  ["Heat off, lid off: 12 min missing", "Heat off, lid off: 11 min missing", true],
  ["23:10", "23:09", true],
  ["It boils", "Boil lost", false],
  ["Jar 1, needs acid", "Jar 1, acid is in", false],
  ["1½ Tbsp", "2 Tbsp", true],
])("“%s” and “%s” are the same touch: %s", (before, after, same) =>
  expect(wordsOf(before).trim() === wordsOf(after).trim()).toBe(same),
);

test("only what appears under the finger, and soon after it, rests", () => {
  const rect = { left: 0, right: 100, top: 700, bottom: 772 };
  const at = (x: number, y: number, ago = 0) => ({ x, y, at: 10_000 - ago });
  expect(isUnder(rect, at(50, 730), 10_000)).toBe(true);
  expect(isUnder(rect, at(120, 690), 10_000)).toBe(true);
  expect(isUnder(rect, at(50, 600), 10_000)).toBe(false);
  expect(isUnder(rect, at(140, 730), 10_000)).toBe(false);
  expect(isUnder(rect, at(50, 730, 2_500), 10_000)).toBe(true);
  expect(isUnder(rect, at(50, 730, 2_501), 10_000)).toBe(false);
  expect(isUnder(rect, null, 10_000)).toBe(false);
});
