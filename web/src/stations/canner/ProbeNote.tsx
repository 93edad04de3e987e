import { api, take, type LoadView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { temperatureText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { useDevice } from "../../device/device";

/** What the probe says, and the simulated one to practise with. */
export function ProbeNote({ load }: { load: LoadView }) {
  const flame = useChange((on: boolean) =>
    take(api.PUT("/api/loads/{id}/simulation", { params: { path: { id: load.id } }, body: { flame: on } })),
  );
  const { practice } = useDevice();
  const probe = load.probe;
  const phase = load.now.phase;
  const waits = phase === "heating" || phase === "boil_lost" || phase === "vented";
  return (
    <div className="grid gap-3">
      {probe != null && waits && probe.suggestion === "boils" && (
        <Note tone="good">
          The probe has held {temperatureText(probe.temp_c)} for a minute. Look: when it boils hard all over,
          say so.
        </Note>
      )}
      {probe != null && phase === "counting" && probe.suggestion === "boil_lost" && (
        <Note tone="stop">
          The probe fell to {temperatureText(probe.temp_c)}. Look: if the boil is gone, say so at once.
        </Note>
      )}
      <div className="flex flex-wrap items-center gap-2 text-sm">
        {probe != null && (
          <span className="text-base font-semibold">
            Probe {temperatureText(probe.temp_c)}
            {probe.simulated && <span className="font-normal text-muted"> (simulated)</span>}
          </span>
        )}
        {load.simulated_flame == null ? (
          practice && <Touch onPress={() => flame.mutate(true)}>Simulated probe, for practice</Touch>
        ) : (
          <Touch onPress={() => flame.mutate(load.simulated_flame !== true)}>
            {load.simulated_flame ? "Simulated: flame out" : "Simulated: light it again"}
          </Touch>
        )}
      </div>
      <Trouble error={flame.error} />
    </div>
  );
}
