import * as v from "valibot";
import { api, take } from "../../api/client";
import { useChange } from "../../api/queries";
import { number, useFields, useRefusal } from "../../parts/fields";
import { NumberOf, TickOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { plain } from "../../parts/units";

const EMPTY = { ph: "", calibrated: false };
const schema = v.object({ ph: number("PhRequest.ph"), calibrated: v.boolean() });

/** A reading of a pH meter; it can only add caution. */
export function PhForm({ batch }: { batch: number }) {
  const form = useFields(schema, EMPTY);
  const { control, handleSubmit, reset } = form;
  const add = useChange(
    ({ ph, calibrated }: v.InferOutput<typeof schema>) =>
      take(
        api.POST("/api/batches/{id}/ph", {
          params: { path: { id: batch } },
          body: { ph, calibrated_today: calibrated },
        }),
      ),
    () => reset(EMPTY),
  );
  const left = useRefusal(form, add.error, { ph: "ph" });
  return (
    <form
      className="print:hidden"
      onSubmit={(event) => void handleSubmit((reading) => add.mutate(reading))(event)}
    >
      <div className="flex flex-wrap items-end gap-3">
        <NumberOf
          control={control}
          name="ph"
          label="A pH reading, at 25 °C"
          bound="PhRequest.ph"
          scale={plain("pH")}
        />
        <TickOf control={control} name="calibrated" label="Calibrated today" />
        <Touch submit>Save it</Touch>
      </div>
      <Trouble error={left} />
    </form>
  );
}
