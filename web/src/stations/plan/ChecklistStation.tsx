import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, take } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { batchText, jarsText, weightText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";

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
  const client = useQueryClient();
  const tick = useChange((body: { line: string; done: boolean }) =>
    take(api.PUT("/api/batches/{id}/checklist", { params: { path: { id } }, body })),
  );
  const set = (line: string, done: boolean) => {
    // The tick stands at once; what is kept follows.
    client.setQueryData(ask.checklist(id).queryKey, (before) =>
      before === undefined
        ? before
        : { ...before, ticks: [...before.ticks.filter((text) => text !== line), ...(done ? [line] : [])] },
    );
    tick.mutate({ line, done });
  };
  if (error !== null) return <Trouble error={error} />;
  if (data === undefined || counter === undefined) return <Pending of={[ask.checklist(id), ask.counter()]} />;
  const stations = [...new Set(data.steps.map((step) => step.station))];
  return (
    <Plate
      title={[
        `Batch ${data.batch.code}: ${batchText(data.batch)}`,
        data.batch.jars > 0 && jarsText(data.batch.jars),
      ]
        .filter(Boolean)
        .join(", ")}
      aside={
        <span className="print:hidden">
          <Touch onPress={() => window.print()}>Print</Touch>
        </span>
      }
    >
      <p className="mb-3 text-muted">
        {data.batch.weight_g > 0 &&
          `From ${weightText(data.batch.weight_g, counter.kitchen.units)}, in working order.`}
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
                      on={data.ticks.includes(step.text)}
                      onTick={(on) => set(step.text, on)}
                    />
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </div>
      <Trouble error={tick.error} />
      <p className="mt-4 text-sm text-muted">
        Your local extension office or food authority comes before this list.
      </p>
    </Plate>
  );
}
