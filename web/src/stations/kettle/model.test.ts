import { describe, expect, test } from "vitest";
import { BOUNDS } from "../../api/bounds.generated";
import type { CookView } from "../../api/client";
import { BYS, flaggedText, GOAL, goalOf, goalText, lastText, minutesLeft, READ, WAYS } from "./model";

describe("every way to read a kettle", () => {
  test.each(BYS)("%s is sent as a field that the API bounds", (by) => {
    const { field, bound } = READ[by];
    expect(bound).toBe(`CookEventRequest.${field}`);
    expect(BOUNDS[bound].least).toBeGreaterThan(0);
  });

  test("is typed in the kitchen's own unit", () => {
    expect(BYS.map((by) => READ[by].scale("us").unit)).toEqual(["in", "qt", "lb", "°", "°F"]);
    expect(BYS.map((by) => READ[by].scale("metric").unit)).toEqual(["mm", "L", "kg", "°", "°C"]);
  });
});

// USDA Guide 3, from memory: thin sauce is reduced by about one third, thick by about one half.
test("by a third leaves two thirds, by half leaves half", () => {
  expect(GOAL.thin.target(0)).toEqual({ fraction_left: 2 / 3 });
  expect(GOAL.thick.target(0)).toEqual({ fraction_left: 0.5 });
});

test("a reading is said with its unit, a touch on the lid or the heat is not", () => {
  const line = (what: CookView["log"][number]["what"], value: number) => ({
    at: 0,
    what,
    value,
    simulated: true,
    booked: false,
  });
  expect(lastText(line("mass_kg", 9), "us")).toBe("19.8 lb");
  expect(lastText(line("temp_c", 97.4), "metric")).toBe("97\u00a0°C");
  expect(lastText(line("brix", 6.25), "us")).toBe("6.3 °Brix");
  for (const what of [
    "lid_on",
    "lid_off",
    "heat_low",
    "heat_medium",
    "heat_high",
    "drain_l",
    "ladle_l",
    "add_l",
    "boils",
    "hot_enough",
  ] as const)
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

test("a batch says how far it goes: juice is held and never boiled down", () => {
  expect(goalOf({ product: "sauce", thickness: "thick" })).toBe("thick");
  expect(goalOf({ product: "juice", thickness: null })).toBe("hold");
  expect(GOAL.hold.target(20)).toEqual({ hold_minutes: 20 });
  expect(goalText({ goal: "fraction_left", goal_value: 2 / 3 })).toBe("by a third, two thirds are left");
  expect(goalText({ goal: "hold_minutes", goal_value: 20 })).toBe("held hot for 20 minutes");
});

test("ladling off and taking off are told apart", () => {
  expect(WAYS.ladle.field).toBe("ladle_l");
  expect(WAYS.drain.field).toBe("drain_l");
  expect(WAYS.ladle.hint).toContain("pulp stays");
});
