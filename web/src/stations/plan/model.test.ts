import { describe, expect, test } from "vitest";
import type { PlanAnswer } from "../../api/client";
import {
  backText,
  COULD_ASK,
  firstWish,
  goalText,
  packsText,
  proofText,
  restText,
  roomText,
  sameGoal,
  yieldText,
} from "./model";

test("everything that the shelf can ask for has a line of its own", () => {
  const lines = COULD_ASK.map((goal) => goalText(goal));
  expect(new Set(lines).size).toBe(lines.length);
  expect(lines).toContain("pints of thin sauce");
  expect(goalText(COULD_ASK[0]!, 1)).toBe("quart of whole");
  for (const goal of COULD_ASK) expect(COULD_ASK.filter((other) => sameGoal(goal, other))).toEqual([goal]);
});

test("a proven day says so, and another how far it may be off", () => {
  expect(proofText({ status: "optimal", why: null } as never)).toBe("No shorter day is possible.");
  expect(
    proofText({ status: "feasible", why: "at most 12 min longer than the best possible" } as never),
  ).toBe("It is at most 12 min longer than the best possible.");
  expect(proofText({ status: "feasible", why: null } as never)).toBe("");
});

describe("how far a block may move", () => {
  const room = (sooner: number, later: number, begun = false) =>
    roomText({ sooner_minutes: sooner, slack_minutes: later, begun });
  test.each([
    [room(0, 0, true), "It has begun."],
    [room(0, 0), "Any delay makes the evening later."],
    [room(15, 0), "It may start 15 min sooner; any delay makes the evening later."],
    [room(0, 60), "It may start 1 h later without a later evening."],
    [room(10, 20), "It may start 10 min sooner or 20 min later without a later evening."],
  ])("%s", (said, text) => expect(said).toBe(text));
});

test("a slip goes back by as much as it is off", () => {
  expect(backText(10)).toBe("Back to plan (10 min earlier)");
  expect(backText(-30)).toBe("Back to plan (30 min later)");
});

describe("yields", () => {
  const yields = (batches: number): PlanAnswer["yields"] => ({
    published: { low: 2.5, expected: 3, high: 3.5 },
    learned: { low: 2.7, expected: 2.9, high: 3.1 },
    batches,
  });
  test("are called yours only when they are", () => {
    expect(yieldText(yields(0), "us")).toBe("by the published range");
    expect(yieldText(yields(1), "us")).toBe("published 2.5 to 3.5 lb a quart, yours 2.9 from 1 batch");
    expect(yieldText(yields(6), "metric")).toBe("published 1.2 to 1.7 kg a litre, yours 1.4 from 6 batches");
  });
});

test.each([
  [-0.2, null],
  [-0.12, "If a little fills no jar, put it in the"],
  [0, "If a little fills no jar, put it in the"],
  [0.119, "If a little fills no jar, put it in the"],
  [0.283, "Put the last 0.3 qt in the"],
])("%d L left over: %s", (left, text) => expect(restText(left, "us")).toBe(text));

test("every tested pack stands beside the preset with its minutes", () => {
  const packs = [
    { medium: "water", pack: "raw", minutes: 45 },
    { medium: "none", pack: "raw", minutes: 85 },
    { medium: "water", pack: "hot", minutes: 45 },
  ] as const;
  expect(packsText([...packs])).toBe("Raw pack: in water 45 min, no liquid 85. Hot pack: in water 45 min.");
});

test("a plan begins with what was wished for and the household's own acid", () => {
  const kitchen = { agent: "citric_acid", salt: true } as const;
  const wish = (words: string) => firstWish(new URLSearchParams(words), kitchen);
  expect(wish("")).toMatchObject({ product: "whole", medium: "water", agent: "citric_acid", salt: true });
  expect(wish("then=sauce&thickness=thick")).toMatchObject({
    product: "sauce",
    thickness: "thick",
    pack: "hot",
    jar: "pint",
  });
  expect(wish("then=whole&medium=none&pack=raw")).toMatchObject({ medium: "none", pack: "raw" });
  expect(wish("then=plums")).toMatchObject({ product: "whole" });
});
