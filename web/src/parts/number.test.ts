import { describe, expect, test } from "vitest";
import { parseNumber, stepped, typedOf } from "./number";

describe("a typed number", () => {
  test.each([
    ["12.5", 12.5],
    ["12,5", 12.5],
    [" 7 ", 7],
    [".5", 0.5],
    ["-3", -3],
    ["0", 0],
    ["1 1/2", 1.5],
    ["1½", 1.5],
    ["2 ¾", 2.75],
    ["½", 0.5],
    ["1/4", 0.25],
  ])("%s is a number", (typed, value) => expect(parseNumber(typed)).toBe(value));

  test.each([
    "",
    "  ",
    "twelve",
    "1e3",
    "0x10",
    "Infinity",
    "NaN",
    "1.2.3",
    "1 2",
    "12.5 lb",
    "--1",
    "1 7/4",
    "1/0",
    "½½",
    "1.5 1/2",
    "-1/2",
  ])("“%s” is none, and nothing is made of it", (typed) => expect(parseNumber(typed)).toBeNull());

  test("is written back without the noise of a conversion", () => {
    expect(typedOf(0.1 + 0.2)).toBe("0.3");
    expect(typedOf(899.9999999999)).toBe("900");
  });

  test("is stepped within its bounds, and an empty one starts at the least", () => {
    expect(stepped("7", 1, 0, 9)).toBe("8");
    expect(stepped("9", 1, 0, 9)).toBe("9");
    expect(stepped("0", -1, 0, 9)).toBe("0");
    expect(stepped("", 1, 1, 9)).toBe("1");
    expect(stepped("what", -10, 0, 100)).toBe("0");
  });
});
