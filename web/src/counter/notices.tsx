import { Toast } from "radix-ui";
import { createContext, useContext, useMemo, useState, type ReactNode } from "react";

interface Notice {
  id: number;
  text: string;
  undo: (() => void) | undefined;
}

type Say = (text: string, undo?: () => void) => void;

const SayContext = createContext<Say>(() => undefined);

/** Says what was done, with one touch to take it back. */
export const useSay = () => useContext(SayContext);

/** Long enough to dry a hand and come back to the screen. */
const SHOWN_MS = 12_000;

export function Notices({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const say = useMemo<Say>(() => (text, undo) => setNotice({ id: Date.now(), text, undo }), []);
  return (
    <SayContext.Provider value={say}>
      <Toast.Provider duration={SHOWN_MS} swipeDirection="right">
        {children}
        {notice !== null && (
          <Toast.Root
            key={notice.id}
            onOpenChange={(open) => !open && setNotice(null)}
            className="flex items-center gap-4 rounded-2xl border-[3px] border-ink bg-ink py-2 pr-2 pl-5 text-white shadow-xl"
          >
            <Toast.Description className="text-lg">{notice.text}</Toast.Description>
            {notice.undo !== undefined && (
              <Toast.Action asChild altText="Take it back">
                <button
                  type="button"
                  onClick={notice.undo}
                  className="min-h-[48px] rounded-xl bg-white px-5 font-semibold text-ink"
                >
                  Undo
                </button>
              </Toast.Action>
            )}
            <Toast.Close aria-label="Close" className="size-12 text-xl">
              ✕
            </Toast.Close>
          </Toast.Root>
        )}
        {/* On a phone the big touches are at the bottom, so it lies over the line instead. */}
        <Toast.Viewport className="fixed top-2 left-1/2 z-30 w-max max-w-[calc(100vw-1rem)] -translate-x-1/2 outline-none sm:top-auto sm:bottom-4" />
      </Toast.Provider>
    </SayContext.Provider>
  );
}
