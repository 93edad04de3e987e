import type { JarStep, LoadView } from "../../api/client";

export type Jar = LoadView["jars"][number];

/** The steps of a jar in working order: what is said of it once done, and what does it for all at once. */
export const STEPS: readonly { step: JarStep; done: string; all: string; word: string; key: string }[] = [
  { step: "acid", done: "acid in", all: "All acid in", word: "Acid", key: "A" },
  { step: "salt", done: "salt in", all: "All salted", word: "Salt", key: "S" },
  { step: "filled", done: "filled", all: "All filled", word: "Food", key: "F" },
  { step: "bubbles", done: "bubbles out", all: "All bubbles out", word: "Bubbles", key: "B" },
  { step: "rim", done: "rim wiped", all: "All rims wiped", word: "Rim", key: "R" },
  { step: "lid", done: "lid on", all: "All lids on", word: "Lid", key: "L" },
];

/** Steps that these jars take: salt only where somebody wants it. */
export function stepsOf(jars: readonly Jar[]) {
  return STEPS.filter(({ step }) => step !== "salt" || jars.some((jar) => jar.wants_salt));
}

/** One touch does the next thing; touching a finished jar takes the last thing back. */
export function nextStep(jar: Jar): { step: JarStep; done: boolean } {
  const next = stepsOf([jar]).find(({ step }) => !jar[step]);
  return next === undefined ? { step: "lid", done: false } : { step: next.step, done: true };
}

/** What was done to a jar last. */
export function stateOf(jar: Jar): string {
  return (
    stepsOf([jar])
      .filter(({ step }) => jar[step])
      .at(-1)?.done ?? "needs acid"
  );
}
