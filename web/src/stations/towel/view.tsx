import { useQuery } from "@tanstack/react-query";
import { ask } from "../../queries/queries";
import { useKitchenNow } from "../../base/clock";
import { MINUTE } from "../../writing/format";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Cold } from "./Cold";
import { CoolingLoad } from "./CoolingLoad";
import { Empty } from "../../parts/Way";

/** What cools, what was found at its lids, what is kept cold. */
export function TowelStation() {
  const { data: towel } = useQuery(ask.towel());
  const now = useKitchenNow(MINUTE);
  if (towel === undefined) return <Pending of={[ask.towel()]} />;
  return (
    <div className="grid gap-3 lg:grid-cols-2">
      {towel.length === 0 && (
        <Plate title="The towel is clear">
          <Empty to="/canner" way="To the canner">
            No jars are cooling. They come here out of the canner, and their lids are judged after twelve
            hours.
          </Empty>
        </Plate>
      )}
      {towel.map((load) => (
        <CoolingLoad key={load.load_id} load={load} now={now} />
      ))}
      <BrokenRecords of={["jar"]} />
      <Cold now={now} />
    </div>
  );
}
