import { describe, expect, test } from "vitest";
import { showWays, usualWays } from "../writing/ways";
import * as v from "valibot";
import { BOUNDS } from "../api/bounds.generated";
import { Refused, type Problem } from "../api/client";
import { boundsOf, fieldOf, named, number, optionalNumber, type Bound } from "./fields";
import { heatScale, heightScale, massScale, plain } from "../writing/units";

const message = (schema: v.GenericSchema<string, unknown>, typed: string) => {
  const read = v.safeParse(schema, typed);
  return read.success ? null : read.issues[0].message;
};

describe("every bound of the API holds in the form, just below, at and just above", () => {
  test.each(Object.entries(BOUNDS))("%s", (name, { least, most }) => {
    const schema = number(name as Bound);
    expect(least).toBeLessThan(most);
    for (const good of [least, most, (least + most) / 2])
      expect(v.parse(schema, String(good))).toBeCloseTo(good, 9);
    for (const bad of [least - 0.001, most + 0.001])
      expect(message(schema, String(bad))).toBe(`Give ${least} to ${most}`);
  });
});

describe("a number of a form", () => {
  const schema = number("YieldRequest.weight_kg", massScale("us"));

  test("is sent in the unit of the API and checked in the one that is typed", () => {
    expect(v.parse(schema, "30")).toBeCloseTo(13.608, 3);
    expect(message(schema, "0")).toBe("Give 0.022 to 11023.113 lb");
  });

  test("says what would do when it is none", () => {
    for (const typed of ["", "a lot", "1e9"])
      expect(message(schema, typed)).toBe("Give a number, such as 12.5");
  });

  test("may be left out where that is meant, and only there", () => {
    const optional = optionalNumber("CannerChangeRequest.power_w");
    expect(v.parse(optional, "")).toBeUndefined();
    expect(v.parse(optional, "2400")).toBe(2400);
    expect(v.safeParse(optional, "49").success).toBe(false);
  });

  test("has its bounds the right way round in Fahrenheit and in metres", () => {
    const heat = boundsOf("ReadingRequest.temp_c", heatScale());
    expect([heat.least, heat.most]).toEqual([33.8, 266]);
    showWays(usualWays("metric"));
    const height = boundsOf("KitchenRequest.altitude_ft", heightScale());
    expect(height.least).toBeCloseTo(-609.6, 6);
    showWays(usualWays("us"));
    expect(boundsOf("PhRequest.ph", plain())).toEqual({ least: 0, most: 14 });
  });
});

test("a name has 1 to 80 letters, and the space around it does not count", () => {
  expect(v.parse(named, "  green bucket ")).toBe("green bucket");
  expect(v.safeParse(named, "   ").success).toBe(false);
  expect(v.safeParse(named, "x".repeat(80)).success).toBe(true);
  expect(v.safeParse(named, "x".repeat(81)).success).toBe(false);
});

test("a refusal is drawn beside its field, and elsewhere when the form has none of that name", () => {
  const problem = (field: string | null): Problem => ({
    type: "urn:bodega:problem:bad_field",
    title: "",
    status: 422,
    detail: "weight is 0 kg; give a number from 0.01 to 5000 kg",
    code: "bad_field",
    field,
  });
  const fields = { "amount.weighed.value": "amount" } as const;
  expect(fieldOf(new Refused(problem("amount.weighed.value")), fields)).toBe("amount");
  expect(fieldOf(new Refused(problem("kind")), fields)).toBeNull();
  expect(fieldOf(new Refused(problem(null)), fields)).toBeNull();
  expect(fieldOf(new Error("no connection"), fields)).toBeNull();
  expect(fieldOf(null, fields)).toBeNull();
});
