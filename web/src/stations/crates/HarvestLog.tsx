import { useRef } from "react";
import { importHarvest } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Fold } from "../../parts/Fold";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";

/** The harvest log as a file, out and in. */
export function HarvestLog() {
  const file = useRef<HTMLInputElement>(null);
  const say = useSay();
  const bring = useChange(importHarvest, (done) =>
    say(`${done.lots} ${done.lots === 1 ? "lot" : "lots"} came in from the file`),
  );
  return (
    <div className="mt-4 grid gap-3 border-t-2 border-line pt-4">
      <Fold words="Harvest log, as CSV">
        <div className="flex flex-wrap items-center gap-3">
          <a
            href="/api/harvest.csv"
            download
            className="inline-flex min-h-[50px] items-center rounded-2xl border-[3px] border-cobalt bg-porcelain px-4 font-semibold hover:bg-cobalt-wash"
          >
            Save it
          </a>
          <Touch onPress={() => file.current?.click()}>Bring one in</Touch>
          <input
            ref={file}
            type="file"
            accept=".csv,text/csv"
            aria-label="Harvest log to bring in"
            className="sr-only"
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              if (chosen !== undefined) bring.mutate(chosen);
              event.target.value = "";
            }}
          />
        </div>
      </Fold>
      <Trouble error={bring.error} />
    </div>
  );
}
