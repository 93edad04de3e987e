import type { JarSize, Product } from "../api/client";

/** Outline per size in drawing units: half width and height of the glass. */
const SHAPE: Record<JarSize, [number, number]> = {
  quarter_pint: [16, 24],
  half_pint: [16, 34],
  ml_250: [16, 35],
  three_quarter_pint: [16, 46],
  ml_370: [17, 46],
  pint: [18, 48],
  half_litre: [19, 50],
  pint_and_half: [19, 62],
  ml_720: [20, 62],
  quart: [22, 66],
  litre: [23, 70],
  half_gallon: [28, 84],
  two_litre: [28, 84],
  gallon: [30, 86],
};

export const FOOD: Record<Product, string> = {
  whole: "#d0452b",
  crushed: "#c23a22",
  juice: "#e0684a",
  vegetable_juice: "#d98a4b",
  sauce: "#a82d1a",
  paste: "#842012",
  recipe: "#b3542e",
};

/** A jar from the side: empty, with acid, filled to the headspace, with its lid on. */
export function JarPicture({
  size,
  product,
  acid,
  filled,
  lid,
  number,
}: {
  size: JarSize;
  product: Product;
  acid: boolean;
  filled: boolean;
  lid: boolean;
  number?: number;
}) {
  const [half, tall] = SHAPE[size];
  const top = 96 - tall;
  const glass = `M${40 - half + 3} ${top} h${2 * half - 6} q2 5 3 9 v${tall - 16} q0 7 -7 7 h${-(2 * half - 14)} q-7 0 -7 -7 v${-(tall - 16)} q1 -4 3 -9 z`;
  const clip = `jar-${size}`;
  return (
    <svg viewBox="8 0 64 100" className="h-full w-full" aria-hidden="true">
      <clipPath id={clip}>
        <path d={glass} />
      </clipPath>
      <path d={glass} fill="#f3f8fb" />
      <g clipPath={`url(#${clip})`}>
        {filled ? (
          <rect x="8" y={top + 8} width="64" height="90" fill={FOOD[product]} />
        ) : (
          acid && <rect x="8" y="87" width="64" height="10" fill="#f2d44e" />
        )}
      </g>
      <path d={glass} fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      {lid ? (
        <rect
          x={40 - half + 1}
          y={top - 8}
          width={2 * half - 2}
          height="9"
          rx="2.5"
          fill="#bd9138"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
      ) : (
        <path
          d={`M${40 - half + 2} ${top - 1} h${2 * half - 4}`}
          stroke="var(--color-ink)"
          strokeWidth="2.6"
          strokeLinecap="round"
        />
      )}
      {number !== undefined && (
        <text
          x="40"
          y={96 - tall / 2 + 8}
          textAnchor="middle"
          fontSize="19"
          fontWeight="700"
          fill={filled ? "white" : "var(--color-night)"}
        >
          {number}
        </text>
      )}
    </svg>
  );
}
