import { useQuery } from "@tanstack/react-query";
import { ask } from "../queries/queries";
import { useSay } from "./notices";
import { AltitudeFinder } from "./AltitudeFinder";
import { altitudeText } from "../writing/format";
import { Trouble } from "./Note";
import { useKitchenChange } from "./useKitchenChange";

/** Where a time is missing because the height is: it is said on the spot. */
export function AltitudeHere() {
  const { data: counter } = useQuery(ask.counter());
  const say = useSay();
  const change = useKitchenChange();
  if (counter === undefined || counter.kitchen.altitude_ft != null) return null;
  return (
    <div className="grid gap-3" data-testid="altitude-here">
      <AltitudeFinder
        units={counter.kitchen.units}
        onUse={(feet) =>
          change.mutate({ altitude_ft: feet }, { onSuccess: () => say(`Altitude is ${altitudeText(feet)}`) })
        }
      />
      <Trouble error={change.error} />
    </div>
  );
}
