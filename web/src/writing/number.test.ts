import { afterEach, describe, expect, test } from "vitest";
import table from "../../../crates/core/tests/data/numbers.json";
import { notANumber, parseNumber, readNumber, stepped, typedOf, understood } from "./number";
import { showWays, usualWays } from "./ways";

const inPoints = () => showWays(usualWays("us"));
const inCommas = () => showWays({ ...usualWays("metric"), decimal: "comma" });
afterEach(inPoints);

describe("a number that a household with a decimal point types", () => {
  test.each([
    ["12.5", 12.5],
    [" 7 ", 7],
    [".5", 0.5],
    ["5.", 5],
    ["-3", -3],
    ["0", 0],
    ["1 1/2", 1.5],
    ["1½", 1.5],
    ["2 ¾", 2.75],
    ["½", 0.5],
    ["1/4", 0.25],
    ["1⁄4", 0.25],
    // Six thousand five hundred feet are not six and a half.
    ["6,500", 6500],
    ["6 500", 6500],
    ["6\u00a0500", 6500],
    ["6\u202f500", 6500],
    ["6'500", 6500],
    ["1,000", 1000],
    ["1,234,567", 1_234_567],
    ["1,234.5", 1234.5],
    ["1.234,5", 1234.5],
    ["6.500", 6.5],
    ["-1,500", -1500],
  ])("%s is %d", (typed, value) => expect(parseNumber(typed)).toBe(value));

  test.each([
    ["6,5", [6.5, 65]],
    ["12,5", [12.5, 125]],
    ["0,500", [0.5, 500]],
    ["1,0000", [1, 10_000]],
  ])("%s could be two, and is asked", (typed, values) => {
    expect(readNumber(typed)).toEqual({ is: "asked", values });
    expect(parseNumber(typed)).toBeNull();
  });
});

describe("a number that a household with a decimal comma types", () => {
  test.each([
    ["12,5", 12.5],
    ["6,500", 6.5],
    ["0,5", 0.5],
    // A phone's keypad has no comma.
    ["6.5", 6.5],
    ["6 500", 6500],
    ["1.234,5", 1234.5],
    ["1.234.567", 1_234_567],
    ["1½", 1.5],
  ])("%s is %d", (typed, value) => {
    inCommas();
    expect(parseNumber(typed)).toBe(value);
  });

  test("6.500 could be two, and is asked", () => {
    inCommas();
    expect(readNumber("6.500")).toEqual({ is: "asked", values: [6500, 6.5] });
    expect(notANumber("6.500", "m")).toBe("Which is it: 6\u202f500 m or 6,5 m?");
  });
});

test.each([
  "",
  "  ",
  "twelve",
  "1e3",
  "0x10",
  "Infinity",
  "NaN",
  "1.2.3",
  "1,2,3",
  "1,23,456",
  "1 2",
  "1 23",
  "12.5 lb",
  "--1",
  "1 7/4",
  "1/0",
  "½½",
  "1.5 1/2",
  "-1/2",
  ",",
  ".",
])("“%s” is none, and nothing is made of it", (typed) => expect(readNumber(typed).is).toBe("none"));

test.each([
  ["6,500 ft", "ft", 6500],
  ["6,500 feet", "ft", 6500],
  ["900m", "m", 900],
  ["12.5 lbs", "lb", 12.5],
  ["1 1/2 qt", "qt", 1.5],
  ["½ in", "in", 0.5],
  ["212 °F", "°F", 212],
  ["900 m", "ft", null],
  ["12 kg", "lb", null],
])("%s in a field of %s is %s", (typed, unit, value) => expect(parseNumber(typed, unit)).toBe(value));

test("every number from a hundredth to a hundred thousand is read as it is written, in every way", () => {
  const group = (digits: string, sign: string) => digits.replace(/\B(?=(\d{3})+$)/g, sign);
  for (const [show, point, thousands] of [
    [inPoints, ".", [",", " ", "\u00a0", "\u202f", "'"]],
    [inCommas, ",", [" ", "\u00a0", "\u202f", "'"]],
  ] as const) {
    show();
    let step = 1;
    for (let hundredths = 1; hundredths <= 10_000_000; hundredths += step) {
      // Every one up to a thousand, then ever further apart.
      step = hundredths < 100_000 ? 1 : 97;
      const [whole, share] = [
        String(Math.floor(hundredths / 100)),
        String(hundredths % 100).padStart(2, "0"),
      ];
      const value = hundredths / 100;
      const text = share === "00" ? whole : `${whole}${point}${share}`;
      if (parseNumber(text) !== value) throw new Error(`${text} is read as ${parseNumber(text)}`);
      for (const sign of hundredths < 100_000 ? [] : thousands) {
        const grouped = text.replace(whole, group(whole, sign));
        if (parseNumber(grouped) !== value) throw new Error(`${grouped} is read as ${parseNumber(grouped)}`);
      }
    }
  }
}, 60_000);

test("no beginning of a number with thousands is taken for it", () => {
  // Typed digit by digit: 6 and 6,500 are numbers, what lies between is asked or none.
  const steps = ["6", "6,", "6,5", "6,50", "6,500"].map((typed) => readNumber(typed));
  expect(steps.map((read) => read.is)).toEqual(["number", "none", "asked", "asked", "number"]);
});

test("what was understood is said where it does not stand there", () => {
  expect(understood("6,500", "ft")).toBe("6,500 ft");
  expect(understood("1½", "qt")).toBe("1.5 qt");
  expect(understood("6500", "ft")).toBeNull();
  expect(understood("what", "ft")).toBeNull();
});

test("a number is written back without the noise of a conversion", () => {
  expect(typedOf(0.1 + 0.2)).toBe("0.3");
  expect(typedOf(899.9999999999)).toBe("900");
});

test("a number is stepped within its bounds, and an empty one starts at the least", () => {
  expect(stepped("7", 1, 0, 9)).toBe("8");
  expect(stepped("9", 1, 0, 9)).toBe("9");
  expect(stepped("0", -1, 0, 9)).toBe("0");
  expect(stepped("", 1, 1, 9)).toBe("1");
  expect(stepped("what", -10, 0, 100)).toBe("0");
});

test.each(table)("core reads %o in the same way", ({ typed, decimal, values }) => {
  if (decimal === "comma") inCommas();
  const read = readNumber(typed);
  expect(read.is === "number" ? [read.value] : read.is === "asked" ? read.values : []).toEqual(values);
});
