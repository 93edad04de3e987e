import type { DayView } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { capital } from "../../writing/format";
import { TONE } from "./strip";
import { WorkSign } from "./WorkSign";

/** What the signs on blocks too narrow for words mean. */
export function WorkLegend({ day }: { day: DayView }) {
  const works = [...new Set(day.blocks.map((block) => block.work))];
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Signs of the strip">
      {works.map((work) => (
        <li key={work} className="flex items-center gap-1.5">
          <span className={`grid size-7 place-items-center rounded-md border-2 ${TONE[work]}`}>
            <WorkSign work={work} className="w-4" />
          </span>
          {capital(WORDS.Work[work])}
        </li>
      ))}
    </ul>
  );
}
