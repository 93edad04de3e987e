import { expect, test } from "vitest";
import type { Towel } from "../../api/client";
import { aloneText, againText, sorted } from "./model";

const HOUR = 3_600_000;

test.each([
  [12 * HOUR, "for 12 h more"],
  [90 * 60_000, "for 1 h 30 min more"],
  [60_000, "for a minute more"],
  [1, "for a minute more"],
])("with %d ms to go the jars are left alone %s", (left, text) => {
  expect(aloneText({ lifted_at: 0, check_from: 12 * HOUR }, 12 * HOUR - left)).toContain(text);
});

test("the day by which a failed jar is done again is named", () => {
  expect(againText({ check_by: Date.UTC(2026, 8, 13, 12) })).toContain("13 September 2026");
});

test("jars are sorted by what is to be done with them, and each stands in one place", () => {
  const jar = (id: number, verdict: Towel["jars"][number]["verdict"], rescue: "freezer" | null = null) =>
    ({ id, verdict, rescue }) as Towel["jars"][number];
  const jars = [
    jar(1, null),
    jar(2, "holds"),
    jar(3, "failed"),
    jar(4, "doubtful"),
    jar(5, "broken"),
    jar(6, "failed", "freezer"),
  ];
  const { open, sealed, toDecide } = sorted(jars);
  expect(open.map((one) => one.id)).toEqual([1]);
  expect(sealed.map((one) => one.id)).toEqual([2]);
  expect(toDecide.map((one) => one.id)).toEqual([3, 4]);
});
