import { describe, expect, test } from "vitest";
import { Keep, type Sent, type Touched } from "./keep";

const touch = (path: string) => ({ method: "POST", path, body: null });

function keeper() {
  let time = 0;
  const keep = new Keep(() => time);
  return { keep, pass: (ms: number) => (time += ms) };
}

describe("touches while Bodega does not answer", () => {
  test("wait in their order and are sent with their age", async () => {
    const { keep, pass } = keeper();
    keep.add(touch("/boils"));
    pass(60_000);
    keep.add(touch("/lost"));
    pass(5_000);
    expect(keep.now().connected).toBe(false);
    const sent: [string, number][] = [];
    const arrived = await keep.send((touched, age) => {
      sent.push([touched.path, age]);
      return Promise.resolve<Sent>({ is: "arrived" });
    });
    expect(arrived).toBe(2);
    expect(sent).toEqual([
      ["/boils", 65_000],
      ["/lost", 5_000],
    ]);
    expect(keep.now().waiting).toEqual([]);
  });

  test("are not lost when the connection goes again half way", async () => {
    const { keep } = keeper();
    for (const path of ["/a", "/b", "/c"]) keep.add(touch(path));
    const by = (touched: Touched) =>
      Promise.resolve<Sent>(touched.path === "/b" ? { is: "lost" } : { is: "arrived" });
    expect(await keep.send(by)).toBe(1);
    expect(keep.now().waiting.map((item) => item.path)).toEqual(["/b", "/c"]);
    expect(keep.now().connected).toBe(false);
  });

  test("that are refused on arrival are shown, and the others still go", async () => {
    const { keep } = keeper();
    for (const path of ["/a", "/b"]) keep.add(touch(path));
    await keep.send((touched) =>
      Promise.resolve<Sent>(touched.path === "/a" ? { is: "refused", words: "no" } : { is: "arrived" }),
    );
    expect(keep.now().waiting).toEqual([]);
    expect(keep.now().late.map((late) => [late.touched.path, late.words])).toEqual([["/a", "no"]]);
    keep.seen();
    expect(keep.now().late).toEqual([]);
  });

  test("are sent once, however often it is asked", async () => {
    const { keep } = keeper();
    keep.add(touch("/a"));
    let times = 0;
    const by = async (): Promise<Sent> => {
      times += 1;
      await Promise.resolve();
      return { is: "arrived" };
    };
    await Promise.all([keep.send(by), keep.send(by)]);
    expect(times).toBe(1);
  });

  test("tell whoever listens, and only of a change", () => {
    const { keep } = keeper();
    let heard = 0;
    const leave = keep.subscribe(() => (heard += 1));
    keep.heard(true);
    expect(heard).toBe(0);
    keep.heard(false);
    keep.add(touch("/a"));
    leave();
    keep.heard(true);
    expect(heard).toBe(2);
  });
});
