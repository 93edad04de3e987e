import type { LoadView } from "../api/client";
import { Bubbles } from "./Bubbles";
import { jarsText } from "../writing/format";

/** A jar in the canner; places are in units of the canner's inner radius. */
export interface Standing {
  /** Its number, after the letter of its batch when there are several; jars of something else have none. */
  label: string | null;
  place: LoadView["standing"][number];
  gone: boolean;
}

const R = 96;

/** Around the wall, between the jars. */
const BUBBLES = [0, 1, 2, 3, 4, 5, 6, 7].map(
  (spot) => [84 * Math.cos(spot * 2.4), 84 * Math.sin(spot * 2.4), 3 + (spot % 3)] as const,
);

/** The canner from above, its jars standing where they fit; nothing where no place was found for them. */
export function CannerPicture({
  jars,
  stretch,
  boiling,
}: {
  jars: readonly Standing[];
  stretch: number;
  boiling: boolean;
}) {
  if (jars.length === 0) return null;
  const half = 100 * stretch;
  const viewBox = `${-half - 6} -106 ${2 * half + 12} 212`;
  return (
    <div className="relative h-full w-full">
      <svg viewBox={viewBox} className="h-full w-full" aria-hidden="true">
        <rect
          x={-half}
          y="-100"
          width={2 * half}
          height="200"
          rx="100"
          fill="#bfdced"
          stroke="var(--color-cobalt)"
          strokeWidth="9"
        />
      </svg>
      {boiling && <Bubbles viewBox={viewBox} bubbles={BUBBLES} fill="white" />}
      <svg
        viewBox={viewBox}
        className="absolute inset-0 h-full w-full"
        role="img"
        aria-label={`${jarsText(jars.length)} in the canner`}
      >
        {jars.map(({ label, place, gone }, index) => {
          const r = place.r * R;
          return (
            <g key={index} transform={`translate(${place.x * R} ${place.y * R})`} opacity={gone ? 0.6 : 1}>
              <circle r={r - 1} fill="#bd9138" stroke="var(--color-ink)" strokeWidth="2" />
              <circle
                r={r - 5}
                fill={gone || label === null ? "#f3f8fb" : "#ecd08a"}
                stroke="#a87d2a"
                strokeWidth="1.5"
              />
              <text y="6" textAnchor="middle" fontSize="18" fontWeight="700" fill="var(--color-night)">
                {label}
              </text>
              {gone && (
                <path d={`M${-r * 0.6} ${-r * 0.6}L${r * 0.6} ${r * 0.6}`} stroke="#8f2413" strokeWidth="4" />
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
