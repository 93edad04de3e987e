import type { PlanAnswer } from "../../api/client";
import { CannerPicture } from "../../parts/CannerPicture";

/** Loads that are drawn before the rest is a number. */
const DRAWN = 4;

/** The loads of a plan as they stand in the canner, each with its jars and minutes. */
export function LoadPictures({ loads }: { loads: PlanAnswer["loads"] }) {
  return (
    <div className="flex flex-wrap gap-2">
      {loads.slice(0, DRAWN).map((load, index) => (
        <figure key={index} className="text-center">
          <div className="mx-auto max-h-[84px] max-w-[84px]">
            <CannerPicture
              jars={load.standing.map((place, i) => ({ label: String(i + 1), place, gone: false }))}
              stretch={load.stretch}
              boiling={false}
            />
          </div>
          <figcaption className="text-sm font-semibold">
            {load.jars.reduce((sum, line) => sum + line.count, 0)} × {load.minutes} min
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
