import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { ask } from "../../api/queries";
import { batchText, jarsText, weightText } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { useState } from "react";

const STATION: Record<string, string> = {
  crates: "Crates",
  kettle: "Sink and kettle",
  jars: "Jars",
  canner: "Canner",
  towel: "Towel",
};

/** The batch as a list to work through, and to print for the counter. */
export function ChecklistStation() {
  const id = Number(useParams().id);
  const { data, error } = useQuery(ask.checklist(id));
  const { data: counter } = useQuery(ask.counter());
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const tick = (text: string, on: boolean) =>
    setDone((before) => {
      const next = new Set(before);
      if (on) next.add(text);
      else next.delete(text);
      return next;
    });
  if (error !== null) return <Trouble error={error} />;
  if (data === undefined || counter === undefined) return <Pending of={[ask.checklist(id), ask.counter()]} />;
  const stations = [...new Set(data.steps.map((step) => step.station))];
  return (
    <Plate
      title={`Batch ${data.batch.code}: ${batchText(data.batch)}, ${jarsText(data.batch.jars)}`}
      aside={
        <span className="print:hidden">
          <Touch onPress={() => window.print()}>Print</Touch>
        </span>
      }
    >
      <p className="mb-3 text-muted">
        From {weightText(data.batch.weight_g, counter.kitchen.units)}, in working order.
      </p>
      <div className="grid gap-4">
        {stations.map((station) => (
          <section key={station}>
            <h3 className="mb-1 text-lg">{STATION[station] ?? station}</h3>
            <ul className="grid gap-1.5">
              {data.steps
                .filter((step) => step.station === station)
                .map((step) => (
                  <li key={step.text}>
                    <Tick
                      className="rounded-xl border-2 border-edge bg-enamel px-3 text-lg leading-snug has-data-[state=checked]:text-muted has-data-[state=checked]:line-through"
                      label={step.text}
                      on={done.has(step.text)}
                      onTick={(on) => tick(step.text, on)}
                    />
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </div>
      <p className="mt-4 text-sm text-muted">
        Your local extension office or food authority comes before this list.
      </p>
    </Plate>
  );
}
