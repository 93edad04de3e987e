import { expect, test } from "vitest";
import { quietly } from "./quietly";

test("what a browser refuses, at once or later, takes nothing down", async () => {
  const done: string[] = [];
  quietly(() => {
    done.push("at once");
    throw new TypeError("not a constructor");
  });
  quietly(() => Promise.reject(new Error("not allowed")));
  quietly(() => done.push("well"));
  await new Promise((later) => setTimeout(later, 0));
  expect(done).toEqual(["at once", "well"]);
});
