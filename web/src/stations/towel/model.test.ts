import { expect, test } from "vitest";
import type { Towel } from "../../api/client";
import { aloneText, againText, headline, lidText, sorted } from "./model";

const HOUR = 3_600_000;
type Jar = Towel["jars"][number];

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
    ({
      id,
      verdict,
      rescue,
      dosed: true,
      standing: { ruling: "fine", against: [], open: [] },
    }) as unknown as Towel["jars"][number];
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

const CLEAR: Jar["standing"] = { ruling: "fine", against: [], open: [], untold: [] };
const GARLIC = {
  ...CLEAR,
  ruling: "not_fine",
  against: [{ brief: "garlic in it" }],
} as unknown as Jar["standing"];

test("what keeps jars off the shelf comes before anything about their lids", () => {
  const jar = (verdict: Jar["verdict"], second_look: number | null = null) =>
    ({ verdict, second_look, dosed: true, standing: CLEAR }) as Jar;
  const load = (jars: Jar[], alarm: Towel["alarm"] = null, ways_out: Towel["ways_out"] = []) => ({
    alarm,
    ways_out,
    jars,
    lifted_at: 0,
    check_from: 12 * HOUR,
    check_by: 24 * HOUR,
  });
  const figure = (of: ReturnType<typeof load>, hours: number) => headline(of, hours * HOUR).figure;
  const alarm = { figure: "Not processed", unit: "1 jar", words: "waiting" };
  for (const hours of [0, 13, 30])
    expect(headline(load([jar(null)], alarm), hours * HOUR)).toEqual({ ...alarm, bad: true });
  expect(figure(load([jar(null)]), 13)).toBe("Check now");
  expect(figure(load([jar("holds")]), 13)).toBe("Wash");
  const failed = [{ wrong: "lid" } as Towel["ways_out"][number]];
  expect(figure(load([jar("failed")], null, failed), 13)).toBe("Decide");
  // Judged after an hour: it is looked at again, and is not called sealed before.
  expect(headline(load([jar("holds", 12 * HOUR)]), HOUR).unit).toBe("look again");
  expect(figure(load([jar("holds", 12 * HOUR)]), 13)).toBe("Check now");
});

test.each([
  [{ verdict: "holds", dosed: false, standing: CLEAR }, "without its acid"],
  [{ verdict: "holds", dosed: true, standing: GARLIC }, "not for the shelf: garlic in it"],
])("a jar that something stands against is neither open nor sealed: %j", (jar, text) => {
  expect(sorted([jar as Jar])).toEqual({ open: [], sealed: [] });
  expect(lidText(jar as Jar)).toBe(text);
});
