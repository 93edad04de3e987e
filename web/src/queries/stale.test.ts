import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, test } from "vitest";
import { askAgain } from "./stale";

/** A question that is answered when the test says so. */
function slowly(client: QueryClient, key: string) {
  const answers: ((value: string) => void)[] = [];
  const observer = new QueryObserver(client, {
    queryKey: [key],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
    retry: false,
  });
  observer.subscribe(() => {});
  return { answers, said: () => observer.getCurrentResult().data };
}

test("a first answer that was on its way when something changed does not count", async () => {
  const client = new QueryClient();
  const split = slowly(client, "plan");
  const other = slowly(client, "jars");
  const asked = askAgain(client, ["goals", "plan"]);
  await expect.poll(() => split.answers.length).toBe(2);
  split.answers[0]?.("of before");
  split.answers[1]?.("of now");
  await asked;
  expect(split.said()).toBe("of now");
  // What did not change is asked once.
  other.answers[0]?.("the same");
  await expect.poll(other.said).toBe("the same");
  expect(other.answers.length).toBe(1);
});

test("what has an answer keeps it until the new one is there", async () => {
  const client = new QueryClient();
  const day = slowly(client, "day");
  day.answers[0]?.("of before");
  await expect.poll(day.said).toBe("of before");
  const asked = askAgain(client, null);
  await expect.poll(() => day.answers.length).toBe(2);
  expect(day.said()).toBe("of before");
  day.answers[1]?.("of now");
  await asked;
  expect(day.said()).toBe("of now");
});
