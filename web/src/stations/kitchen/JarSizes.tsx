import { useState } from "react";
import * as v from "valibot";
import type { JarSize, Kitchen } from "../../api/client";
import { number, useFields } from "../../parts/fields";
import { CANNED_SIZES, depthText, jarText } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { Choice } from "../../parts/Choice";
import { Touch } from "../../parts/Touch";
import { lengthScale } from "../../writing/units";

const EMPTY = { wide: "", high: "" };

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
  const scale = lengthScale(units);
  const { control, handleSubmit, reset } = useFields(
    v.object({ wide: number("JarMeasure.diameter_mm", scale), high: number("JarMeasure.height_mm", scale) }),
    EMPTY,
  );
  const measured = kitchen.jar_outsides[jar];
  return (
    <form
      className="mt-4 border-t-2 border-line pt-3"
      onSubmit={(event) =>
        void handleSubmit(({ wide, high }) => {
          onSet({ [jar]: { diameter_mm: wide, height_mm: high } });
          reset(EMPTY);
        })(event)
      }
    >
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
        <NumberOf
          control={control}
          name="wide"
          label="Jar, wide"
          bound="JarMeasure.diameter_mm"
          scale={scale}
        />
        <NumberOf
          control={control}
          name="high"
          label="Jar, high"
          bound="JarMeasure.height_mm"
          scale={scale}
        />
        <Touch submit>Set the jar</Touch>
      </div>
    </form>
  );
}
