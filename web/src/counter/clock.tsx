import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ask } from "../api/queries";

/** How often the screen looks at its own clock. */
const GLANCE_MS = 250;

/**
 * The kitchen's time on this screen: the server's clock as last heard, run on by this machine's steady clock, so that
 * a wrong or stepped clock in a phone shows the right time left.
 */
export function useKitchenNow(): number {
  const { data, dataUpdatedAt } = useQuery(ask.counter());
  const heard = data?.now;
  const pace = data?.pace ?? 1;
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    if (heard === undefined) return;
    const from = performance.now();
    const run = () => setNow(heard + (performance.now() - from) * pace);
    run();
    const timer = setInterval(run, GLANCE_MS);
    return () => clearInterval(timer);
  }, [heard, pace]);
  return now ?? heard ?? dataUpdatedAt;
}
