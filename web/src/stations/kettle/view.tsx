import { useQuery } from "@tanstack/react-query";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Fold } from "../../parts/Fold";
import { Pending } from "../../parts/Pending";
import { ask } from "../../queries/queries";
import { useKitchenNow } from "../../base/clock";
import { MINUTE } from "../../writing/format";
import { CookPlate } from "./CookPlate";
import { PutOn } from "./PutOn";

/** How thick, how long, where is the mark. */
export function KettleStation() {
  const { data: cooks } = useQuery(ask.cooks());
  const { data: counter } = useQuery(ask.counter());
  const now = useKitchenNow(MINUTE / 4);
  if (cooks === undefined || counter === undefined) return <Pending of={[ask.cooks(), ask.counter()]} />;
  const units = counter.kitchen.units;
  return (
    <div className="grid gap-3">
      {cooks.map((cook) => (
        <CookPlate key={cook.id} cook={cook} units={units} now={now} />
      ))}
      <BrokenRecords of={["kettle", "cook", "cook_event"]} />
      {cooks.length === 0 ? (
        <PutOn units={units} />
      ) : (
        <Fold words="Put another kettle on">
          <PutOn units={units} />
        </Fold>
      )}
    </div>
  );
}
