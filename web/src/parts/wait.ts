import type { Wait } from "../api/client";
import { capital, clockText, dayOf, dayText, shortDay } from "../writing/format";

/** Until when something waits and what is then to be done: "Can it by 18:40", "Use it by 14 September". */
export function waitText(wait: Wait, now: number): string {
  const what = capital(wait.what);
  if (wait.moment != null) {
    const until =
      dayOf(wait.moment) === dayOf(now)
        ? clockText(wait.moment)
        : wait.moment - now < 2 * 86_400_000
          ? `${shortDay(dayOf(wait.moment))}, ${clockText(wait.moment)}`
          : dayText(wait.moment);
    return `${what} by ${until}`;
  }
  return wait.day == null ? what : `${what} by ${shortDay(wait.day)}`;
}
