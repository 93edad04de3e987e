import { describe, expect, test } from "vitest";
import type { Counter } from "../api/client";
import { callsNow, placesOf, stepText, titleOf } from "./line";

const NOW = 1_790_000_000_000;
const call = (text: string, from: number, once = false) => ({
  text,
  from,
  once,
  station: "canner" as const,
});

describe("calls", () => {
  test("ring from their moment on, the first one first", () => {
    const calls = [call("Time is up: heat off", NOW), call("The kettle is at its mark", NOW - 1)];
    expect(callsNow(calls, NOW).ringing).toBe("Time is up: heat off");
    expect(callsNow(calls, NOW - 1).ringing).toBe("The kettle is at its mark");
    expect(callsNow(calls, NOW - 2).ringing).toBeNull();
  });

  test("that are said once do not ring", () => {
    const calls = [call("The lids can be checked", NOW, true)];
    expect(callsNow(calls, NOW)).toEqual({ due: calls, ringing: null, once: ["The lids can be checked"] });
    expect(callsNow(calls, NOW - 1)).toEqual({ due: [], ringing: null, once: [] });
  });
});

test.each([
  ["/canner", "22:49 boiling · Canner"],
  ["/plan/recipes/3", "Recipes · Bodega"],
  ["/plan/day", "The day · Bodega"],
  ["/batches/6/record", "Batch · Bodega"],
  ["/", "Crates · Bodega"],
])("the tab of %s says %s", (path, title) => {
  const canner = { station: "canner", name: "Canner", figure: "22:49", words: "boiling" } as const;
  expect(titleOf([canner], path)).toBe(title);
});

describe("the line", () => {
  const counter = (more: Partial<Counter>): Counter =>
    ({
      now: NOW,
      kitchen: { units: "us" },
      waiting_g: 15_422,
      batches: 1,
      kettle: null,
      bench: null,
      canners: [],
      cooling: 0,
      next_check: null,
      shelved: 83,
      calls: [],
      ...more,
    }) as unknown as Counter;
  const place = (station: string, more: Partial<Counter>) =>
    placesOf(counter(more), NOW).find((one) => one.station === station);
  const canner = (now: object, jars = 7) =>
    ({ canners: [{ now, minutes: 50, jars, name: "canner" }] }) as never;

  test("names every station in the order of the work", () => {
    expect(placesOf(counter({}), NOW).map((one) => one.station)).toEqual([
      "crates",
      "plan",
      "kettle",
      "jars",
      "canner",
      "towel",
      "shelf",
    ]);
  });

  test.each([
    [{ phase: "heating", since: NOW }, "7", "heating up"],
    [{ phase: "venting", since: NOW, ends: NOW + 61_000 }, "01:01", "vents"],
    [{ phase: "venting", since: NOW, ends: NOW }, "Close", "the vent"],
    [{ phase: "counting", since: NOW, ends: NOW + 1_390_000 }, "23:10", "boiling"],
    [{ phase: "counting", since: NOW, ends: NOW }, "Heat off", ""],
    [{ phase: "boil_lost", at: NOW }, "Lost", "no boil"],
    [{ phase: "unwatched", since: NOW, at: NOW }, "Held?", "the boil"],
    [{ phase: "time_up", at: NOW }, "Heat off", ""],
    [{ phase: "dropping", since: NOW }, "7", "pressure drops"],
    [{ phase: "resting", since: NOW, ends: NOW + 5_000 }, "00:05", "rest"],
    [{ phase: "resting", since: NOW, ends: NOW }, "Lift", ""],
    [{ phase: "rested", at: NOW }, "Lift", ""],
    [{ phase: "lifted", at: NOW }, "–", "empty"],
  ])("a canner that is %j reads %s %s", (now, figure, words) => {
    expect(place("canner", canner(now))).toMatchObject({ figure, words });
  });

  test("is empty where nothing is", () => {
    expect(place("canner", {})).toMatchObject({ figure: "–", words: "empty" });
    expect(place("jars", {})).toMatchObject({ figure: "–", words: "bench clear" });
    expect(place("kettle", {})).toMatchObject({ figure: "–", words: "stove clear" });
    expect(place("towel", {})).toMatchObject({ figure: "0", words: "cooling" });
  });

  test("says one batch and two batches", () => {
    expect(place("plan", {})).toMatchObject({ figure: "1", words: "batch" });
    expect(place("plan", { batches: 2 })).toMatchObject({ words: "batches" });
  });

  test("calls the lids as soon as they may be looked at", () => {
    expect(place("towel", { cooling: 9, next_check: NOW })).toMatchObject({ words: "check now" });
    expect(place("towel", { cooling: 9, next_check: NOW + 1 })?.words).toMatch(/^check \d\d:\d\d$/);
  });
});

test.each([
  [40, "forward by 40 min"],
  [-60, "back by 1 h"],
  [0.05, "forward by 1 min"],
])("a clock that was set by %d minutes was set %s", (minutes, text) => {
  expect(stepText(minutes)).toBe(text);
});
