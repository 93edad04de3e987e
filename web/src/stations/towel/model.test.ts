import { expect, test } from "vitest";
import type { Towel } from "../../api/client";
import { aloneText, againText, headline, lidText, sorted } from "./model";

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
    ({ id, verdict, rescue, dosed: true }) as Towel["jars"][number];
  const jars = [
    jar(1, null),
    jar(2, "holds"),
    jar(3, "failed"),
    jar(4, "doubtful"),
    jar(5, "broken"),
    jar(6, "failed", "freezer"),
  ];
  const { open, sealed } = sorted([...jars, { ...jar(7, "holds"), second_look: 1 }]);
  expect(open.map((one) => one.id)).toEqual([1, 7]);
  expect(sealed.map((one) => one.id)).toEqual([2]);
});

test("that a load is not processed comes before anything about its lids", () => {
  const jar = (verdict: Towel["jars"][number]["verdict"], second_look: number | null = null) =>
    ({ verdict, second_look, dosed: true }) as Towel["jars"][number];
  const load = (jars: Towel["jars"], processed = true, ways_out: Towel["ways_out"] = []) => ({
    processed,
    ways_out,
    jars,
    lifted_at: 0,
    check_from: 12 * HOUR,
    check_by: 24 * HOUR,
  });
  const figure = (of: ReturnType<typeof load>, hours: number) => headline(of, hours * HOUR).figure;
  for (const hours of [0, 13, 30]) expect(figure(load([jar(null)], false), hours)).toBe("Not processed");
  expect(figure(load([jar(null)]), 13)).toBe("Check now");
  expect(figure(load([jar("holds")]), 13)).toBe("Wash");
  expect(figure(load([jar("failed")], true, [{ wrong: "lid" } as Towel["ways_out"][number]]), 13)).toBe(
    "Decide",
  );
  // Judged after an hour: it is looked at again, and is not called sealed before.
  expect(headline(load([jar("holds", 12 * HOUR)]), HOUR).unit).toBe("look again");
  expect(figure(load([jar("holds", 12 * HOUR)]), 13)).toBe("Check now");
});

test("a jar without its acid is neither open nor sealed, and stands before everything but the time", () => {
  const jar = { id: 3, verdict: "holds", dosed: false } as Towel["jars"][number];
  expect(sorted([jar])).toEqual({ open: [], sealed: [] });
  expect(lidText(jar)).toBe("without its acid");
  const load = {
    processed: true,
    ways_out: [{ wrong: "undosed", jars: [3] } as Towel["ways_out"][number]],
    jars: [jar],
    lifted_at: 0,
    check_from: 12 * HOUR,
    check_by: 24 * HOUR,
  };
  expect(headline(load, 13 * HOUR)).toMatchObject({ figure: "No acid", unit: "in 1 jar", bad: true });
  expect(headline({ ...load, processed: false }, 13 * HOUR).figure).toBe("Not processed");
});
