import { describe, expect, test } from "vitest";
import type { LoadView } from "../api/client";
import { clockText } from "../writing/format";
import { figureText, saidNow, touchText, shareOver, wordsText } from "./said";

type Said = LoadView["says"];

const said = (figure: Said["figure"], words = ""): Said => ({
  figure,
  words,
  at: null,
  touches: [],
  good: null,
  mind: null,
  call: null,
  boiling: false,
  running: false,
});

const START = 1_790_000_000_000;
const counting = said({ shows: "left", since: START, ends: START + 50 * 60_000 });
const timeUp = said({ shows: "word", word: "Heat off" });

describe("a load turns over by this screen's own clock", () => {
  test.each([
    [START + 50 * 60_000 - 1, counting],
    [START + 50 * 60_000, timeUp],
    [START + 90 * 60_000, timeUp],
  ])("at %d", (now, shown) => expect(saidNow({ says: counting, then: timeUp }, now)).toBe(shown));

  test("and stays as it is when nothing follows by itself", () => {
    expect(saidNow({ says: counting, then: null }, START + 99 * 60_000)).toBe(counting);
    expect(saidNow({ says: timeUp, then: counting }, START)).toBe(timeUp);
  });
});

test("the figure is the whole time, what is left of it, or a word", () => {
  expect(figureText({ shows: "minutes", minutes: 50 }, START)).toBe("50:00");
  expect(figureText(counting.figure, START + 27 * 60_000 - 10_000)).toBe("23:10");
  expect(figureText(counting.figure, START + 51 * 60_000)).toBe("00:00");
  expect(figureText({ shows: "word", word: "Lift" }, START)).toBe("Lift");
});

test("the words name the moment they speak of", () => {
  const at = START + 55 * 60_000;
  expect(wordsText({ words: "Lift at {at}, after 5 minutes.", at })).toBe(
    `Lift at ${clockText(at)}, after 5 minutes.`,
  );
  expect(wordsText({ words: "Keep it boiling.", at: null })).toBe("Keep it boiling.");
});

test("how much is over runs from nothing to all of it, and no further", () => {
  expect(shareOver(counting.figure, START - 1)).toBe(0);
  expect(shareOver(counting.figure, START + 25 * 60_000)).toBeCloseTo(0.5, 9);
  expect(shareOver(counting.figure, START + 60 * 60_000)).toBe(1);
  expect(shareOver(timeUp.figure, START)).toBeNull();
});

describe("a touch that leaves time out", () => {
  const touch = { event: "heat_off", says: "Heat off", key: "H", look: "plain" } as const;
  test.each([
    [null, "Heat off"],
    [{ lacks: "until", ends: START + 31 * 60_000 } as const, "Heat off: 31 min missing"],
    [{ lacks: "until", ends: START + 1 } as const, "Heat off: 1 min missing"],
    [{ lacks: "until", ends: START } as const, "Heat off"],
    [{ lacks: "all", minutes: 50 } as const, "Heat off: 50 min missing"],
  ])("with %j says %s", (lacks, says) => expect(touchText({ ...touch, lacks }, START)).toBe(says));
});
