import type { LoadView } from "../api/client";
import { Note } from "./Note";

/** Filled jars that have stood on the bench for too long. */
export function WaitNote({ load, now }: { load: Pick<LoadView, "waits_too_long_from">; now: number }) {
  const from = load.waits_too_long_from;
  if (from == null || now < from) return null;
  return (
    <Note tone="warn">
      <strong>These filled jars have waited for more than ten minutes.</strong> A hot pack goes in at once.
      Put them in now; while another load is in the canner, fill no more, and keep the food hot in its pot.
      Jars that have cooled go into warm water, not into water near the boil.
    </Note>
  );
}
