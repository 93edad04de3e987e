import type { DayView } from "../../api/client";
import { clockText } from "../../writing/format";
import { atOf, blockText, rowsOf } from "./strip";

/** Burners follow their kettles and canners. */
const BURNER = 1;

/** What hands, canners and kettles are at, in words, for whoever cannot take the strip in at a glance. */
export function LanesNow({ day, now }: { day: DayView; now: number }) {
  return (
    <ul className="grid gap-1 sm:hidden print:hidden">
      {rowsOf(day)
        .filter((row) => row.resource !== BURNER)
        .map((row) => {
          const { now: at, next } = atOf(day, row, now);
          return (
            <li key={row.name} className="grid grid-cols-[5.6rem_1fr] gap-2 border-b-2 border-line py-1">
              <strong className="text-muted">{row.name}</strong>
              <span className="leading-tight">
                {at === undefined
                  ? next === undefined
                    ? "free"
                    : `free until ${clockText(next.starts)}, then ${blockText(next).toLowerCase()}`
                  : `${blockText(at)}, until ${clockText(at.ends)}`}
              </span>
            </li>
          );
        })}
    </ul>
  );
}
