import type { LoadView } from "../api/client";
import { useAtMoment } from "../base/clock";
import { Note } from "./Note";

/** Filled jars that have stood on the bench for too long. */
export function WaitNote({ load }: { load: Pick<LoadView, "waits_too_long_from"> }) {
  const from = load.waits_too_long_from;
  const waits = useAtMoment((now) => from != null && now >= from);
  if (!waits) return null;
  return (
    <Note tone="warn">
      <strong>These filled jars have waited for more than ten minutes.</strong> A hot pack goes in at once.
      Put them in now; while another load is in the canner, fill no more, and keep the food hot in its pot.
      Jars that have cooled go into warm water, not into water near the boil.
    </Note>
  );
}
