import { useQuery } from "@tanstack/react-query";
import { ask } from "../api/queries";
import { useAlarm } from "../parts/useAlarm";
import { useKitchenNow } from "./clock";

/** What calls somebody back, whichever station is open: the canner first, then the kettle. */
export function Alarms() {
  const { data: counter } = useQuery(ask.counter());
  const now = useKitchenNow();
  const phase = counter?.canner?.now;
  const kettle = counter?.kettle;
  useAlarm(
    phase?.phase === "time_up" || (phase?.phase === "counting" && phase.ends <= now)
      ? "Time is up: heat off"
      : phase?.phase === "rested" || (phase?.phase === "resting" && phase.ends <= now)
        ? "Rested: lift the jars"
        : kettle != null && kettle.finish <= now
          ? "The kettle is at its mark"
          : null,
  );
  return null;
}
