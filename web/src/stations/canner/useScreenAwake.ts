import { useEffect } from "react";
import { quietly } from "../../parts/quietly";

/** Keeps the screen lit while a clock runs; browsers that cannot, or will not, are left as they are. */
export function useScreenAwake(running: boolean) {
  useEffect(() => {
    if (!running) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const release = () => quietly(() => lock?.release());
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      lock = await navigator.wakeLock.request("screen");
      if (over) release();
    };
    const seen = () => quietly(hold);
    seen();
    document.addEventListener("visibilitychange", seen);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", seen);
      release();
    };
  }, [running]);
}
