import { afterEach, describe, expect, test } from "vitest";
import { BOUNDS } from "../../api/bounds.generated";
import type { CookView } from "../../api/client";
import {
  boilText,
  BYS,
  GOAL,
  goalOf,
  goalText,
  likelyText,
  lineText,
  minutesLeft,
  promiseText,
  READ,
  WAYS,
} from "./model";
import { showWays, usualWays } from "../../writing/ways";

afterEach(() => showWays(usualWays("us")));

describe("every way to read a kettle", () => {
  test.each(BYS)("%s is sent as a field that the API bounds", (by) => {
    const { field, bound } = READ[by];
    expect(bound).toBe(`CookEventRequest.${field}`);
    expect(BOUNDS[bound].least).toBeGreaterThan(0);
  });

  test("is typed in the kitchen's own unit", () => {
    expect(BYS.map((by) => READ[by].scale("us").unit)).toEqual(["in", "qt", "lb", "°", "°F"]);
    showWays(usualWays("metric"));
    expect(BYS.map((by) => READ[by].scale("metric").unit)).toEqual(["cm", "L", "kg", "°", "°C"]);
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
    sure: false,
    booked: false,
  });
  expect(lineText(line("mass_kg", 9), "us")).toBe("19.8 lb");
  showWays(usualWays("metric"));
  expect(lineText(line("temp_c", 97.4), "metric")).toBe("97\u00a0°C");
  expect(lineText(line("brix", 6.25), "us")).toBe("6.3 °Brix");
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
    "not_yet",
    "hot_enough",
  ] as const)
    expect(lineText(line(what, 1), "us")).toBe("");
});

test("minutes to the mark are whole, and none once it is reached", () => {
  expect(minutesLeft({ finish: 600_000 }, 0)).toBe(10);
  expect(minutesLeft({ finish: 600_000 }, 29_000)).toBe(10);
  expect(minutesLeft({ finish: 600_000 }, 31_000)).toBe(9);
  expect(minutesLeft({ finish: 600_000 }, 900_000)).toBe(0);
});

describe("what is not known closely is not said closely", () => {
  const min = (minutes: number) => minutes * 60_000;
  const boils = (low: number, high: number) => ({
    kettle: { heat: "burner" } as CookView["kettle"],
    boils: { low: min(low), expected: min((low + high) / 2), high: min(high) },
  });

  test("the boil is a span until it is near, and nothing once it boils", () => {
    expect(boilText({ boiling: null, ...boils(40, 90) }, 0)).toBe("It boils between 00:40 and 01:30.");
    expect(boilText({ boiling: false, ...boils(40, 90) }, min(60))).toBe("It boils between 01:00 and 01:30.");
    expect(boilText({ boiling: false, ...boils(40, 44) }, 0)).toBe("It boils at about 00:42.");
    expect(boilText({ boiling: true, ...boils(40, 90) }, 0)).toBe("");
  });

  test("the finish is a span of hours while it is vague", () => {
    const finish = { finish_low: min(62), finish_high: min(241) };
    expect(likelyText({ ...finish, vague: false }, 0)).toBe("80 % likely between 01:02 and 04:01.");
    expect(likelyText({ ...finish, vague: true }, 0)).toContain("Between 1 h and 4 h from now");
    expect(likelyText({ ...finish, vague: false }, min(100))).toContain("between 01:40 and");
  });

  test("promises are held against what came", () => {
    expect(promiseText({ of: 3, longer_percent: 10.4 })).toBe(
      "This kettle took 10 % longer than said the last three times.",
    );
    expect(promiseText({ of: 1, longer_percent: -12 })).toBe(
      "This kettle took 12 % less than said the last time.",
    );
    expect(promiseText({ of: 2, longer_percent: 1 })).toContain("as long as said");
    expect(promiseText(null)).toBe("");
  });
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
