import type { ReactNode } from "react";
import { Link } from "react-router";

/** A way to another page, as large as a touch. */
export function Way({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link
      to={to}
      className="inline-grid min-h-[52px] place-items-center rounded-2xl border-[3px] border-cobalt bg-porcelain px-5 text-center leading-tight font-semibold hover:bg-cobalt-wash"
    >
      {children}
    </Link>
  );
}

/** A station where nothing is yet: what comes here, and the way to it. */
export function Empty({ to, way, children }: { to: string; way: string; children: ReactNode }) {
  return (
    <div className="grid justify-items-start gap-4">
      <p className="text-lg text-muted">{children}</p>
      <Way to={to}>{way}</Way>
    </div>
  );
}
