import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { ask } from "../../api/queries";
import { batchText, weightText } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
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
  if (error !== null) return <Trouble error={error} />;
  if (data === undefined || counter === undefined) return null;
  const stations = [...new Set(data.steps.map((step) => step.station))];
  return (
    <Plate
      title={`Batch ${data.batch.code}: ${batchText(data.batch)}, ${data.batch.jars} jars`}
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
                    <label className="flex min-h-[48px] items-center gap-3 rounded-xl border-2 border-line bg-white px-3 py-1.5 text-lg leading-snug has-checked:text-muted has-checked:line-through">
                      <input type="checkbox" className="size-7 shrink-0 accent-vine" />
                      {step.text}
                    </label>
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
