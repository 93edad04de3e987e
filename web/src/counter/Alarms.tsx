import { useQuery } from "@tanstack/react-query";
import { ask } from "../api/queries";
import { useAlarm } from "../parts/useAlarm";
import { useKitchenNow } from "./clock";

/** Juice is held between them: 190 and 200 °F. */
const HOLD_FROM_C = 87.8;
const HOLD_TO_C = 93.3;

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
  const hot = kettle?.temp_c ?? 0;
  useAlarm(
    hot >= HOLD_TO_C
      ? "The kettle is at 200 °F, 93 °C: turn it down"
      : hot >= HOLD_FROM_C
        ? "The kettle is at 190 °F, 88 °C"
        : null,
    true,
  );
  return null;
}
