import { api, take, type LoadView, type WaterOver as Over } from "../api/client";
import { useChange } from "../queries/queries";
import { WORDS } from "../api/words.generated";
import { Choice, optionsOf } from "./Choice";
import { capitals } from "../writing/format";
import { Trouble } from "./Note";

const OVERS = Object.keys(WORDS.WaterOver) as Over[];
const OVER_WORDS = capitals(WORDS.WaterOver);

/** How much water stands over the lids of a load, said where nobody has said it or when it is looked at again. */
export function SayWater({ load, over = null }: { load: number; over?: Over | null }) {
  const save = useChange((water: Over) =>
    take(api.PUT("/api/loads/{id}/water", { params: { path: { id: load } }, body: { water } })),
  );
  return (
    <>
      <Choice<Over | "">
        label="Water over the lids"
        value={over ?? ""}
        options={optionsOf(OVERS, OVER_WORDS)}
        onChoose={(water) => water !== "" && save.mutate(water)}
      />
      <Trouble error={save.error} />
    </>
  );
}

/** The same of a load under water that has gone in. */
export function WaterOver({ load }: { load: LoadView }) {
  if (load.method !== "boiling_water" || load.now.phase === "waiting") return null;
  return <SayWater load={load.id} over={load.water_over ?? null} />;
}
