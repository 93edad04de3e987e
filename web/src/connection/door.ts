/** Where a code that was scanned leads. */
const at = globalThis.location as Location | undefined;
const SCANNED = at?.pathname === "/let-in" && at.hash !== "";

/** Whether the kitchen lets this device in, as far as it has said; whoever scanned a code wants to be let in. */
let shut = SCANNED;
const listeners = new Set<() => void>();

function say(next: boolean) {
  if (shut === next) return;
  shut = next;
  for (const listener of listeners) listener();
}

export const door = {
  isShut: () => shut,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  /** The kitchen answered: 401 is what it says to a device that is not let in. */
  heard: (status: number) => say(status === 401),
};
