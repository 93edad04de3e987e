export type StationName = "crates" | "plan" | "kettle" | "jars" | "canner" | "towel" | "shelf";

const INK = "var(--color-ink)";

/** A small drawing of each station for the line; `hot` shows a boil. */
export function StationPicture({ station, hot = false }: { station: StationName; hot?: boolean }) {
  return (
    <div className="relative h-9 sm:h-[52px]">
      <svg
        viewBox="0 0 72 52"
        className="h-full w-full"
        aria-hidden="true"
        stroke={INK}
        strokeWidth="2"
        strokeLinejoin="round"
      >
        {drawing(station)}
      </svg>
      {hot && (
        // A picture of its own: it is moved as it is, and nothing is drawn anew while it moves.
        <svg viewBox="0 0 72 52" className="steam absolute inset-0 h-full w-full" aria-hidden="true">
          <path
            d="M24 8q4-3 0-7M36 8q4-3 0-7M48 8q4-3 0-7"
            fill="none"
            stroke="var(--color-muted)"
            strokeWidth="2"
          />
        </svg>
      )}
    </div>
  );
}

function drawing(station: StationName) {
  switch (station) {
    case "crates":
      return (
        <>
          {[20, 32, 44, 54].map((x, i) => (
            <circle key={x} cx={x} cy={i % 2 === 0 ? 20 : 16} r="8" fill="#c8371f" />
          ))}
          <path d="M8 24h56l-5 24H13z" fill="#d9b98a" />
          <path d="M10 33h52M12 41h48" />
        </>
      );
    case "plan":
      return (
        <>
          <path d="M18 4h26l10 10v34H18z" fill="var(--color-enamel)" />
          <path d="M44 4v10h10M25 22h22M25 30h22M25 38h14" fill="none" />
        </>
      );
    case "kettle":
      return (
        <>
          <path d="M16 20h40v20q0 8-8 8H24q-8 0-8-8z" fill="#f3f8fb" />
          <path d="M16 30h40v10q0 8-8 8H24q-8 0-8-8z" fill="#c8371f" />
          <path d="M11 19h50" strokeWidth="4.5" strokeLinecap="round" />
          <path d="M46 4v34" stroke="#a87b47" strokeWidth="3.5" />
          <path d="M40 35h12" />
        </>
      );
    case "jars":
      return (
        <>
          {[8, 28, 48].map((x, i) => (
            <g key={x}>
              {i < 2 && <rect x={x + 1} y="8" width="14" height="6" rx="1.5" fill="#bd9138" />}
              <path
                d={`M${x + 1} 15h14l2 5v24q0 4-4 4H${x + 3}q-4 0-4-4V20z`}
                fill={i < 2 ? "#c8371f" : "#f3f8fb"}
              />
            </g>
          ))}
        </>
      );
    case "canner":
      return (
        <>
          <path d="M14 16h44v24q0 9-9 9H23q-9 0-9-9z" fill="var(--color-cobalt)" />
          <path d="M9 15h54" strokeWidth="5" strokeLinecap="round" />
          {[24, 34, 45, 29, 50, 40].map((x, i) => (
            <circle key={x} cx={x} cy={i % 2 === 0 ? 27 : 38} r="1.4" fill="#fff" stroke="none" />
          ))}
        </>
      );
    case "towel":
      return (
        <>
          {[15, 30, 45].map((x) => (
            <g key={x}>
              <rect x={x} y="13" width="12" height="5" rx="1" fill="#ecd08a" />
              <rect x={x} y="18" width="12" height="20" rx="2" fill="#c8371f" />
            </g>
          ))}
          <path d="M6 38h60v9H6z" fill="var(--color-enamel)" />
          <path d="M14 38v9M20 38v9M52 38v9M58 38v9" stroke="var(--color-cobalt)" />
        </>
      );
    case "shelf":
      return (
        <>
          {[12, 25, 38, 51].map((x, i) => (
            <rect key={x} x={x} y="6" width="10" height="16" rx="2" fill={i === 3 ? "#e0684a" : "#c8371f"} />
          ))}
          {[12, 25, 38].map((x) => (
            <rect key={x} x={x} y="31" width="10" height="14" rx="2" fill="#842012" />
          ))}
          <path d="M5 23h62M5 47h62" strokeWidth="3.5" strokeLinecap="round" />
        </>
      );
  }
}
