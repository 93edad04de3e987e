import { expect, test } from "vitest";
import { brokenText } from "./broken";

test("a record that cannot be read says what stands in it", () => {
  const record = { table: "lot", id: 7, field: "picked_on", stored: "2026-02-30", choices: [] };
  expect(brokenText(record)).toBe("A lot (number 7) cannot be read: its picked on is “2026-02-30”.");
  expect(brokenText({ ...record, table: "what" })).toMatch(/^A record \(number 7\)/);
});
