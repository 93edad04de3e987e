/** Says that something outside React has changed, to whoever listens through `useSyncExternalStore`. */
export function signal() {
  const listeners = new Set<() => void>();
  return {
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    tell: () => listeners.forEach((listener) => listener()),
  };
}
