import { afterEach, beforeEach, expect, test, vi } from "vitest";

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers({ now: 1_790_000_000_000, toFake: ["Date", "performance", "setTimeout", "clearTimeout"] });
  vi.stubGlobal("window", globalThis);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const started = async () => await import("./clock");

test("a page looks once for each second of the kitchen, whoever listens", async () => {
  const { tellTime, glances, shownNow } = await started();
  const looks: number[] = [];
  glances(() => looks.push(shownNow()));
  tellTime(1_800_000_000_400, 1);
  vi.advanceTimersByTime(3_000);
  expect(looks).toEqual([0, 1000, 2000, 3000].map((ms) => 1_800_000_000_000 + ms));
});

test("where the kitchen's clock runs fast the page looks four times a second at most", async () => {
  const { tellTime, glances } = await started();
  let looks = 0;
  glances(() => looks++);
  tellTime(1_800_000_000_000, 3000);
  vi.advanceTimersByTime(1_000);
  expect(looks).toBe(5);
});

test("a clock of this machine that is set meanwhile changes nothing", async () => {
  const { tellTime, shownNow } = await started();
  tellTime(1_800_000_000_000, 1);
  vi.setSystemTime(0);
  vi.advanceTimersByTime(1_001);
  expect(shownNow()).toBe(1_800_000_001_000);
});
