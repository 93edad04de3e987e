import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { loadsText, spanText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";

/** Says when the waiting loads of all batches would take less time put together otherwise. */
export function Grouping() {
  const { data: grouping } = useQuery(ask.grouping());
  const regroup = useChange(() => take(api.PUT("/api/loads/grouping")));
  if (grouping == null || grouping.minutes_best >= grouping.minutes_now)
    return <Trouble error={regroup.error} />;
  const saved = grouping.minutes_now - grouping.minutes_best;
  return (
    <Note tone="note">
      <p>
        <strong>
          Combine into {loadsText(grouping.loads_best)}, saves {spanText(saved)} of canner.
        </strong>{" "}
        {grouping.why}
        {grouping.lower_bound_minutes === grouping.minutes_best && " No grouping takes less."}
      </p>
      <Touch look="main" className="mt-2" onPress={() => regroup.mutate(undefined)}>
        Combine them
      </Touch>
      <Trouble error={regroup.error} />
    </Note>
  );
}
