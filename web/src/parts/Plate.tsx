import type { ReactNode } from "react";

/** An enamel plate: white, with a rolled cobalt rim. */
export function Plate({
  title,
  aside,
  children,
  className = "",
}: {
  title?: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section
      className={`rounded-[26px] border-[3px] border-cobalt bg-porcelain p-5 shadow-[inset_0_0_0_3px_var(--color-enamel),inset_0_0_0_4px_rgb(29_61_128/0.14),0_2px_0_rgb(20_44_96/0.18)] sm:px-7 sm:py-6 ${className}`}
    >
      {title !== undefined && (
        <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
          <h2 className="text-[1.35rem] leading-tight">{title}</h2>
          {aside}
        </div>
      )}
      {children}
    </section>
  );
}

/** The answer of the moment: a number that reads from two metres. */
export function Answer({
  value,
  unit,
  children,
}: {
  value: ReactNode;
  unit?: ReactNode;
  children?: ReactNode;
}) {
  const long = typeof value === "string" && value.length > 9;
  return (
    <div data-moment>
      <p className="flex flex-wrap items-baseline gap-x-3 leading-[1.08]">
        <span
          className={`font-slab font-bold tracking-tight ${long ? "text-(length:--figure-long)" : "text-(length:--figure)"}`}
          data-testid="answer"
        >
          {value}
        </span>
        {unit !== undefined && <span className="text-2xl font-semibold text-muted">{unit}</span>}
      </p>
      {children !== undefined && <p className="mt-2 text-lg text-muted">{children}</p>}
    </div>
  );
}
