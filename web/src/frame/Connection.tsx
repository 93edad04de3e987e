import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useSyncExternalStore } from "react";
import { Note } from "../parts/Note";
import { sentence } from "../parts/sentence";
import { Touch } from "../parts/Touch";
import { keep, watch } from "../connection";

/** Whether Bodega answers, and what waits for it. */
export const useKeeping = () => useSyncExternalStore(keep.subscribe, keep.now);

/** Says on every page that there is no connection, what waits, and what was refused when it arrived. */
export function Connection() {
  const client = useQueryClient();
  const { connected, waiting, late } = useKeeping();
  useEffect(() => watch(() => void client.invalidateQueries()), [client]);
  // What is asked first needs no second asking; what was shown while nobody answered does.
  const wasLost = useRef(false);
  useEffect(() => {
    if (connected && wasLost.current) void client.invalidateQueries();
    wasLost.current = !connected;
  }, [client, connected]);
  if (connected && late.length === 0) return null;
  return (
    <div className="mb-3 grid gap-3 print:hidden" data-testid="connection">
      {!connected && (
        <Note tone="warn">
          <p>
            <strong>Not connected.</strong> The clock on this page runs on by itself.{" "}
            {waiting.length === 0
              ? "What you touch now is kept, and sent with its time when Bodega answers again."
              : `${waiting.length === 1 ? "One touch waits" : `${waiting.length} touches wait`} to be sent, with the time it was touched. Keep this page open.`}
          </p>
        </Note>
      )}
      {late.map(({ touched, words }, place) => (
        <Note key={place} tone="stop">
          <p>
            <strong>Something you touched while there was no connection was not taken.</strong>{" "}
            {sentence(words)} Look at what the station says now, and say it again there if it is still so.
          </p>
          <p className="text-sm text-muted">{touched.path}</p>
        </Note>
      ))}
      {late.length > 0 && <Touch onPress={() => keep.seen()}>Seen</Touch>}
    </div>
  );
}
