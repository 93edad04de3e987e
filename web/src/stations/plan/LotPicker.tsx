import type { Lot, Units } from "../../api/client";
import { KIND, weightText } from "../../parts/format";

/** Which of the waiting lots a plan is about. */
export function LotPicker({
  lots,
  chosen,
  units,
  onChoose,
}: {
  lots: Lot[];
  chosen: number[];
  units: Units;
  onChoose: (ids: number[]) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold text-muted">From</legend>
      <div className="flex flex-wrap gap-1.5">
        {lots.map((lot) => (
          <label
            key={lot.id}
            className="flex min-h-[48px] items-center gap-2 rounded-xl border-2 border-line bg-white px-3.5 font-semibold has-checked:border-cobalt has-checked:bg-cobalt-wash"
          >
            <input
              type="checkbox"
              className="size-5 accent-cobalt"
              checked={chosen.includes(lot.id)}
              onChange={(event) =>
                onChoose(event.target.checked ? [...chosen, lot.id] : chosen.filter((id) => id !== lot.id))
              }
            />
            {weightText(lot.left_g, units)} {KIND[lot.kind].toLowerCase()}
          </label>
        ))}
        {lots.length === 0 && <p className="text-muted">No fruit is ready. Weigh some in at Crates.</p>}
      </div>
    </fieldset>
  );
}
