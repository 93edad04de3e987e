import type { BrokenRecord } from "../api/client";

const RECORD: Record<string, string> = {
  lot: "A lot",
  batch: "A batch",
  canner: "A canner",
  jar: "A jar",
  load_event: "A line of a canner's log",
  kettle: "A kettle",
  cook: "A cook-down",
  cook_event: "A line of a kettle's log",
  goal: "A line of the shelf's list",
};

const FIELD: Record<string, string> = {
  picked_on: "day of picking",
  back_on: "day on the sill",
  gone_how: "way it left",
  gone_why: "reason it left",
};

/** What cannot be read, in words. */
export function brokenText({ table, id, field, stored }: BrokenRecord): string {
  const what = RECORD[table] ?? "A record";
  return `${what} (number ${id}) cannot be read: its ${FIELD[field] ?? field} is “${stored}”.`;
}
