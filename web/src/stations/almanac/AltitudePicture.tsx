import { scaleLinear } from "d3-scale";
import { altitudeText } from "../../writing/format";

const INK = "var(--color-ink)";
/** Edges of the bands in feet, drawn as contour lines. */
const EDGES = [1000, 3000, 6000];
const TOP_FT = 10_000;
const GROUND = 172;
const PEAK = 22;

const heightOf = scaleLinear([0, TOP_FT], [GROUND, PEAK]).clamp(true);
/** The left slope runs straight from the ground to the peak. */
const slope = scaleLinear([GROUND, PEAK], [24, 180]);

/** A mountain with the bands of the table on it, and the kitchen where it stands. */
export function AltitudePicture({ feet }: { feet: number }) {
  const y = heightOf(feet);
  const x = slope(y);
  return (
    <svg
      viewBox="0 0 320 184"
      className="w-full max-w-[19rem]"
      stroke={INK}
      strokeWidth="2.2"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <path d={`M24 ${GROUND} 180 ${PEAK}l34 44 20-14 66 120z`} fill="var(--color-cloth)" />
      <path d={`M180 ${PEAK}l-30 29 14-3 10 9 14-8 16 6z`} fill="#fff" />
      {EDGES.map((edge) => (
        <g key={edge}>
          <path d={`M4 ${heightOf(edge)}H300`} strokeWidth="1.2" strokeDasharray="5 5" />
          <text x="4" y={heightOf(edge) - 5} fontSize="12" fill="var(--color-muted)" stroke="none">
            {altitudeText(edge)}
          </text>
        </g>
      ))}
      <path d={`M2 ${GROUND}h316`} strokeWidth="3.5" strokeLinecap="round" />
      <g transform={`translate(${x} ${y})`}>
        <path d="M-11 0v-12L0 -22l11 10V0z" fill="#c8371f" />
        <path d="M-3 0v-8h6v8" fill="#fff" />
      </g>
    </svg>
  );
}
