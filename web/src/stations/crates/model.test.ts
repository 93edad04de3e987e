import { expect, test } from "vitest";
import { goesOn, tomatoesDrawn } from "./model";

test("only fruit that goes on to jars has a ripe share", () => {
  expect((["firm_ripe", "trim", "unripe", "out"] as const).map(goesOn)).toEqual([true, true, false, false]);
});

test.each([
  [1, 1],
  [349, 1],
  [1_400, 2],
  [18_900, 27],
  [500_000, 27],
])("%d g are drawn as %d tomatoes", (grams, count) => expect(tomatoesDrawn({ left_g: grams })).toBe(count));
