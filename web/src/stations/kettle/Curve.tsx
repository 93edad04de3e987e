import { scaleLinear, scaleTime } from "d3-scale";
import { area, line } from "d3-shape";
import type { CookView, Units } from "../../api/client";
import { clockText, volumeText } from "../../writing/format";
import { volumeScale } from "../../writing/units";
import { curveText } from "./model";

const [WIDE, HIGH, LEFT, RIGHT, TOP] = [460, 224, 44, 22, 12];
/** Where the hours stand, below the curve. */
const FLOOR = HIGH - 30;
type Point = CookView["curve"][number];

/** Readings that say how much is in the kettle. */
const READINGS: readonly string[] = ["depth_mm", "volume_l", "mass_kg", "brix"];

/** Hours or half hours that fit. */
function ticks(start: number, end: number): number[] {
  const step = [15, 30, 60, 120, 240, 480].find((minutes) => (end - start) / 60_000 / minutes <= 5) ?? 720;
  const first = Math.ceil(start / (step * 60_000)) * step * 60_000;
  return Array.from({ length: 6 }, (_, n) => first + n * step * 60_000).filter((at) => at <= end);
}

/** How much is in the kettle over time: what was, what is expected with its doubt, the readings, the mark. */
export function Curve({ cook, now, units }: { cook: CookView; now: number; units: Units }) {
  const start = cook.started_at;
  const end = Math.max(cook.finish_high, now);
  const scale = volumeScale(units);
  const most = Math.max(...cook.curve.map((point) => point.high_l));
  const x = scaleTime([start, end], [LEFT, WIDE - RIGHT]);
  const y = scaleLinear([0, scale.fromApi(most)], [FLOOR, TOP]).nice(4);
  const at = (point: Point) => x(point.at);
  const level = (litres: number) => y(scale.fromApi(litres));
  const path = line<Point>(at, (point) => level(point.volume_l));
  const band = area<Point>(
    at,
    (point) => level(point.low_l),
    (point) => level(point.high_l),
  );
  const past = cook.curve.filter((point) => point.at <= now);
  const near = (moment: number) =>
    cook.curve.reduce((a, b) => (Math.abs(b.at - moment) < Math.abs(a.at - moment) ? b : a));
  const target = level(cook.target_l);
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="w-full"
      role="img"
      aria-label={curveText(cook, now, units)}
    >
      <text x={4} y={TOP + 1} fontSize="16" fill="var(--color-muted)" dominantBaseline="hanging">
        {scale.unit}
      </text>
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <path d={`M${LEFT} ${y(tick)}H${WIDE - RIGHT}`} stroke="#dfe6ee" strokeWidth="1.5" />
          {tick > 0 && y(tick) > TOP + 18 && (
            <text x={LEFT - 7} y={y(tick) + 5.5} fontSize="16" textAnchor="end" fill="var(--color-muted)">
              {tick}
            </text>
          )}
        </g>
      ))}
      <path d={band(cook.curve) ?? ""} fill="#f6d9cf" />
      <path d={path(cook.curve) ?? ""} fill="none" stroke="#c8371f" strokeWidth="2.5" strokeDasharray="3 6" />
      <path d={path(past) ?? ""} fill="none" stroke="#c8371f" strokeWidth="4" strokeLinecap="round" />
      <path
        d={`M${LEFT} ${target}H${WIDE - RIGHT}`}
        stroke="var(--color-ink)"
        strokeWidth="1.6"
        strokeDasharray="6 5"
      />
      <text x={LEFT + 6} y={target + 19} fontSize="16" fontWeight="700" fill="var(--color-ink)">
        the mark, {volumeText(cook.target_l, units)}
      </text>
      <path d={`M${x(now)} ${TOP}V${FLOOR}`} stroke="var(--color-cobalt)" strokeWidth="2" />
      {cook.log
        .filter((item) => READINGS.includes(item.what))
        .map((item) => (
          <circle
            key={`${item.at} ${item.what}`}
            cx={x(item.at)}
            cy={level(near(item.at).volume_l)}
            r="5"
            fill={cook.flagged.some((flag) => flag.at === item.at) ? "#ffffff" : "var(--color-cobalt)"}
            stroke="var(--color-cobalt)"
            strokeWidth="2.5"
          />
        ))}
      <path d={`M${LEFT} ${FLOOR}H${WIDE - RIGHT}`} stroke="#9fb0c6" strokeWidth="2" />
      {ticks(start, end).map((tick) => (
        <g key={tick}>
          <path d={`M${x(tick)} ${FLOOR}v5`} stroke="#9fb0c6" strokeWidth="2" />
          <text x={x(tick)} y={HIGH - 5} fontSize="16" textAnchor="middle" fill="var(--color-muted)">
            {clockText(tick)}
          </text>
        </g>
      ))}
    </svg>
  );
}
