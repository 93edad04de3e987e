import { useState } from "react";
import type { PotSize, Units } from "../../api/client";
import { depthText, isNumber } from "../../parts/format";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { inMm, rulerUnit } from "../../parts/units";

/** The canner from inside, so that the water can be worked out before the jars go in. */
export function PotForm({
  pot,
  units,
  onSet,
}: {
  pot: PotSize | null;
  units: Units;
  onSet: (pot: PotSize) => void;
}) {
  const unit = rulerUnit(units);
  const [wide, setWide] = useState("");
  const [high, setHigh] = useState("");
  const [rack, setRack] = useState("");
  const ready = [wide, high, rack].every(isNumber);
  const mm = (typed: string) => inMm(typed, units);
  return (
    <div className="mt-4 border-t-2 border-line pt-3">
      <p className="mb-2 text-muted">
        {pot === null
          ? "Measure it from inside, and Bodega says how high to fill it before the jars go in."
          : `Inside ${depthText(pot.inner_diameter_mm, units)} wide, ${depthText(pot.inner_height_mm, units)} high, rack at ${depthText(pot.rack_height_mm, units)}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <WeightField label="Canner, wide" typed={wide} unit={unit} onType={setWide} />
        <WeightField label="Canner, high" typed={high} unit={unit} onType={setHigh} />
        <WeightField label="Rack" typed={rack} unit={unit} onType={setRack} />
        <Touch
          disabled={!ready}
          onPress={() => {
            onSet({ inner_diameter_mm: mm(wide), inner_height_mm: mm(high), rack_height_mm: mm(rack) });
            setWide("");
            setHigh("");
            setRack("");
          }}
        >
          Set
        </Touch>
      </div>
    </div>
  );
}
