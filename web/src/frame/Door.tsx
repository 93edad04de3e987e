import { lazy, Suspense, useSyncExternalStore, type ReactNode } from "react";
import { door } from "../connection/door";

/** Loaded where somebody stands before it. */
const LetIn = lazy(async () => ({ default: (await import("./LetIn")).LetIn }));

/** The kitchen, for a device that is let in; what it takes to be, for others. */
export function Door({ children }: { children: ReactNode }) {
  const shut = useSyncExternalStore(door.subscribe, door.isShut);
  if (!shut) return children;
  return (
    <Suspense>
      <LetIn />
    </Suspense>
  );
}
