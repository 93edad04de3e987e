import { useState } from "react";
import { api, take, type LoadView } from "../../api/client";
import { useChange } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Trouble } from "../../parts/Note";
import { isNumber } from "../../parts/format";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";

/** How warm a hand finds the empty jars, in degrees Celsius. */
const WARMTH = { cold: 15, warm: 50, hot: 70 } as const;
type Warmth = keyof typeof WARMTH;

function warmthOf(jarsC: number | null | undefined): Warmth | "" {
  if (jarsC == null) return "";
  return jarsC < 35 ? "cold" : jarsC < 60 ? "warm" : "hot";
}

/** What is said once for the bench: how warm the jars are, and acid that went into the pot instead. */
export function BenchCare({ load }: { load: LoadView }) {
  const [typed, setTyped] = useState("");
  const warm = useChange((jars_c: number) =>
    take(api.PUT("/api/loads/{id}/warmth", { params: { path: { id: load.id } }, body: { jars_c } })),
  );
  const dose = useChange(
    (tsp: number | null) =>
      take(api.PUT("/api/batches/{id}/pot_dose", { params: { path: { id: load.batch.id } }, body: { tsp } })),
    () => setTyped(""),
  );
  const given = load.batch.pot_dose_tsp;
  const ready = isNumber(typed);
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
      {given == null ? (
        <div className="flex flex-wrap items-end gap-2">
          <WeightField label="Or: acid stirred into the pot" typed={typed} unit="tsp" onType={setTyped} />
          <Touch disabled={!ready} onPress={() => dose.mutate(Number(typed))}>
            Stirred in
          </Touch>
        </div>
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <p className="font-semibold">{given} tsp of acid are in the pot.</p>
          <Touch onPress={() => dose.mutate(null)}>Take that back</Touch>
        </div>
      )}
      <Trouble error={warm.error ?? dose.error} />
    </div>
  );
}
