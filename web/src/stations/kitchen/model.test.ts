import { expect, test } from "vitest";
import type { KettleView } from "../../api/client";
import { burnerText, kettleText, leftOf } from "./model";

test("what is not known of a burner is asked for, and what is known is said", () => {
  expect(burnerText({ power_w: null, burner_mm: null }, "us")).toContain("with its power");
  expect(burnerText({ power_w: 2600, burner_mm: null }, "us")).toBe("Its burner: 2600 W.");
  expect(burnerText({ power_w: 2600.4, burner_mm: 220 }, "metric")).toBe(
    "Its burner: 2600 W, 22\u00a0cm wide.",
  );
});

test("a kettle says how its walls are known", () => {
  const kettle = { inner_diameter_mm: 300, depth_mm: 200, heat: "burner", pour_depths_mm: [] as number[] };
  const text = (depths: number[]) =>
    kettleText({ ...kettle, pour_depths_mm: depths } as unknown as KettleView, "metric");
  expect(text([])).toBe("30\u00a0cm wide, 20\u00a0cm deep, straight walls, on a burner");
  expect(text([20])).toContain("1 poured mark,");
  expect(text([20, 41])).toContain("2 poured marks,");
});

test("nothing is left of what was never counted, and never less than nothing", () => {
  expect(leftOf(null, 3)).toBeNull();
  expect(leftOf(undefined, 0)).toBeNull();
  expect(leftOf(12, 5)).toBe(7);
  expect(leftOf(5, 12)).toBe(0);
});
