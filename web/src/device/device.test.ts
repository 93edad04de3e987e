import { expect, test } from "vitest";
import { readDevice } from "./device";

test("a screen that nobody set is light, quiet, and works by keys", () => {
  expect(readDevice(null)).toEqual({
    look: "light",
    figures: "usual",
    voice: false,
    keys: true,
    practice: false,
    sound: false,
  });
});

test("what was kept is kept, and what cannot be read is as at first", () => {
  expect(readDevice('{"look":"dark","figures":"enormous","keys":false}')).toMatchObject({
    look: "dark",
    figures: "usual",
    keys: false,
  });
  expect(readDevice("not a record")).toMatchObject({ look: "light" });
});
