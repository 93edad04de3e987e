import { signal } from "../base/signal";

/** Whether this device can open the kitchen without it, as far as is known. */
export type Offline = "unknown" | "kept" | "not trusted" | "not here";

let state: Offline = "unknown";
const changed = signal();

export const offline = {
  now: (): Offline => state,
  subscribe: changed.subscribe,
};

function say(next: Offline) {
  state = next;
  changed.tell();
}

/** Lets the browser keep the shell and the last known state. */
export async function register(): Promise<void> {
  if (!("serviceWorker" in navigator)) return say("not here");
  try {
    await navigator.serviceWorker.register("/sw.js");
    say("kept");
  } catch {
    // A browser that does not trust the certificate shows pages and keeps none.
    say("not trusted");
  }
}
