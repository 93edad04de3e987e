import { expect, test } from "vitest";
import { asKept, isKept, KEPT_AT, stamp } from "./kept";

test("stations are kept, files and signs of life are not", () => {
  for (const path of ["/api/counter", "/api/loads", "/api/batches/3/record", "/api/kitchen"])
    expect(isKept(path), path).toBe(true);
  for (const path of [
    "/api/health",
    "/api/live",
    "/api/network",
    "/api/export.json",
    "/api/jars.csv",
    "/api/labels.pdf",
    "/canner",
  ])
    expect(isKept(path), path).toBe(false);
});

test("the clock of a kept answer has run on, at the kitchen's own pace", async () => {
  const given = Response.json({ now: 1_000_000, pace: 60, canners: [] });
  const kept = await stamp(given, 5_000);
  expect(kept.headers.get(KEPT_AT)).toBe("5000");
  const shown = await asKept(kept, 6_500);
  expect(await shown.json()).toEqual({ now: 1_090_000, pace: 60, canners: [] });
  expect(shown.headers.get(KEPT_AT)).toBe("5000");
});

test("a device whose clock was set back holds the kitchen's where it was", async () => {
  const kept = await stamp(Response.json({ now: 1_000_000, pace: 1 }), 5_000);
  expect(await (await asKept(kept, 2_000)).json()).toEqual({ now: 1_000_000, pace: 1 });
});

test("what has no clock stays as it is", async () => {
  const kept = await stamp(Response.json([{ id: 1 }]), 5_000);
  expect(await (await asKept(kept, 9_000)).json()).toEqual([{ id: 1 }]);
});
