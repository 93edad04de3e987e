import type { LoadView } from "../api/client";
import { jarsText } from "./format";

/** A jar in the canner; places are in units of the canner's inner radius. */
export interface Standing {
  label: number;
  place: LoadView["standing"][number];
  gone: boolean;
}

const R = 96;

/** The canner from above, its jars standing where they fit. */
export function CannerPicture({ jars, boiling }: { jars: readonly Standing[]; boiling: boolean }) {
  return (
    <svg
      viewBox="-106 -106 212 212"
      className="h-full w-full"
      role="img"
      aria-label={`${jarsText(jars.length)} in the canner`}
    >
      <circle r="100" fill="#bfdced" stroke="#1d3d80" strokeWidth="9" />
      {boiling &&
        [0, 1, 2, 3, 4, 5, 6, 7].map((spot) => (
          <circle
            key={spot}
            className="steam"
            style={{ animationDelay: `${spot * 0.3}s` }}
            cx={84 * Math.cos(spot * 2.4)}
            cy={84 * Math.sin(spot * 2.4)}
            r={3 + (spot % 3)}
            fill="white"
          />
        ))}
      {jars.map(({ label, place, gone }, index) => {
        const r = place.r * R;
        return (
          <g key={index} transform={`translate(${place.x * R} ${place.y * R})`} opacity={gone ? 0.6 : 1}>
            <circle r={r - 1} fill="#bd9138" stroke="#16213f" strokeWidth="2" />
            <circle r={r - 5} fill={gone ? "#f3f8fb" : "#ecd08a"} stroke="#a87d2a" strokeWidth="1.5" />
            <text y="6" textAnchor="middle" fontSize="18" fontWeight="700" fill="#16213f">
              {label}
            </text>
            {gone && (
              <path d={`M${-r * 0.6} ${-r * 0.6}L${r * 0.6} ${r * 0.6}`} stroke="#8f2413" strokeWidth="4" />
            )}
          </g>
        );
      })}
    </svg>
  );
}
