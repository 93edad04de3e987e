import { useState } from "react";
import * as v from "valibot";
import { api, take, type KettleView, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import { number, useFields } from "../../parts/fields";
import { depthText } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { lengthScale, volumeScale } from "../../writing/units";

/** Pour a quart, read the stick, pour the next: for kettles whose walls are not straight. */
export function Calibrate({
  kettle,
  units,
  onDone,
}: {
  kettle: KettleView;
  units: Units;
  onDone: () => void;
}) {
  const scale = lengthScale(units);
  const [depths, setDepths] = useState<number[]>([]);
  const { control, handleSubmit, reset } = useFields(
    v.object({ depth: number("CalibrationRequest.depths_mm", scale) }),
    { depth: "" },
  );
  const save = useChange(
    (list: number[]) =>
      take(
        api.PUT("/api/kettles/{id}/calibration", {
          params: { path: { id: kettle.id } },
          body: { pour_l: volumeScale(units).toApi(1), depths_mm: list },
        }),
      ),
    onDone,
  );
  const measure = units === "us" ? "quart" : "litre";
  return (
    <form
      className="grid gap-3 rounded-2xl border-2 border-line p-3"
      onSubmit={(event) =>
        void handleSubmit(({ depth }) => {
          setDepths([...depths, depth]);
          reset({ depth: "" });
        })(event)
      }
    >
      <p>
        Pour {depths.length === 0 ? `one ${measure}` : `another ${measure}`} of water in and read the stick.
        {depths.length > 0 && ` So far: ${depths.map((depth) => depthText(depth, units)).join(", ")}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <NumberOf
          control={control}
          name="depth"
          label={`Depth after ${depths.length + 1}`}
          bound="CalibrationRequest.depths_mm"
          scale={scale}
        />
        <Touch submit>Next {measure}</Touch>
        <Touch look="main" disabled={depths.length === 0} onPress={() => save.mutate(depths)}>
          Keep these marks
        </Touch>
        <Touch onPress={() => save.mutate([])}>Straight walls</Touch>
      </div>
      <Trouble error={save.error} />
    </form>
  );
}
