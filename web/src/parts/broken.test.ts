import { expect, test } from "vitest";
import { brokenText } from "./broken";

test("a record that cannot be read says what stands in it", () => {
  const record = { table: "lot", id: 7, field: "picked_on", stored: "2026-02-30", choices: [] };
  expect(brokenText(record)).toBe("A lot (number 7) cannot be read: its day of picking is “2026-02-30”.");
  expect(brokenText({ ...record, table: "goal", field: "product", stored: "jam" })).toBe(
    "A line of the shelf's list (number 7) cannot be read: its product is “jam”.",
  );
  expect(brokenText({ ...record, table: "what" })).toMatch(/^A record \(number 7\)/);
});
