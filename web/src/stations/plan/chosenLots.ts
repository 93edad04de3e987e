import { useSyncExternalStore } from "react";
import { signal } from "../../base/signal";

/** The lots that somebody chose, once for every way to plan; `null` until then. */
let chosen: readonly number[] | null = null;
const changed = signal();

export function chooseLots(ids: readonly number[] | null) {
  chosen = ids;
  changed.tell();
}

export function useChosenLots(): readonly number[] | null {
  return useSyncExternalStore(changed.subscribe, () => chosen);
}
