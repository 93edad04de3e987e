import { Progress } from "radix-ui";

/** How much of something is done or there, as a bar. */
export function Share({
  label,
  share,
  className = "",
  bar = "bg-cobalt",
}: {
  label: string;
  /** 0 to 1. */
  share: number;
  className?: string;
  bar?: string;
}) {
  const percent = Math.round(Math.min(Math.max(share, 0), 1) * 100);
  return (
    <Progress.Root
      aria-label={label}
      value={percent}
      className={`h-4 overflow-hidden rounded-full bg-line/60 ${className}`}
    >
      <Progress.Indicator className={`h-full rounded-full ${bar}`} style={{ width: `${percent}%` }} />
    </Progress.Root>
  );
}
