import { describe, expect, test } from "vitest";
import { BOUNDS } from "../../api/bounds.generated";
import type { CookView } from "../../api/client";
import { BYS, flaggedText, GOAL, lastText, minutesLeft, READ } from "./model";

describe("every way to read a kettle", () => {
  test.each(BYS)("%s is sent as a field that the API bounds", (by) => {
    const { field, bound } = READ[by];
    expect(bound).toBe(`CookEventRequest.${field}`);
    expect(BOUNDS[bound].least).toBeGreaterThan(0);
  });

  test("is typed in the kitchen's own unit", () => {
    expect(BYS.map((by) => READ[by].scale("us").unit)).toEqual(["in", "qt", "lb", "°", "qt", "°F"]);
    expect(BYS.map((by) => READ[by].scale("metric").unit)).toEqual(["mm", "L", "kg", "°", "L", "°C"]);
  });
});

// USDA Guide 3, from memory: thin sauce is reduced by about one third, thick by about one half.
test("by a third leaves two thirds, by half leaves half", () => {
  expect(GOAL.thin.target).toEqual({ fraction_left: 2 / 3 });
  expect(GOAL.thick.target).toEqual({ fraction_left: 0.5 });
});

test("a reading is said with its unit, a touch on the lid or the heat is not", () => {
  const line = (what: CookView["log"][number]["what"], value: number) => ({
    at: 0,
    what,
    value,
    simulated: true,
  });
  expect(lastText(line("mass_kg", 9), "us")).toBe("19.8 lb");
  expect(lastText(line("temp_c", 97.4), "metric")).toBe("97\u00a0°C");
  expect(lastText(line("brix", 6.25), "us")).toBe("6.3 °Brix");
  for (const what of ["lid_on", "lid_off", "heat_low", "heat_medium", "heat_high", "drain_l"] as const)
    expect(lastText(line(what, 1), "us")).toBe("");
});

test("minutes to the mark are whole, and none once it is reached", () => {
  expect(minutesLeft({ finish: 600_000 }, 0)).toBe(10);
  expect(minutesLeft({ finish: 600_000 }, 29_000)).toBe(10);
  expect(minutesLeft({ finish: 600_000 }, 31_000)).toBe(9);
  expect(minutesLeft({ finish: 600_000 }, 900_000)).toBe(0);
});

test("one reading looks wrong, two readings look wrong", () => {
  expect(flaggedText(1)).toBe("That reading looks wrong and was left out. Measure again.");
  expect(flaggedText(2)).toContain("2 readings look wrong");
});
