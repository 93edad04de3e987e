import { useState } from "react";
import type { JarSize, Kitchen } from "../../api/client";
import { CANNED_SIZES, depthText, jarText, isNumber } from "../../parts/format";
import { Choice } from "../../parts/Choice";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { inMm, rulerUnit } from "../../parts/units";

/** Jars measured from outside: how many stand side by side and how high the water goes depend on them. */
export function JarSizes({
  kitchen,
  onSet,
}: {
  kitchen: Kitchen;
  onSet: (sizes: Kitchen["jar_outsides"]) => void;
}) {
  const { units } = kitchen;
  const [jar, setJar] = useState<JarSize>("quart");
  const [wide, setWide] = useState("");
  const [high, setHigh] = useState("");
  const ready = [wide, high].every(isNumber);
  const measured = kitchen.jar_outsides[jar];
  const set = () => {
    onSet({ [jar]: { diameter_mm: inMm(wide, units), height_mm: inMm(high, units) } });
    setWide("");
    setHigh("");
  };
  return (
    <div className="mt-4 border-t-2 border-line pt-3">
      <Choice
        label="Your jars from outside, lid on"
        value={jar}
        options={CANNED_SIZES.map((size) => ({
          value: size,
          text: jarText(size),
        }))}
        onChoose={setJar}
      />
      <p className="my-2 text-muted">
        {measured === undefined
          ? "Not measured: the usual size is taken."
          : `Measured: ${depthText(measured.diameter_mm, units)} wide, ${depthText(measured.height_mm, units)} high.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <WeightField label="Jar, wide" typed={wide} unit={rulerUnit(units)} onType={setWide} />
        <WeightField label="Jar, high" typed={high} unit={rulerUnit(units)} onType={setHigh} />
        <Touch disabled={!ready} onPress={set}>
          Set the jar
        </Touch>
      </div>
    </div>
  );
}
