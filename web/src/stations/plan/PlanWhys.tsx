import { useQuery } from "@tanstack/react-query";
import type { PlanAnswer as Plan, PlanRequest } from "../../api/client";
import { ask } from "../../queries/queries";
import { AGENT, METHOD, jarText } from "../../writing/format";
import { Why } from "../../parts/Why";

/** What the acid comes to, spoons beside grams and millilitres, and what another agent would take. */
export function AcidTotals({ request, plan }: { request: PlanRequest; plan: Plan }) {
  const jars = plan.lines.map(({ jar, count }) => ({ jar, count }));
  const { data } = useQuery(ask.acid({ agent: request.agent, jars }));
  const line = data?.jars[0];
  if (data === undefined || line === undefined) return null;
  return (
    <Why label="Acid in all">
      <p className="mb-2">
        One {jarText(line.jar)}: {line.label}, {line.volume}.
      </p>
      <ul className="grid gap-1.5">
        {data.agents.map((agent) => (
          <li key={agent.agent} className={agent.agent === request.agent ? "font-semibold" : "text-muted"}>
            {agent.total_label} {AGENT[agent.agent]}, {agent.total_volume}
            {agent.bottles != null &&
              `, ${agent.bottles} ${agent.bottles === 1 ? "bottle" : "bottles"} of 15 fl oz`}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">
        Lemon juice from the bottle, level spoons of citric acid. Vinegar changes the taste.
      </p>
    </Why>
  );
}

/** The same jars in every kind of canner. */
export function Methods({ plan }: { plan: Plan }) {
  return (
    <Why label="Other canners">
      <ul className="grid gap-2">
        {plan.methods.map((view) => (
          <li key={view.method}>
            <strong>{METHOD[view.method]}</strong>
            <span className="block text-muted">
              {view.refusal ??
                view.options
                  .map((option) => `${option.minutes} min${option.psi == null ? "" : ` at ${option.psi} lb`}`)
                  .join(", or ")}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">The acid goes in whatever the canner.</p>
    </Why>
  );
}
