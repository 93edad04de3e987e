import { expect, test } from "vitest";
import { drawFlow } from "./flow";

const link = (from: number, to: number, grams: number) => ({ from, to, grams, doubt_g: 0 });

test("ribbons are as wide as what went there, and stops as high as all of it", () => {
  const drawn = drawFlow(4, [link(0, 1, 300), link(1, 2, 200), link(1, 3, 100)], 900);
  const [all, most, rest] = drawn?.ribbons.map((ribbon) => ribbon.width) ?? [];
  expect((most ?? 0) / (rest ?? 1)).toBeCloseTo(2);
  expect((most ?? 0) + (rest ?? 0)).toBeCloseTo(all ?? 0);
  expect(drawn?.nodes[1]?.height).toBeCloseTo(all ?? 0);
  expect(drawn?.nodes.map((node) => node.isLast)).toEqual([false, false, true, true]);
});

test("nothing moved is no drawing, and food that came back is told without one", () => {
  expect(drawFlow(2, [], 900)).toBeNull();
  expect(drawFlow(2, [link(0, 1, 5), link(1, 0, 5)], 900)).toBeNull();
});
