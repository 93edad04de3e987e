import { signal } from "../base/signal";

/** Where a code that was scanned leads. */
const at = globalThis.location as Location | undefined;
const SCANNED = at?.pathname === "/let-in" && at.hash !== "";

/** Whether the kitchen lets this device in, as far as it has said; whoever scanned a code wants to be let in. */
let shut = SCANNED;
const changed = signal();

function say(next: boolean) {
  if (shut === next) return;
  shut = next;
  changed.tell();
}

export const door = {
  isShut: () => shut,
  subscribe: changed.subscribe,
  /** The kitchen answered: 401 is what it says to a device that is not let in. */
  heard: (status: number) => say(status === 401),
};
