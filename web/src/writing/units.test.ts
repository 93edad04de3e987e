import { describe, expect, test } from "vitest";
import type { Units } from "../api/client";
import { heatScale, heightScale, lengthScale, massScale, plain, volumeScale, type Scale } from "./units";
import { showWays, usualWays } from "./ways";

const both: Units[] = ["us", "metric"];

describe("what is typed comes back", () => {
  const scales: [string, (units: Units) => Scale][] = [
    ["length", lengthScale],
    ["volume", volumeScale],
    ["mass", massScale],
    ["height", heightScale],
    ["heat", heatScale],
  ];
  test.each(scales.flatMap(([name, of]) => both.map((units) => [name, units, of(units)] as const)))(
    "%s in %s",
    (_, __, scale) => {
      for (const typed of [0.25, 1, 12.5, 900])
        expect(scale.fromApi(scale.toApi(typed))).toBeCloseTo(typed, 9);
    },
  );
});

// NIST Handbook 44, Appendix C, from memory: exact definitions.
test("conversions are the exact ones", () => {
  expect(massScale("us").toApi(1)).toBe(0.45359237);
  expect(volumeScale("us").toApi(1)).toBe(0.946352946);
  expect(lengthScale("us").toApi(1)).toBe(25.4);
  showWays(usualWays("metric"));
  expect(heightScale().toApi(304.8)).toBeCloseTo(1000, 9);
  showWays(usualWays("us"));
  expect(heatScale().toApi(212)).toBeCloseTo(100, 9);
  expect(heatScale().toApi(32)).toBe(0);
});

test("a metric kitchen types what is sent, and lengths in centimetres", () => {
  showWays(usualWays("metric"));
  expect(lengthScale("metric").toApi(4.2)).toBe(42);
  for (const of of [volumeScale, massScale, heatScale]) expect(of("metric").toApi(42)).toBe(42);
  expect(plain("%").toApi(42)).toBe(42);
});
