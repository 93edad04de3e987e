import { api, take, type Fix } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import type { WayOut } from "../../parts/Findings";

/** The ways out of a finding that the canner can take at a touch. */
export function useWays(load: number) {
  const say = useSay();
  const retime = useChange(
    (psi: number | null) =>
      take(api.PUT("/api/loads/{id}/time", { params: { path: { id: load } }, body: { psi } })),
    (changed) => say(`${changed.minutes} minutes now`),
  );
  const ways = (fix: Fix): WayOut[] => {
    switch (fix.way) {
      case "raise_time":
        return [{ text: `Set ${fix.minutes} minutes`, take: () => retime.mutate(null) }];
      case "use_pressure":
        return fix.options.map(({ psi, minutes }) => ({
          text: `Hold ${psi ?? 0} lb for ${minutes} min`,
          take: () => retime.mutate(psi ?? null),
        }));
      // The altitude is asked for among the questions.
      case "find_altitude":
      case "use_boiling_water":
      case "bring_back_boil":
        return [];
    }
  };
  return { ways, error: retime.error };
}
