import { useQuery } from "@tanstack/react-query";
import type { Counter } from "../api/client";
import { ask } from "../api/queries";
import { useAlarm } from "../parts/useAlarm";
import { useKitchenNow } from "./clock";

/** Juice is held between them: 190 and 200 °F. */
const HOLD_FROM_C = 87.8;
const HOLD_TO_C = 93.3;

/** What one canner calls for, if anything. */
function callOf(canner: Counter["canners"][number], now: number): string | null {
  const phase = canner.now;
  switch (phase.phase) {
    case "time_up":
      return "Time is up: heat off";
    case "counting":
      if (phase.ends <= now) return "Time is up: heat off";
      return canner.suggestion === "boil_lost" ? "The probe fell: look for the boil" : null;
    case "heating":
    case "boil_lost":
      return canner.suggestion === "boils" ? "The probe holds the boil: look" : null;
    case "venting":
      return phase.ends <= now ? "Vented: put the weight on" : null;
    case "vented":
      return "Vented: put the weight on";
    case "rested":
      return "Rested: lift the jars";
    case "resting":
      return phase.ends <= now ? "Rested: lift the jars" : null;
    default:
      return null;
  }
}

/** What calls somebody back, whichever station is open: every canner first, then the kettle. */
export function Alarms() {
  const { data: counter } = useQuery(ask.counter());
  const now = useKitchenNow();
  const canners = counter?.canners ?? [];
  const calls = canners.flatMap((canner) => {
    const call = callOf(canner, now);
    return call === null ? [] : [canners.length > 1 ? `${canner.name}: ${call}` : call];
  });
  const kettle = counter?.kettle;
  useAlarm(calls[0] ?? (kettle != null && kettle.finish <= now ? "The kettle is at its mark" : null));
  const { data: day } = useQuery(ask.day());
  useAlarm(day?.reminders[0] ?? null, true);
  const check = counter?.next_check;
  useAlarm(check != null && check <= now ? "The lids can be checked" : null, true);
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
