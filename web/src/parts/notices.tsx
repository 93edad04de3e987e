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

const IsSaidContext = createContext(false);

/** The place where notices are said: room that is always kept for them, so that they never lie over anything. */
export function NoticePlace({ children }: { children: ReactNode }) {
  const isSaid = useContext(IsSaidContext);
  return (
    <div className="flex min-h-[56px] min-w-0 grow items-center">
      <Toast.Viewport className={isSaid ? "w-full outline-none" : "hidden"} />
      {!isSaid && children}
    </div>
  );
}

/** Long enough to dry a hand and come back to the screen. */
const SHOWN_MS = 12_000;

export function Notices({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const say = useMemo<Say>(() => (text, undo) => setNotice({ id: Date.now(), text, undo }), []);
  return (
    <SayContext.Provider value={say}>
      <Toast.Provider duration={SHOWN_MS} swipeDirection="right">
        {notice !== null && (
          <Toast.Root
            key={notice.id}
            onOpenChange={(open) => !open && setNotice(null)}
            className="flex min-h-[56px] w-full items-center gap-2 rounded-2xl bg-ink py-1 pr-1 pl-4 text-porcelain"
          >
            <Toast.Description className="grow leading-tight font-semibold">{notice.text}</Toast.Description>
            {notice.undo !== undefined && (
              <Toast.Action asChild altText="Take it back">
                <button
                  type="button"
                  onClick={notice.undo}
                  className="min-h-[48px] rounded-xl bg-porcelain px-5 font-semibold text-ink"
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
        <IsSaidContext.Provider value={notice !== null}>{children}</IsSaidContext.Provider>
      </Toast.Provider>
    </SayContext.Provider>
  );
}
