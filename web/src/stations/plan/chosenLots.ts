import { useSyncExternalStore } from "react";

/** The lots that somebody chose, once for every way to plan; `null` until then. */
let chosen: readonly number[] | null = null;
const listeners = new Set<() => void>();

export function chooseLots(ids: readonly number[] | null) {
  chosen = ids;
  listeners.forEach((listener) => listener());
}

export function useChosenLots(): readonly number[] | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    () => chosen,
  );
}
