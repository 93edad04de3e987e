import { useQuery } from "@tanstack/react-query";
import * as v from "valibot";
import { api, take, type Buffer } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { number, optionalNumber, saidYesNo, useFields, useRefusal, YES_NO } from "../../parts/fields";
import { Findings } from "../../parts/Findings";
import { Fold } from "../../parts/Fold";
import { ChoiceOf, NumberOf } from "../../parts/FormFields";
import { capital, clockText, dayText, temperatureText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { heatScale, plain } from "../../writing/units";
import { useDevice } from "../../device/device";

const WORD = { fine: "Yes", not_fine: "No", cannot_tell: "Say more" } as const;
const LOOK = { fine: "text-fine", not_fine: "text-alarm", cannot_tell: "text-ink" } as const;
const BUFFERS: readonly Buffer[] = ["7.00", "4.01"];
const MIX = "the mix";
const EMPTY = { ph: "", temperature: "", of: MIX, calibrated: "", compensated: "", drained: "" };
const schemaOf = () =>
  v.object({
    ph: number("BenchPhRequest.ph"),
    temperature: optionalNumber("BenchPhRequest.sample_c", heatScale()),
    of: v.string(),
    calibrated: saidYesNo,
    compensated: saidYesNo,
    drained: saidYesNo,
  });

/** Readings of parts and of the mix, their history, and a meter to practise with; what decides is the recipe. */
export function PhBench({ bowls, parts }: { bowls: number | null; parts: readonly string[] }) {
  const say = useSay();
  const { practice } = useDevice();
  const { data: bench } = useQuery(ask.phBench(bowls));
  const form = useFields(schemaOf(), EMPTY);
  const { control, handleSubmit, reset, watch } = form;
  const of = watch("of");
  const add = useChange(
    (reading: v.InferOutput<ReturnType<typeof schemaOf>>) =>
      take(
        api.POST("/api/ph_bench", {
          body: {
            bowls,
            part: reading.of === MIX ? null : reading.of,
            ph: reading.ph,
            sample_c: reading.temperature,
            compensated: reading.compensated,
            calibrated_today: reading.calibrated,
            drained: reading.drained,
          },
        }),
      ),
    () => reset(EMPTY),
  );
  const left = useRefusal(form, add.error, { ph: "ph", sample_c: "temperature" });
  const remove = useChange(
    ({ id, removed }: { id: number; removed: boolean }) =>
      take(api.PATCH("/api/ph_bench/{id}", { params: { path: { id } }, body: { removed } })),
    (_, { id, removed }, again) =>
      removed && say("The reading is taken away", () => again({ id, removed: false })),
  );
  const set = useChange((buffer: Buffer) => take(api.PUT("/api/ph_bench/meter", { body: { buffer } })));
  const sample = useChange(() =>
    take(api.POST("/api/ph_bench/meter", { body: { bowls, part: of === MIX ? null : of } })),
  );
  if (bench === undefined) return <Pending of={[ask.phBench(bowls)]} />;
  const { ruling, says, meter } = bench.may_water_bath;
  return (
    <div className="grid gap-4">
      <div className={LOOK[ruling]} role="status">
        <p className="mb-1 text-sm font-semibold text-muted">May I water-bath this?</p>
        <Answer value={WORD[ruling]}>{says}</Answer>
      </div>
      {meter != null && (
        <Note tone={ruling === "not_fine" ? "warn" : "note"}>
          <p>{meter}</p>
        </Note>
      )}
      <form
        className="grid gap-3"
        onSubmit={(event) => void handleSubmit((reading) => add.mutate(reading))(event)}
      >
        <ChoiceOf
          control={control}
          name="of"
          label="Read of"
          options={[
            { value: MIX, text: "The mix" },
            ...parts.map((part) => ({ value: part, text: capital(part) })),
          ]}
        />
        <div className="flex flex-wrap items-end gap-3">
          <NumberOf
            control={control}
            name="ph"
            label="The meter reads"
            bound="BenchPhRequest.ph"
            scale={plain("pH")}
          />
          <NumberOf
            control={control}
            name="temperature"
            label="Sample at"
            bound="BenchPhRequest.sample_c"
            scale={heatScale()}
          />
          <Touch submit look="main" disabled={add.isPending}>
            Write it down
          </Touch>
        </div>
        <div className="flex flex-wrap gap-x-5 gap-y-3">
          <ChoiceOf
            control={control}
            name="calibrated"
            label="Set in 4.01 and 7.00 today?"
            options={YES_NO}
          />
          <ChoiceOf control={control} name="compensated" label="Allows for temperature?" options={YES_NO} />
          <ChoiceOf
            control={control}
            name="drained"
            label="The sample is"
            options={[
              { value: "yes", text: "Drained" },
              { value: "no", text: "With its juice" },
            ]}
          />
        </div>
        <Trouble error={left ?? remove.error ?? set.error ?? sample.error} />
      </form>
      {(practice || bench.meter.calibrated_today) && (
        <Fold words="Practise with a simulated meter">
          <div className="grid gap-2">
            <p className="text-muted">
              Simulated: its readings are made up.{" "}
              {bench.meter.calibrated_today
                ? "It was set in both buffers today."
                : "It drifts: set it in both buffers first, 7.00 then 4.01."}
            </p>
            <div className="flex flex-wrap gap-2">
              {BUFFERS.map((buffer) => (
                <Touch key={buffer} disabled={set.isPending} onPress={() => set.mutate(buffer)}>
                  Set in {buffer}
                </Touch>
              ))}
              <Touch disabled={sample.isPending} onPress={() => sample.mutate(undefined)}>
                Read {of}
              </Touch>
            </div>
          </div>
        </Fold>
      )}
      {bench.readings.length > 0 && (
        <div>
          <h3 className="text-xl">Readings</h3>
          <ul className="grid gap-2">
            {bench.readings.map((reading) => (
              <li key={reading.id} className="border-b-2 border-line pb-2 text-lg">
                <div className="flex flex-wrap items-center justify-between gap-2">
                  <span>
                    <b>{reading.ph.toFixed(2)}</b> {reading.part ?? "the mix"}, {dayText(reading.at)}{" "}
                    {clockText(reading.at)}
                    {reading.sample_c != null && `, at ${temperatureText(reading.sample_c)}`}
                    {reading.drained != null && (reading.drained ? ", drained" : ", with its juice")}
                    {reading.simulated && <b>, simulated</b>}
                  </span>
                  <Touch
                    label={`Take away ${reading.ph.toFixed(2)} of ${reading.part ?? "the mix"}`}
                    onPress={() => remove.mutate({ id: reading.id, removed: true })}
                  >
                    ✕
                  </Touch>
                </div>
                <div className="grid gap-2 empty:hidden">
                  <Findings items={reading.findings} />
                </div>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
