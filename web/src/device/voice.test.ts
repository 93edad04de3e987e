import { expect, test } from "vitest";
import { spoken } from "./voice";

test.each([
  ["22:49 left at a full rolling boil", "22 minutes 49 left at a full rolling boil"],
  ["1:02:45 left", "1 hours 02 minutes left"],
  ["2 Tbsp into each quart, ½ tsp", "2 tablespoons into each quart,  one half teaspoons"],
  ["50 min at 2,640 ft", "50 minutes at 2,640 feet"],
  ["by 18:17", "by 18:17"],
])("%s is said as %s", (shown, said) => {
  expect(spoken(shown)).toBe(said);
});
