import * as v from "valibot";
import type { PotSize, Units } from "../../api/client";
import { number, optionalNumber, useFields, useRefusal } from "../../parts/fields";
import { depthText } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { Touch } from "../../parts/Touch";
import { lengthScale } from "../../writing/units";

const EMPTY = { wide: "", long: "", high: "", rack: "" };

/** The canner from inside, so that the water can be worked out before the jars go in. */
export function PotForm({
  pot,
  units,
  error,
  onSet,
}: {
  pot: PotSize | null;
  units: Units;
  error: Error | null;
  onSet: (pot: PotSize) => void;
}) {
  const scale = lengthScale(units);
  const form = useFields(
    v.object({
      wide: number("PotSize.inner_diameter_mm", scale),
      long: optionalNumber("PotSize.inner_length_mm", scale),
      high: number("PotSize.inner_height_mm", scale),
      rack: number("PotSize.rack_height_mm", scale),
    }),
    EMPTY,
  );
  const { control, handleSubmit, reset } = form;
  useRefusal(form, error, {
    "pot.inner_diameter_mm": "wide",
    "pot.inner_length_mm": "long",
    "pot.inner_height_mm": "high",
    "pot.rack_height_mm": "rack",
  });
  return (
    <form
      className="mt-4 border-t-2 border-line pt-3"
      onSubmit={(event) =>
        void handleSubmit(({ wide, long, high, rack }) => {
          onSet({
            inner_diameter_mm: wide,
            inner_height_mm: high,
            rack_height_mm: rack,
            ...(long !== undefined && { inner_length_mm: long }),
          });
          reset(EMPTY);
        })(event)
      }
    >
      <p className="mb-2 text-muted">
        {pot === null
          ? "Measure it from inside, and Bodega says how high to fill it before the jars go in."
          : `Inside ${depthText(pot.inner_diameter_mm, units)} wide, ${pot.inner_length_mm == null ? "" : `${depthText(pot.inner_length_mm, units)} long, `}${depthText(pot.inner_height_mm, units)} high, rack at ${depthText(pot.rack_height_mm, units)}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <NumberOf
          control={control}
          name="wide"
          label="Canner, wide"
          bound="PotSize.inner_diameter_mm"
          scale={scale}
        />
        <NumberOf
          control={control}
          name="long"
          label="Long, if oblong"
          bound="PotSize.inner_length_mm"
          scale={scale}
        />
        <NumberOf
          control={control}
          name="high"
          label="Canner, high"
          bound="PotSize.inner_height_mm"
          scale={scale}
        />
        <NumberOf control={control} name="rack" label="Rack" bound="PotSize.rack_height_mm" scale={scale} />
        <Touch submit>Set</Touch>
      </div>
    </form>
  );
}
