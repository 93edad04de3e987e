import * as v from "valibot";
import { api, take } from "../../api/client";
import { useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { number, optionalNumber, saidYesNo, useFields, useRefusal, YES_NO } from "../../parts/fields";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { allOf } from "../../parts/Choice";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { plain } from "../../writing/units";

const EMPTY = { ph: "", sample: "", temperature: "", compensated: "", calibrated: "", did: "" };
const schema = v.object({
  ph: number("PhRequest.ph"),
  sample: v.pipe(
    v.string(),
    v.transform((word) => (word === "" ? null : (word as keyof typeof WORDS.PhSample))),
  ),
  temperature: optionalNumber("PhRequest.sample_c"),
  compensated: saidYesNo,
  calibrated: saidYesNo,
  did: v.pipe(
    v.string(),
    v.transform((word) => (word === "" ? null : (word as keyof typeof WORDS.Remedy))),
  ),
});

/** A reading of a pH meter; it can only add caution. `wasHigh` asks what was done since the one above the line. */
export function PhForm({ batch, wasHigh }: { batch: number; wasHigh: boolean }) {
  const form = useFields(schema, EMPTY);
  const { control, handleSubmit, reset } = form;
  const add = useChange(
    (reading: v.InferOutput<typeof schema>) =>
      take(
        api.POST("/api/batches/{id}/ph", {
          params: { path: { id: batch } },
          body: {
            ph: reading.ph,
            sample: reading.sample,
            sample_c: reading.temperature,
            compensated: reading.compensated,
            calibrated_today: reading.calibrated,
            did: reading.did,
          },
        }),
      ),
    () => reset(EMPTY),
  );
  const left = useRefusal(form, add.error, { ph: "ph", sample_c: "temperature" });
  return (
    <form
      className="grid gap-3 print:hidden"
      onSubmit={(event) => void handleSubmit((reading) => add.mutate(reading))(event)}
    >
      <div className="flex flex-wrap items-end gap-3">
        <NumberOf control={control} name="ph" label="A pH reading" bound="PhRequest.ph" scale={plain("pH")} />
        <NumberOf
          control={control}
          name="temperature"
          label="Sample at"
          bound="PhRequest.sample_c"
          scale={plain("°C")}
        />
      </div>
      <ChoiceOf control={control} name="sample" label="Read of the food" options={allOf(WORDS.PhSample)} />
      <div className="flex flex-wrap gap-x-5 gap-y-3">
        <ChoiceOf control={control} name="calibrated" label="Meter calibrated today?" options={YES_NO} />
        <ChoiceOf control={control} name="compensated" label="Allows for temperature?" options={YES_NO} />
      </div>
      {wasHigh && (
        <ChoiceOf
          control={control}
          name="did"
          label="What was done since the reading above 4.6?"
          options={allOf(WORDS.Remedy)}
        />
      )}
      <div>
        <Touch submit>Save it</Touch>
      </div>
      <Trouble error={left} />
    </form>
  );
}
