import { useEffect } from "react";

/** Keeps the screen lit while a clock runs; browsers that cannot are left as they are. */
export function useScreenAwake(running: boolean) {
  useEffect(() => {
    if (!running || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        lock = await navigator.wakeLock.request("screen");
        if (over) await lock.release();
      } catch {
        // Refused, for instance on a low battery; the clock runs on all the same.
      }
    };
    const seen = () => void hold();
    seen();
    document.addEventListener("visibilitychange", seen);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", seen);
      void lock?.release();
    };
  }, [running]);
}
