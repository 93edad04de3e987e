import { api, take, type LoadView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { Choice } from "../../parts/Choice";
import { Trouble } from "../../parts/Note";
import { PotDose } from "./PotDose";
import { WARMTH, warmthOf, type Warmth } from "./model";
import { Sources } from "../../parts/Sources";

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
      {load.batch.recipe == null && <PotDose load={load} />}
      <Sources label="Sterilise the jars? Simmer the lids?" of={["sterilising", "simmering"]} />
      {load.jars.some((jar) => jar.product !== "recipe") && <Sources of={["dose", "headspace"]} />}
      <Trouble error={warm.error} />
    </div>
  );
}
