import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import type { CookView } from "../../api/client";
import { clockText } from "../../parts/format";

const [WIDE, HIGH, LEFT, TOP] = [460, 150, 8, 10];
/** Where the hours stand, below the curve. */
const FLOOR = HIGH - 24;

/** Level over time: what was, what is expected, and the hours in which the mark is likely reached. */
export function Curve({ cook, now }: { cook: CookView; now: number }) {
  const start = cook.started_at;
  const end = Math.max(cook.finish_high, now);
  const most = Math.max(...cook.curve.map((point) => point.volume_l));
  const x = scaleTime([start, end], [LEFT, WIDE - LEFT]);
  const y = scaleLinear([0, most], [FLOOR - 2, TOP]);
  const path = line<CookView["curve"][number]>(
    (point) => x(point.at),
    (point) => y(point.volume_l),
  );
  const past = cook.curve.filter((point) => point.at <= now);
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="w-full" aria-hidden="true">
      <rect
        x={x(cook.finish_low)}
        y={TOP}
        width={Math.max(2, x(cook.finish_high) - x(cook.finish_low))}
        height={FLOOR - TOP}
        fill="#fbf3de"
      />
      <path
        d={`M${LEFT} ${y(cook.target_l)}H${WIDE - LEFT}`}
        stroke="#16213f"
        strokeWidth="1.6"
        strokeDasharray="6 5"
      />
      <path d={path(cook.curve) ?? ""} fill="none" stroke="#c8371f" strokeWidth="2.5" strokeDasharray="3 6" />
      <path d={path(past) ?? ""} fill="none" stroke="#c8371f" strokeWidth="4" />
      <path d={`M${x(now)} ${TOP}V${FLOOR}`} stroke="#1d3d80" strokeWidth="2" />
      <path d={`M${LEFT} ${FLOOR}H${WIDE - LEFT}`} stroke="#cfd8e3" strokeWidth="2" />
      <text x={LEFT} y={HIGH - 6} fontSize="14" fill="#4d597a">
        {clockText(start)}
      </text>
      <text x={x(cook.finish)} y={HIGH - 6} fontSize="14" fontWeight="700" textAnchor="middle" fill="#16213f">
        {clockText(cook.finish)}
      </text>
    </svg>
  );
}
