import { useState } from "react";
import type { Units } from "../api/client";
import { drawFlow, type FlowLink } from "./flow";
import { weightText } from "../writing/format";

const WIDE = 900;
const COLORS = ["#c8371f", "#a87b47", "#2f6b3f", "var(--color-cobalt)", "#7a4b8c", "#b5892f"];

/**
 * Where food went, from left to right: ribbons as wide as what went there. Every ribbon has a line below with its figures;
 * a touch on either shows the other.
 */
export function FlowPicture({
  stops,
  links,
  units,
}: {
  stops: readonly string[];
  links: readonly FlowLink[];
  units: Units;
}) {
  const [chosen, setChosen] = useState<number | null>(null);
  const drawn = drawFlow(stops.length, links, WIDE);
  const toggle = (place: number) => setChosen(chosen === place ? null : place);
  const words = (link: FlowLink) => `${stops[link.from] ?? ""} → ${stops[link.to] ?? ""}`;
  return (
    <div>
      {drawn !== null && (
        <div
          className="overflow-x-auto"
          role="region"
          aria-label="The drawing, wider than a phone"
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls is reached without a mouse
          tabIndex={0}
        >
          <svg
            viewBox={`0 0 ${WIDE} ${drawn.height}`}
            className="w-full min-w-[640px]"
            aria-hidden="true"
            data-testid="flow"
          >
            {drawn.ribbons.map((ribbon, place) => (
              <path
                key={place}
                d={ribbon.path}
                fill="none"
                stroke={COLORS[(links[place]?.from ?? 0) % COLORS.length]}
                strokeWidth={Math.max(2, ribbon.width)}
                strokeOpacity={chosen === null ? 0.45 : chosen === place ? 0.9 : 0.15}
                className="cursor-pointer"
                onClick={() => toggle(place)}
              />
            ))}
            {drawn.nodes.map((node, place) => (
              <g key={place}>
                <rect
                  x={node.x}
                  y={node.y}
                  width={8}
                  height={Math.max(3, node.height)}
                  fill="var(--color-ink)"
                />
                <text
                  x={node.isLast ? node.x - 8 : node.x + 16}
                  y={node.y + node.height / 2}
                  dominantBaseline="middle"
                  textAnchor={node.isLast ? "end" : "start"}
                  fontSize="17"
                  fontWeight="600"
                  fill="var(--color-ink)"
                  stroke="var(--color-porcelain)"
                  strokeWidth="5"
                  paintOrder="stroke"
                >
                  {stops[place]}
                </text>
              </g>
            ))}
          </svg>
        </div>
      )}
      <ul className="mt-3 grid gap-1.5 sm:grid-cols-2">
        {links.map((link, place) => (
          <li key={place}>
            <button
              type="button"
              aria-pressed={chosen === place}
              onClick={() => toggle(place)}
              className="flex min-h-[48px] w-full items-center gap-2 rounded-xl border-2 border-edge bg-enamel px-3 py-1 text-left aria-pressed:border-cobalt print:border-0"
            >
              <strong className="shrink-0">{weightText(link.grams, units)}</strong>
              <span className="grow">{words(link)}</span>
              <span className="shrink-0 text-sm whitespace-nowrap text-muted">
                ± {weightText(link.doubt_g, units)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
