import { afterEach, describe, expect, test } from "vitest";
import { WORDS } from "../api/words.generated";
import {
  altitudeText,
  batchText,
  capital,
  CANNED_SIZES,
  countdown,
  depthText,
  headspaceText,
  JAR_SIZES,
  jarText,
  PRODUCT,
  spanText,
  temperatureText,
  volumeText,
  weight,
  weightText,
  ageText,
  clockText,
  dayOf,
  isDue,
  showZone,
  dayText,
  minuteText,
  shortDay,
} from "./format";
import { typedOf } from "./number";
import { showWays, usualWays } from "./ways";

afterEach(() => showWays(usualWays("us")));

test.each([
  [13_607.8, "us", "30 lb"],
  [13_607.8, "metric", "13.6 kg"],
  [453.59237, "us", "1 lb"],
  [9_071.8474, "us", "20 lb"],
  [9_000, "us", "19.8 lb"],
] as const)("%d g in %s reads %s", (grams, units, text) => expect(weightText(grams, units)).toBe(text));

test("weights of twenty and more have no decimals", () => {
  expect(weight(20_000, "metric").value).toBe("20");
  expect(weight(19_940, "metric").value).toBe("19.9");
});

test.each([
  [0.946352946, "us", "1 qt"],
  [1, "metric", "1 L"],
  [0.28, "us", "0.3 qt"],
] as const)("%d L in %s reads %s", (litres, units, text) => expect(volumeText(litres, units)).toBe(text));

test("heights keep whole feet and whole metres", () => {
  expect(altitudeText(2640)).toBe("2,640\u00a0ft");
  showWays(usualWays("metric"));
  expect(altitudeText(2640)).toBe("805\u00a0m");
});

test.each([
  [0.25, "us", "¼\u00a0in"],
  [0.5, "us", "½\u00a0in"],
  [1.5, "us", "1.5 in"],
  [0.5, "metric", "1.3\u00a0cm"],
] as const)("headspace of %d in %s reads %s", (inches, units, text) =>
  expect(headspaceText(inches, units)).toBe(text),
);

test.each([
  [25.4, "1\u00a0in"],
  [107, "4¼\u00a0in"],
  [12.7, "½\u00a0in"],
  [0, "0\u00a0in"],
  [253.9, "10\u00a0in"],
])("a depth of %d mm reads %s on a stick in inches", (mm, text) => expect(depthText(mm, "us")).toBe(text));

test("temperatures are whole degrees", () => {
  expect(temperatureText(97.4)).toBe("207\u00a0°F");
  showWays(usualWays("metric"));
  expect(temperatureText(97.4)).toBe("97\u00a0°C");
});

describe("time left", () => {
  test.each([
    [0, "00:00"],
    [-5_000, "00:00"],
    [1, "00:01"],
    [59_999, "01:00"],
    [60_000, "01:00"],
    [3_600_000, "1:00:00"],
    [3_765_000, "1:02:45"],
  ])("%d ms reads %s and never says done too early", (ms, text) => expect(countdown(ms)).toBe(text));

  test.each([
    [0, "0 min"],
    [59, "59 min"],
    [60, "1 h"],
    [150, "2 h 30 min"],
  ])("%d minutes read %s", (minutes, text) => expect(spanText(minutes)).toBe(text));
});

describe("words come from the vocabularies", () => {
  test("with a capital where they begin a line", () => {
    expect(PRODUCT.vegetable_juice).toBe(capital(WORDS.Product.vegetable_juice));
    expect(capital("")).toBe("");
  });

  test("one quart, two quarts, no quarts", () => {
    expect([0, 1, 2].map((count) => jarText("quart", count))).toEqual(["quarts", "quart", "quarts"]);
  });

  test("half-gallons are a size and not one that is canned", () => {
    expect(JAR_SIZES).toContain("half_gallon");
    expect(CANNED_SIZES).not.toContain("half_gallon");
    expect(CANNED_SIZES).toContain("ml_370");
    expect(CANNED_SIZES).toHaveLength(JAR_SIZES.length - 3);
  });

  test.each([
    [{ product: "whole", pack: "raw", medium: "water" }, "whole, raw pack in water"],
    [{ product: "whole", pack: "raw", medium: "none" }, "whole, raw pack, no liquid"],
    [{ product: "sauce", pack: "hot", medium: null }, "sauce"],
  ] as const)("%j reads %s", (batch, text) => expect(batchText(batch)).toBe(text));
});

test("hours and days are the kitchen's, wherever the screen is", () => {
  // 2026-09-17 23:30 in Lisbon is the 18th in Helsinki and still the 17th in Denver.
  const late = Date.UTC(2026, 8, 17, 22, 30);
  for (const [zone, clock, day] of [
    ["Europe/Lisbon", "23:30", "2026-09-17"],
    ["Europe/Helsinki", "01:30", "2026-09-18"],
    ["America/Denver", "16:30", "2026-09-17"],
  ] as const) {
    showZone(zone);
    expect([clockText(late), dayOf(late)]).toEqual([clock, day]);
    expect(isDue("2026-09-18", late)).toBe(day === "2026-09-18");
    expect(ageText("2026-09-16", late)).toBe(day === "2026-09-18" ? "picked 2 days ago" : "picked yesterday");
  }
  const here = clockText(late);
  showZone("Nowhere/Here");
  showZone(null);
  expect(here).toBe("16:30");
});

describe("the household's ways", () => {
  const at = Date.UTC(2026, 8, 17, 18, 5);
  test.each([
    ["24", 1050, "18:05", "17:30"],
    ["12", 1050, "6:05\u00a0pm", "5:30\u00a0pm"],
    ["12", 0, "6:05\u00a0pm", "12:00\u00a0am"],
    ["12", 1440, "6:05\u00a0pm", "12:00\u00a0am"],
    ["12", 720, "6:05\u00a0pm", "12:00\u00a0pm"],
  ] as const)("%s hours a turn: minute %d", (hours, minute, clock, wall) => {
    showZone("UTC");
    showWays({ ...usualWays("us"), hours });
    expect(clockText(at)).toBe(clock);
    expect(minuteText(minute)).toBe(wall);
  });

  test.each([
    ["day_first", "17 September 2026", "17 September"],
    ["month_first", "September 17, 2026", "September 17"],
    ["year_first", "2026-09-17", "2026-09-17"],
  ] as const)("days written %s", (days, long, short) => {
    showZone("UTC");
    showWays({ ...usualWays("us"), days });
    expect(dayText(at)).toBe(long);
    expect(shortDay("2026-09-17")).toBe(short);
  });

  test("a comma stands in every number, and a thin space between thousands", () => {
    showWays({ ...usualWays("metric"), decimal: "comma", height: "feet" });
    expect(weightText(13_607.8, "metric")).toBe("13,6 kg");
    expect(altitudeText(2640)).toBe("2\u202f640\u00a0ft");
    expect(typedOf(12.5)).toBe("12,5");
  });
});
