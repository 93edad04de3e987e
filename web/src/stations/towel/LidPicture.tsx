import type { Verdict } from "../../api/client";

const RIM: Record<Verdict | "none", string> = {
  holds: "#2f7140",
  failed: "#97220f",
  broken: "#97220f",
  doubtful: "#a87d2a",
  none: "var(--color-ink)",
};
const SIGN: Record<Verdict, string> = { holds: "✓", failed: "✕", broken: "⚡", doubtful: "?" };

/** A lid from above, with what was found at it. */
export function LidPicture({
  verdict,
  stop,
  number,
}: {
  verdict: Verdict | null;
  /** What stands against the jar in a word, whatever its lid does. */
  stop: string | null;
  number: string;
}) {
  const sign = stop ?? (verdict && SIGN[verdict]);
  const rim = stop === null ? RIM[verdict ?? "none"] : RIM.failed;
  return (
    <svg viewBox="0 0 64 64" className="size-14" aria-hidden="true">
      <circle cx="32" cy="32" r="28" fill="#bd9138" stroke={rim} strokeWidth="5" />
      <circle cx="32" cy="32" r="20" fill="#ecd08a" stroke="#a87d2a" strokeWidth="1.5" />
      <text
        x="32"
        y={sign === null ? 39 : 31}
        textAnchor="middle"
        fontSize="17"
        fontWeight="700"
        fill="var(--color-night)"
      >
        {number}
      </text>
      {sign !== null && (
        <text
          x="32"
          y="46"
          textAnchor="middle"
          fontSize={stop === null ? 17 : 10}
          fontWeight="700"
          fill={rim}
        >
          {sign}
        </text>
      )}
    </svg>
  );
}
