import { Bubbles } from "../../parts/Bubbles";

/** The kettle from the side: its level, the mark on the stick, bubbles while it boils. */
export function KettlePicture({
  depthMm,
  levelMm,
  markMm,
  boiling,
}: {
  depthMm: number;
  levelMm: number;
  /** None when the goal is a time. */
  markMm: number | null;
  boiling: boolean;
}) {
  const [top, bottom] = [26, 176];
  const y = (mm: number) => bottom - (Math.min(mm, depthMm) / depthMm) * (bottom - top);
  const level = y(levelMm);
  const mark = markMm === null ? null : y(markMm);
  const bubbles = [52, 84, 112, 148, 172]
    .map((x, place) => [x, level + 10 + (place % 3) * 12, 3 + (place % 3)] as const)
    .filter(([, y, r]) => y + r < bottom);
  return (
    <div className="relative">
      <svg
        viewBox="0 0 250 196"
        className="w-full"
        role="img"
        aria-label={`Level ${Math.round(levelMm)} mm${markMm === null ? "" : `, mark at ${Math.round(markMm)} mm`}`}
      >
        <clipPath id="kettle-inside">
          <path d={`M32 ${top}h160v140q0 10-10 10H42q-10 0-10-10z`} />
        </clipPath>
        <g clipPath="url(#kettle-inside)">
          <rect x="32" y={top} width="160" height="160" fill="#f3f8fb" />
          <rect x="32" y={level} width="160" height={bottom - level + 6} fill="#c8371f" />
        </g>
        <path
          d={`M32 ${top - 4}v144q0 12 12 12h136q12 0 12-12V${top - 4}`}
          fill="none"
          stroke="var(--color-cobalt)"
          strokeWidth="8"
          strokeLinejoin="round"
        />
        <path d={`M22 ${top - 5}h180`} stroke="#142c60" strokeWidth="7" strokeLinecap="round" />
        <path d={`M150 8v${bottom - 8}`} stroke="#a87b47" strokeWidth="7" strokeLinecap="round" />
        {mark !== null && (
          <>
            <path d={`M136 ${mark}h82`} stroke="var(--color-ink)" strokeWidth="4" />
            <path d={`M218 ${mark}l10-7v14z`} fill="var(--color-ink)" />
          </>
        )}
      </svg>
      {boiling && <Bubbles viewBox="0 0 250 196" bubbles={bubbles} fill="#e98a72" />}
    </div>
  );
}
