import type { Lot, Units } from "../../api/client";
import { weightText } from "../../writing/format";
import { Tick } from "../../parts/Tick";

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
          <Tick
            key={lot.id}
            className="min-h-[48px] rounded-xl border-2 border-edge bg-enamel px-3 has-data-[state=checked]:border-cobalt has-data-[state=checked]:bg-cobalt-wash"
            label={`${weightText(lot.left_g, units)} ${lot.words}`}
            on={chosen.includes(lot.id)}
            onTick={(on) => onChoose(on ? [...chosen, lot.id] : chosen.filter((id) => id !== lot.id))}
          />
        ))}
        {lots.length === 0 && <p className="text-muted">Nothing is ready. Weigh some in at Crates.</p>}
      </div>
    </fieldset>
  );
}
