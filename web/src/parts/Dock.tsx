import type { ReactNode } from "react";

/** The main touch of a station: at the lower edge of the screen until its own place comes into sight. */
export function Dock({ children }: { children: ReactNode }) {
  return (
    <div data-main className="sticky bottom-0 z-10 -mx-2 rounded-t-2xl bg-porcelain px-2 py-2 print:hidden">
      {children}
    </div>
  );
}
