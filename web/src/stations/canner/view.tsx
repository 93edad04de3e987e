import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { LoadView } from "../../api/client";
import { ask } from "../../queries/queries";
import { useKitchenNow } from "../../base/clock";
import { Choice } from "../../parts/Choice";
import { loadText } from "../../writing/format";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { After } from "./After";
import { InCanner } from "./InCanner";
import { figureText, saidNow } from "../../parts/said";
import { WaterNote } from "./WaterNote";
import { Empty } from "../../parts/Way";

/** Loads to look at: all that are in a canner, then the ready one that goes into a free one next. */
function atHand(loads: readonly LoadView[]): LoadView[] {
  const inside = loads.filter((load) => load.now.phase !== "waiting");
  const free = (load: LoadView) => !inside.some((other) => other.canner === load.canner);
  const ready = loads.filter(
    (load) => load.now.phase === "waiting" && load.jars.length > 0 && load.jars.every((jar) => jar.lid),
  );
  const next = ready.find(free) ?? (inside.length === 0 ? ready[0] : undefined);
  return next === undefined ? inside : [...inside, next];
}

/** The canners that are on, each with its clock. */
function WhichCanner({
  shown,
  chosen,
  onChoose,
}: {
  shown: readonly LoadView[];
  chosen: number;
  onChoose: (id: number) => void;
}) {
  const now = useKitchenNow();
  return (
    <Choice
      label="Canners"
      value={String(chosen)}
      options={shown.map((item) => ({
        value: String(item.id),
        text: `${item.canner_name}: ${figureText(saidNow(item, now).figure, now)}`,
      }))}
      onChoose={(id) => onChoose(Number(id))}
    />
  );
}

/** One clock for every canner that is on. */
export function CannerStation() {
  const { data: loads } = useQuery(ask.loads());
  const { data: counter } = useQuery(ask.counter());
  const [wanted, setWanted] = useState<number | null>(null);
  if (loads === undefined) return <Pending of={[ask.loads()]} />;
  const shown = atHand(loads);
  const next = loads.find((item) => item.id === counter?.bench?.load);
  const load = shown.find((item) => item.id === wanted) ?? shown[0];
  return (
    <div className="grid gap-3">
      {shown.length > 1 && load !== undefined && (
        <WhichCanner shown={shown} chosen={load.id} onChoose={setWanted} />
      )}
      {load !== undefined ? (
        <InCanner key={load.id} load={load} />
      ) : (
        <Plate title={next === undefined ? "The canner is empty" : "Next load: make the water ready"}>
          {next === undefined || counter === undefined ? (
            <Empty to="/plan" way="Plan a batch">
              Nothing is planned for the canner. Jars come here from the bench, and their clock runs here.
            </Empty>
          ) : (
            <div className="grid gap-3">
              <p className="text-lg text-muted">
                Load {next.position} of {next.of}, {loadText(next)}: its jars do not all have their lids on
                yet.
              </p>
              <WaterNote load={next} units={counter.kitchen.units} />
              <Link
                to="/jars"
                className="inline-flex min-h-[48px] items-center font-semibold text-link underline underline-offset-4"
              >
                To the jars
              </Link>
            </div>
          )}
        </Plate>
      )}
      <BrokenRecords of={["load_event"]} />
      <After more={loads.length > 0} />
    </div>
  );
}
