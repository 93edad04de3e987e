import * as v from "valibot";
import { api, take, type LoadView } from "../../api/client";
import { useChange } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { plain } from "../../parts/units";
import { WARMTH, warmthOf, type Warmth } from "./model";

const schema = v.object({ tsp: number("PotDoseRequest.tsp") });

/** Acid that went into the pot instead of the jars. */
function PotDose({ batch }: { batch: LoadView["batch"] }) {
  const form = useFields(schema, { tsp: "" });
  const { control, handleSubmit, reset } = form;
  const dose = useChange(
    (tsp: number | null) =>
      take(api.PUT("/api/batches/{id}/pot_dose", { params: { path: { id: batch.id } }, body: { tsp } })),
    () => reset({ tsp: "" }),
  );
  const left = useRefusal(form, dose.error, { tsp: "tsp" });
  const given = batch.pot_dose_tsp;
  if (given != null)
    return (
      <div className="flex flex-wrap items-center gap-3">
        <p className="font-semibold">{given} tsp of acid are in the pot.</p>
        <Touch onPress={() => dose.mutate(null)}>Take that back</Touch>
        <Trouble error={left} />
      </div>
    );
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => void handleSubmit(({ tsp }) => dose.mutate(tsp))(event)}
    >
      <NumberOf
        control={control}
        name="tsp"
        label="Or: acid stirred into the pot"
        bound="PotDoseRequest.tsp"
        scale={plain("tsp")}
      />
      <Touch submit>Stirred in</Touch>
      <Trouble error={left} />
    </form>
  );
}

/** What is said once for the bench: how warm the jars are, and acid that went into the pot instead. */
export function BenchCare({ load }: { load: LoadView }) {
  const warm = useChange((jars_c: number) =>
    take(api.PUT("/api/loads/{id}/warmth", { params: { path: { id: load.id } }, body: { jars_c } })),
  );
  return (
    <div className="mt-5 flex flex-wrap items-end gap-x-8 gap-y-3 border-t-2 border-line pt-4">
      <Choice<Warmth | "">
        label="The empty jars are"
        value={warmthOf(load.jars_c)}
        options={[
          { value: "cold", text: "Cold" },
          { value: "warm", text: "Warm" },
          { value: "hot", text: "Hot" },
        ]}
        onChoose={(next) => next !== "" && warm.mutate(WARMTH[next])}
      />
      <PotDose batch={load.batch} />
      <Trouble error={warm.error} />
    </div>
  );
}
