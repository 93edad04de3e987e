import { useEffect, useRef, type PointerEvent } from "react";

/** How long a finger rests before its touch begins to repeat, and how fast it does. */
const REST_MS = 450;
const AGAIN_MS = 90;

/** Does something once for a touch, and again and again while the finger stays. */
export function useHold(onPress: (() => void) | undefined) {
  const latest = useRef(onPress);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const repeated = useRef(false);
  useEffect(() => {
    latest.current = onPress;
  });
  const stop = () => clearTimeout(timer.current);
  useEffect(() => stop, []);
  const again = () => {
    repeated.current = true;
    latest.current?.();
    timer.current = setTimeout(again, AGAIN_MS);
  };
  return {
    onPointerDown: (event: PointerEvent) => {
      repeated.current = false;
      if (event.button === 0) timer.current = setTimeout(again, REST_MS);
    },
    onPointerUp: stop,
    onPointerLeave: stop,
    onPointerCancel: stop,
    onClick: () => {
      // The click that ends a long touch has been counted already.
      if (!repeated.current) latest.current?.();
      repeated.current = false;
    },
  };
}
