import { useQuery } from "@tanstack/react-query";
import { api, take, type BoilEvent, type LoadView } from "../api/client";
import { ask, useChange } from "../queries/queries";
import { Trouble } from "../parts/Note";
import { Plate } from "../parts/Plate";
import { Touch } from "../parts/Touch";
import { figureText, saidNow, touchText, wordsText } from "../parts/said";
import { useKitchenNow } from "../base/clock";

/** The clock of one load and what may be said of it, with nothing else that could fail. */
function BareClock({ load }: { load: LoadView }) {
  const now = useKitchenNow();
  const said = saidNow(load, now);
  const happen = useChange((event: BoilEvent) =>
    take(api.POST("/api/loads/{id}/events", { params: { path: { id: load.id } }, body: { event } })),
  );
  return (
    <div className="mt-4">
      <p className="text-muted">{load.canner_name}</p>
      <p className="font-slab text-6xl font-bold" data-testid="clock">
        {figureText(said.figure, now)}
      </p>
      <p className="mb-3 text-xl">{wordsText(said)}</p>
      <div className="flex flex-wrap gap-2">
        {said.touches.map((touch) => (
          <Touch key={touch.event} big onPress={() => happen.mutate(touch.event)}>
            {touchText(touch, now)}
          </Touch>
        ))}
      </div>
      <Trouble error={happen.error} />
    </div>
  );
}

/** What stands in the place of a screen that could not be drawn: the canner's clock and its touches go on. */
export function Fallen({ again }: { again?: () => void }) {
  const { data: loads } = useQuery(ask.loads());
  const inCanner = (loads ?? []).filter((load) => load.events.length > 0);
  return (
    <Plate title="This screen could not be drawn">
      <p className="text-lg">
        Nothing is lost: everything that was said is on disk. {inCanner.length > 0 && "The canner goes on:"}
      </p>
      {inCanner.map((load) => (
        <BareClock key={load.id} load={load} />
      ))}
      <div className="mt-4 flex flex-wrap gap-3">
        {again !== undefined && <Touch onPress={again}>Try again</Touch>}
        <Touch onPress={() => window.location.reload()}>Load the page anew</Touch>
      </div>
    </Plate>
  );
}
