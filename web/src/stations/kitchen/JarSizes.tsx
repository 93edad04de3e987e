import { useState } from "react";
import type { JarSize, Kitchen } from "../../api/client";
import { JAR_SIZES, jarText, isNumber } from "../../parts/format";
import { Choice } from "../../parts/Choice";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { MM_PER_IN } from "../../parts/units";

/** Jars measured from outside: how many stand side by side and how high the water goes depend on them. */
export function JarSizes({
  kitchen,
  onSet,
}: {
  kitchen: Kitchen;
  onSet: (sizes: Kitchen["jar_outsides"]) => void;
}) {
  const us = kitchen.units === "us";
  const [jar, setJar] = useState<JarSize>("quart");
  const [wide, setWide] = useState("");
  const [high, setHigh] = useState("");
  const ready = [wide, high].every(isNumber);
  const mm = (typed: string) => Number(typed) * (us ? MM_PER_IN : 1);
  const text = (value: number) => (us ? `${(value / MM_PER_IN).toFixed(1)} in` : `${Math.round(value)} mm`);
  const measured = kitchen.jar_outsides[jar];
  const set = () => {
    onSet({ [jar]: { diameter_mm: mm(wide), height_mm: mm(high) } });
    setWide("");
    setHigh("");
  };
  return (
    <div className="mt-4 border-t-2 border-line pt-3">
      <Choice
        label="Your jars from outside, lid on"
        value={jar}
        options={JAR_SIZES.filter((size) => size !== "half_gallon").map((size) => ({
          value: size,
          text: jarText(size),
        }))}
        onChoose={setJar}
      />
      <p className="my-2 text-muted">
        {measured === undefined
          ? "Not measured: the usual size is taken."
          : `Measured: ${text(measured.diameter_mm)} wide, ${text(measured.height_mm)} high.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <WeightField label="Jar, wide" typed={wide} unit={us ? "in" : "mm"} onType={setWide} />
        <WeightField label="Jar, high" typed={high} unit={us ? "in" : "mm"} onType={setHigh} />
        <Touch disabled={!ready} onPress={set}>
          Set the jar
        </Touch>
      </div>
    </div>
  );
}
