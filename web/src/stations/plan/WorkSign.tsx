import type { Work } from "../../api/client";

/** One stroke drawing for each kind of work, on a field of 20 by 20. */
const PATHS: Record<Work, string> = {
  // A drop.
  wash: "M10 2.5c3.2 4 5.2 6.8 5.2 9.4a5.2 5.2 0 0 1-10.4 0c0-2.6 2-5.4 5.2-9.4z",
  // A fruit with its cross.
  core: "M10 3.5a6.5 6.5 0 1 0 0 13 6.5 6.5 0 0 0 0-13zM7.5 7.5l5 5M12.5 7.5l-5 5",
  // Fruit going under.
  blanch: "M2.5 12c1.9-1.8 3.1-1.8 5 0s3.1 1.8 5 0 3.1-1.8 5 0M10 2.5v6M7 6l3 3 3-3M3 17h14",
  // A curl of skin.
  peel: "M15 4.5A7 7 0 1 0 16.5 12M15 4.5c2.5 1 2.5 4 .5 4.5s-3-1-2-2.5",
  // A knife on its board.
  chop: "M2.5 16.5h15M3.5 12.5 14 2.5c2 1 2.5 3 1.5 4.5l-5.5 5.5z",
  // A funnel with its crank.
  mill: "M3 5h12l-4 6v5H7v-5zM15 5l3-2.5",
  // A flake.
  chill: "M10 2v16M3 6l14 8M17 6 3 14",
  // A flame.
  cook: "M10 2.5c.5 3.5 5 5.5 5 10a5 5 0 0 1-10 0c0-2 1-3.5 2-4.5.5 1.5 1.5 2 2 2 .8-2.5.2-5 1-7.5z",
  // A pot on its burner.
  heat: "M3 7h14M5 7v6a1.5 1.5 0 0 0 1.5 1.5h7A1.5 1.5 0 0 0 15 13V7M6 17.5h8",
  // A jar.
  fill: "M6 3h8v2.5l1.5 2V16a1.5 1.5 0 0 1-1.5 1.5H6A1.5 1.5 0 0 1 4.5 16V7.5l1.5-2zM4.5 11h11",
  // A pot that boils.
  load: "M2.5 9.5h15M4.5 9.5V15a2 2 0 0 0 2 2h7a2 2 0 0 0 2-2V9.5M7 2.5c-1.2 1.4 1.2 2.4 0 4M12.5 2.5c-1.2 1.4 1.2 2.4 0 4",
  // Straight up.
  lift: "M10 16.5V4M5 8.5 10 3.5l5 5M5 17h10",
  // A cup.
  pause: "M4 7h10v5a4 4 0 0 1-4 4H8a4 4 0 0 1-4-4zM14 8.5h1.5a2 2 0 0 1 0 4H14M7 4V2.5M11 4V2.5",
};

/** A small sign for a kind of work, where there is no room for its words or beside them. */
export function WorkSign({ work, className = "" }: { work: Work; className?: string }) {
  return (
    <svg viewBox="0 0 20 20" className={`shrink-0 ${className}`} aria-hidden="true">
      <path
        d={PATHS[work]}
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
