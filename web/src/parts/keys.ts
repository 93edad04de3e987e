import { useEffect, useRef } from "react";

/** One key, one touch; keys typed into a field, with a modifier or held down are left alone. */
export function useKeys(keys: Record<string, () => void>) {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const field = event.target instanceof HTMLElement && event.target.closest("input, select, textarea");
      if (field || event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      latest.current[event.key.toLowerCase()]?.();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
