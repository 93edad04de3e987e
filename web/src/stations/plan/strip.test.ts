import { describe, expect, test } from "vitest";
import { blockText, hoursOf, isCritical, rowsOf } from "./strip";

const HOUR = 3_600_000;
const NINE = 9 * HOUR;

test("a block says its work, its load and its rounds", () => {
  expect(blockText({ work: "fill", name: "load 2", rounds: null })).toBe("Fill the jars, load 2");
  expect(blockText({ work: "blanch", name: null, rounds: 8 })).toBe("Blanch, 8 rounds");
  expect(blockText({ work: "blanch", name: null, rounds: 1 })).toBe("Blanch, 1 round");
  expect(blockText({ work: "pause", name: null, rounds: null })).toBe("Break");
});

test.each([
  [0, 0, true],
  [5, 0, false],
  [0, 5, false],
  [5, 5, false],
])("a block with %d min later and %d sooner is critical: %s", (slack_minutes, sooner_minutes, critical) =>
  expect(isCritical({ slack_minutes, sooner_minutes })).toBe(critical),
);

describe("lanes", () => {
  const lane = (resource: number, number: number, block: number) => ({ resource, number, block });
  test("stand hands first, then canners, kettles and burners, empty ones left out", () => {
    const day = {
      has: [2, 3, 1, 1],
      lanes: [lane(1, 0, 4), lane(0, 0, 0), lane(0, 1, 1), lane(3, 0, 2), lane(2, 0, 3), lane(0, 0, 5)],
    };
    expect(rowsOf(day).map((row) => [row.name, row.blocks])).toEqual([
      ["Hands 1", [0, 5]],
      ["Hands 2", [1]],
      ["Canner", [2]],
      ["Kettle", [3]],
      ["Burner 1", [4]],
    ]);
  });
  test("a day without work has none", () => expect(rowsOf({ has: [1, 4, 3, 1], lanes: [] })).toEqual([]));
  test("a kitchen that has none of something draws none of it", () =>
    expect(rowsOf({ has: [1], lanes: [lane(0, 0, 0)] }).map((row) => row.name)).toEqual(["Hands"]));
});

describe("hours", () => {
  test("stand at the whole hour and not at the minute it begins", () =>
    expect(hoursOf(NINE + 1, NINE + 3 * HOUR)).toEqual([NINE + HOUR, NINE + 2 * HOUR, NINE + 3 * HOUR]));
  test("begin at once on the hour", () => expect(hoursOf(NINE, NINE + HOUR)).toEqual([NINE, NINE + HOUR]));
  test("stand by twos on a long day", () => {
    const hours = hoursOf(NINE, NINE + 11 * HOUR);
    expect(hours).toHaveLength(6);
    expect(hours[1]! - hours[0]!).toBe(2 * HOUR);
  });
  test("are none in a span between two of them", () => expect(hoursOf(NINE + 1, NINE + 2)).toEqual([]));
});
