/** Round bubbles that rise and fade; each is a place and a radius in the drawing's units. */
type Bubble = readonly [x: number, y: number, r: number];

/** How many move together. */
const GROUPS = 3;

/**
 * Bubbles over a drawing with the same view box. Each group is a picture of its own, which is moved as it is: nothing is laid
 * out or drawn anew while they rise.
 */
export function Bubbles({
  viewBox,
  bubbles,
  fill,
}: {
  viewBox: string;
  bubbles: readonly Bubble[];
  fill: string;
}) {
  return Array.from({ length: GROUPS }, (_, group) => (
    <svg
      key={group}
      viewBox={viewBox}
      className="steam pointer-events-none absolute inset-0 h-full w-full"
      style={{ animationDelay: `${group * 0.8}s` }}
      aria-hidden="true"
    >
      {bubbles
        .filter((_, place) => place % GROUPS === group)
        .map(([x, y, r]) => (
          <circle key={`${x} ${y}`} cx={x} cy={y} r={r} fill={fill} />
        ))}
    </svg>
  ));
}
