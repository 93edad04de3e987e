import type { ReactNode } from "react";

const INK = "var(--color-ink)";

function Reason({ title, text, children }: { title: string; text: string; children: ReactNode }) {
  return (
    <section className="flex items-start gap-4">
      <svg
        viewBox="0 0 110 90"
        className="h-[90px] w-[110px] shrink-0"
        stroke={INK}
        strokeWidth="2"
        strokeLinejoin="round"
        aria-hidden="true"
      >
        {children}
      </svg>
      <div className="leading-snug">
        <h3 className="text-base">{title}</h3>
        <p className="text-muted">{text}</p>
      </div>
    </section>
  );
}

/** Three reasons, a picture each: acidity, altitude, pack. */
export function WhyPictures() {
  return (
    <div className="grid gap-5 lg:grid-cols-3 print:grid-cols-3">
      <Reason
        title="Acidity"
        text="Tomatoes lie between pH 4.0 and 4.7; the line is 4.6. The measured acid takes every jar to the safe side. A pH reading never replaces it."
      >
        <path d="M8 60h94" strokeWidth="3" />
        <rect x="14" y="46" width="52" height="14" fill="#2f7140" opacity="0.85" />
        <rect x="66" y="46" width="22" height="14" fill="#c8371f" />
        <path d="M66 26v44" strokeWidth="3" />
        <text x="66" y="20" textAnchor="middle" fontSize="14" fontWeight="700" fill={INK} stroke="none">
          pH 4.6
        </text>
        <circle cx="80" cy="78" r="7" fill="#c8371f" />
        <path d="M70 78H32m7-6-8 6 8 6" fill="none" />
      </Reason>
      <Reason
        title="Altitude"
        text="Thinner air lets water boil cooler: about 1 °F for every 500 ft. Cooler water needs more minutes to heat the middle of the jar."
      >
        <path d="M6 82 44 22l16 24 12-14 32 50z" fill="var(--color-cloth)" />
        <path d="m44 22-9 14 9-3 9 5z" fill="#fff" />
        <text x="12" y="16" fontSize="12" fontWeight="700" fill={INK} stroke="none">
          202 °F
        </text>
        <text x="34" y="76" fontSize="12" fontWeight="700" fill={INK} stroke="none">
          212 °F
        </text>
      </Reason>
      <Reason
        title="Pack and jar"
        text="Loose fruit in water lets heat flow; fruit pressed in with no liquid lets it creep. A larger jar has a longer way to its middle."
      >
        {[8, 60].map((x) => (
          <path key={x} d={`M${x + 3} 14h36l3 8v56q0 6-6 6H${x + 6}q-6 0-6-6V22z`} fill="#bfdced" />
        ))}
        {[
          [22, 34],
          [36, 48],
          [20, 60],
          [36, 74],
        ].map(([x, y]) => (
          <circle key={`${x}${y}`} cx={x} cy={y} r="7" fill="#c8371f" />
        ))}
        <path d="M61 24h40v53q0 6-5 6H66q-5 0-5-6z" fill="#c8371f" />
        <path d="M29 90V26m-5 6 5-6 5 6" fill="none" stroke="var(--color-cobalt)" />
        <path d="M104 52H86m5-5-5 5 5 5" fill="none" stroke="#fff" />
      </Reason>
    </div>
  );
}
