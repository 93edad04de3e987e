import { useCallback, useRef, useSyncExternalStore } from "react";
import { signal } from "./signal";

export const SECOND = 1000;
/** How often the page looks at its clock at most, and how often where the kitchen's runs faster than the wall's. */
const GLANCE_MS = 250;

/** The server's clock as last heard, and where this machine's steady one stood then. */
let heard: { now: number; at: number; pace: number } | null = null;
let timer: number | undefined;
/** The second that is shown; the same for all that is drawn until the next look. */
let shown = Date.now();
const glance = signal();

/**
 * The kitchen's time on this page: the server's clock as last heard, run on by this machine's steady clock, so that a
 * wrong or stepped clock in a phone shows the right time left.
 */
function kitchenNow(): number {
  return heard === null ? Date.now() : heard.now + (performance.now() - heard.at) * heard.pace;
}

/** Looks again when the next whole second of the kitchen begins: one look for all that is drawn. */
function lookAgain() {
  clearTimeout(timer);
  shown = Math.floor(kitchenNow() / SECOND) * SECOND;
  glance.tell();
  const pace = heard?.pace ?? 1;
  const left = (SECOND - (kitchenNow() % SECOND)) / pace;
  timer = window.setTimeout(lookAgain, Math.max(left + 1, pace === 1 ? 1 : GLANCE_MS));
}

/** Takes over the clock of the server. */
export function tellTime(now: number, pace: number) {
  heard = { now, at: performance.now(), pace };
  lookAgain();
}

/** Calls somebody at every look. */
export const glances = glance.subscribe;

/** The second that is shown. */
export const shownNow = () => shown;

/** The kitchen's time in whole steps: whoever shows minutes is drawn once a minute. */
export function useKitchenNow(step: number = SECOND): number {
  return useSyncExternalStore(glances, () => Math.floor(shown / step) * step);
}

/** What is to be said at this second; drawn only when that is something else than before. */
export function useAtMoment<T>(of: (now: number) => T): T {
  const last = useRef<{ text: string; value: T } | null>(null);
  const read = useCallback(() => {
    const value = of(shown);
    const text = JSON.stringify(value);
    if (last.current === null || last.current.text !== text) last.current = { text, value };
    return last.current.value;
  }, [of]);
  return useSyncExternalStore(glances, read);
}
