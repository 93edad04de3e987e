import { useSyncExternalStore, type ReactNode } from "react";
import { door } from "./door";
import { LetIn } from "./LetIn";

/** The kitchen, for a device that is let in; what it takes to be, for others. */
export function Door({ children }: { children: ReactNode }) {
  const shut = useSyncExternalStore(door.subscribe, door.isShut);
  return shut ? <LetIn /> : children;
}
