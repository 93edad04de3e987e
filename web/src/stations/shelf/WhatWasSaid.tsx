import { useState } from "react";
import { useLocation } from "react-router";
import { api, take, type Added, type BatchRecord, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import { ContentsPicker } from "../../parts/ContentsPicker";
import { altitudeText, clockText, dayText } from "../../writing/format";
import { LoadCard } from "../../parts/LoadCard";
import { WaterOver } from "../../parts/WaterOver";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { WORDS } from "../../api/words.generated";

/** By whom and when something was said. */
const saidBy = (at: number, who: string | null | undefined) =>
  `${dayText(at)}, ${clockText(at)}${who == null ? "" : `, on ${who}`}`;

function Contents({ record }: { record: BatchRecord }) {
  const { batch } = record;
  const [said, setSaid] = useState<Added[] | null>(batch.additions ?? null);
  const save = useChange((additions: Added[]) =>
    take(api.PUT("/api/batches/{id}/additions", { params: { path: { id: batch.id } }, body: { additions } })),
  );
  return (
    <div className="grid gap-2">
      <ContentsPicker value={batch.additions ?? null} onSay={setSaid} />
      <div>
        <Touch look="main" disabled={said === null} onPress={() => said !== null && save.mutate(said)}>
          Save what went in
        </Touch>
      </div>
      <Trouble error={save.error} />
    </div>
  );
}

/** What was said of a batch's jars, to be put right when it was wrong; what was said before stays in sight. */
export function WhatWasSaid({ record, units }: { record: BatchRecord; units: Units }) {
  const [open, setOpen] = useState(useLocation().hash === "#said");
  const lifted = record.loads.filter((load) => load.now.phase === "lifted");
  return (
    <div id="said" className="print:mt-2">
      <ul className="text-muted">
        {record.corrections.map((one) => (
          <li key={`${one.at}${one.about}`}>
            Corrected {saidBy(one.at, one.who)}: {one.about}, from “{one.was}” to “{one.says}”.
          </li>
        ))}
        {record.altitudes.map((one) => (
          <li key={one.at}>
            Altitude {saidBy(one.at, one.who)}: from {altitudeText(one.was_ft)} to{" "}
            {altitudeText(one.altitude_ft)}, {WORDS.AltitudeReason[one.reason]}.
          </li>
        ))}
      </ul>
      {lifted.length > 0 && (
        <div className="mt-2 grid gap-3 print:hidden">
          <div>
            <Touch onPress={() => setOpen(!open)}>{open ? "That is all" : "Correct what was said"}</Touch>
          </div>
          {open && record.batch.recipe == null && <Contents record={record} />}
          {open &&
            lifted.map((load) => (
              <div key={load.id} className="grid gap-2">
                <LoadCard load={load} units={units} />
                <WaterOver load={load} />
              </div>
            ))}
        </div>
      )}
    </div>
  );
}
