import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ask } from "../api/queries";

/**
 * The kitchen's time on this screen: the server's clock as last heard, run on by this machine's steady clock, so that
 * a wrong or stepped clock in a phone shows the right time left.
 */
export function useKitchenNow(): number {
  const { data, dataUpdatedAt } = useQuery(ask.counter());
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 250);
    return () => clearInterval(timer);
  }, []);
  const heard = data?.now;
  const [base, setBase] = useState({ heard: 0, at: 0 });
  if (heard !== undefined && heard !== base.heard) setBase({ heard, at: performance.now() });
  return data === undefined ? dataUpdatedAt : base.heard + (performance.now() - base.at) * data.pace;
}
