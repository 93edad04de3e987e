import { expect, test } from "vitest";
import { guessName } from "./guess";

test.each([
  ["Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) AppleWebKit/605.1.15 Mobile/15E148", "Phone"],
  ["Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36", "Phone"],
  ["Mozilla/5.0 (Linux; Android 15; Tab) AppleWebKit/537.36 Chrome/140.0 Safari/537.36", "Tablet"],
  ["Mozilla/5.0 (iPad; CPU OS 19_0 like Mac OS X) AppleWebKit/605.1.15 Mobile/15E148", "Tablet"],
  ["Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/140.0 Safari/537.36", "Computer"],
])("%s is a %s", (agent, name) => {
  expect(guessName(agent)).toBe(name);
});
