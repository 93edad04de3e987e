import * as v from "valibot";
import type { Canner, Units } from "../../api/client";
import { optionalNumber, useFields } from "../../parts/fields";
import { NumberOf } from "../../parts/FormFields";
import { Touch } from "../../parts/Touch";
import { lengthScale, plain } from "../../writing/units";
import { burnerText } from "./model";

const EMPTY = { power: "", wide: "" };

/** The burner under a canner: its power says when it will boil, its width whether it heats evenly. */
export function BurnerForm({
  canner,
  units,
  onSet,
}: {
  canner: Canner;
  units: Units;
  onSet: (burner: { power_w?: number; burner_mm?: number }) => void;
}) {
  const scale = lengthScale(units);
  const { control, handleSubmit, reset } = useFields(
    v.object({
      power: optionalNumber("CannerChangeRequest.power_w"),
      wide: optionalNumber("CannerChangeRequest.burner_mm", scale),
    }),
    EMPTY,
  );
  return (
    <form
      className="mt-4 border-t-2 border-line pt-3"
      onSubmit={(event) =>
        void handleSubmit(({ power, wide }) => {
          onSet({
            ...(power !== undefined && { power_w: power }),
            ...(wide !== undefined && { burner_mm: wide }),
          });
          reset(EMPTY);
        })(event)
      }
    >
      <p className="mb-2 text-muted">{burnerText(canner, units)}</p>
      <div className="flex flex-wrap items-end gap-2">
        <NumberOf
          control={control}
          name="power"
          label="Burner power"
          bound="CannerChangeRequest.power_w"
          scale={plain("W")}
        />
        <NumberOf
          control={control}
          name="wide"
          label="Burner width"
          bound="CannerChangeRequest.burner_mm"
          scale={scale}
        />
        <Touch submit>Set the burner</Touch>
      </div>
    </form>
  );
}
