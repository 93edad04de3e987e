import { expect, test } from "vitest";
import { showZone } from "../writing/format";
import { waitText } from "./wait";

showZone("UTC");
const NOON = Date.UTC(2026, 8, 12, 12, 0);
const HOUR = 3_600_000;

test("today is an hour, tomorrow a day with its hour, later a day", () => {
  expect(waitText({ what: "can it", moment: NOON + 2 * HOUR }, NOON)).toBe("Can it by 14:00");
  expect(waitText({ what: "can it", moment: NOON + 24 * HOUR }, NOON)).toBe("Can it by 13 September, 12:00");
  expect(waitText({ what: "eat it", moment: NOON + 96 * HOUR }, NOON)).toBe("Eat it by 16 September 2026");
  expect(waitText({ what: "use it or freeze it", day: "2026-09-14" }, NOON)).toBe(
    "Use it or freeze it by 14 September",
  );
});
