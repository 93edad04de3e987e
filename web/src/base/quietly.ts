/**
 * Does something that a browser may refuse, or not know at all, as sound, notices and a lit screen are: whatever it throws,
 * at once or later, takes nothing else down.
 */
export function quietly(what: () => unknown): void {
  try {
    const done = what();
    if (done instanceof Promise) done.catch(() => undefined);
  } catch {
    // The clock and the touches go on without it.
  }
}
