import { useQuery } from "@tanstack/react-query";
import type { Finding, JarSize, PlanAnswer as Plan, PlanPreview, PlanRequest, Units } from "../../api/client";
import { ask } from "../../api/queries";
import {
  AGENT,
  METHOD,
  amountText,
  altitudeText,
  headspaceText,
  jarText,
  spanText,
  volumeText,
} from "../../parts/format";
import { Choice } from "../../parts/Choice";
import { Findings } from "../../parts/Findings";
import { CannerPicture } from "../../parts/CannerPicture";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { SourceText, Why } from "../../parts/Why";
import { KG_PER_LB, L_PER_QUART } from "../../parts/units";

function Figure({ value, words }: { value: string; words: string }) {
  return (
    <div className="min-w-0">
      <p className="font-slab text-[1.9rem] leading-tight font-bold">{value}</p>
      <p className="text-muted">{words}</p>
    </div>
  );
}

/** What the acid comes to, spoons beside grams and millilitres, and what another agent would take. */
function AcidTotals({ request, plan, units }: { request: PlanRequest; plan: Plan; units: Units }) {
  const jars = plan.lines.map(({ jar, count }) => ({ jar, count }));
  const { data } = useQuery(ask.acid({ agent: request.agent, jars }));
  const line = data?.jars[0];
  if (data === undefined || line === undefined) return null;
  return (
    <Why label="Acid in all">
      <p className="mb-2">
        One {jarText(line.jar)}: {line.label}, {amountText(line.per_jar_ml, line.per_jar_g, units)}.
      </p>
      <ul className="grid gap-1.5">
        {data.agents.map((agent) => (
          <li key={agent.agent} className={agent.agent === request.agent ? "font-semibold" : "text-muted"}>
            {agent.total_label} {AGENT[agent.agent]}, {amountText(agent.total_ml, agent.total_g, units)}
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
function Methods({ plan }: { plan: Plan }) {
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

/** "published 2½ to 3½ lb a quart, yours 2.9 from 6 batches" */
function yieldText({ published, learned, batches }: Plan["yields"], units: Units): string {
  const amount = (pounds: number) =>
    (units === "us" ? pounds : (pounds * KG_PER_LB) / L_PER_QUART).toFixed(1);
  const per = units === "us" ? "lb a quart" : "kg a litre";
  if (batches === 0) return "by the published range";
  const count = batches === 1 ? "1 batch" : `${batches} batches`;
  return `published ${amount(published.low)} to ${amount(published.high)} ${per}, yours ${amount(learned.expected)} from ${count}`;
}

/** Enough of a jar to be worth a word, in litres. */
const WORTH_SAYING_L = 0.12;

function Rest({
  plan,
  units,
  rest,
  onRest,
}: {
  plan: Plan;
  units: Units;
  rest: PlanRequest["rest"];
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
}) {
  const left = plan.left_over_litres;
  if (left < -WORTH_SAYING_L) {
    return (
      <Note tone="warn">
        These jars hold {volumeText(-left, units)} more than this fruit is expected to give.
      </Note>
    );
  }
  return (
    <Choice
      label={
        left < WORTH_SAYING_L
          ? "If a little fills no jar, it goes into the"
          : `About ${volumeText(left, units)} fill no jar and go into the`
      }
      value={rest ?? ""}
      options={[
        { value: "refrigerator", text: "Refrigerator" },
        { value: "freezer", text: "Freezer" },
      ]}
      onChoose={(next) => next !== "" && onRest(next)}
    />
  );
}

function MixSteps({
  plan,
  jar,
  onJars,
}: {
  plan: Plan;
  jar: JarSize;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
}) {
  const step = (size: JarSize, by: number) =>
    onJars(
      plan.lines.map((line) => ({
        jar: line.jar,
        count: line.jar === size ? Math.max(0, line.count + by) : line.count,
      })),
    );
  const small: JarSize | undefined =
    plan.lines.some((line) => line.jar === "pint") || jar === "half_pint" ? undefined : "pint";
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      {plan.lines.map((line) => (
        <div key={line.jar} className="flex items-center gap-2">
          <Touch onPress={() => step(line.jar, -1)} disabled={line.count === 0}>
            −
          </Touch>
          <span className="min-w-24 text-center font-semibold">
            {line.count} {jarText(line.jar, line.count)}
          </span>
          <Touch onPress={() => step(line.jar, 1)}>+</Touch>
        </div>
      ))}
      {small !== undefined && jar !== small && (
        <Touch
          onPress={() =>
            onJars([
              ...plan.lines.map(({ jar: size, count }) => ({ jar: size, count })),
              { jar: small, count: 1 },
            ])
          }
        >
          + a pint
        </Touch>
      )}
    </div>
  );
}

function Worked({
  plan,
  findings,
  request,
  altitude,
  units,
  accepting,
  onJars,
  onRest,
  onAccept,
}: {
  plan: Plan;
  findings: Finding[];
  request: PlanRequest;
  altitude: number;
  units: Units;
  accepting: boolean;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
  onAccept: () => void;
}) {
  const first = plan.lines[0];
  const jars = plan.lines.reduce((sum, line) => sum + line.count, 0);
  const longest = plan.loads[0]?.minutes ?? 0;
  const added = first === undefined ? 0 : (first.options[0]?.minutes ?? 0) - first.sea_level_minutes;
  const { low, expected, high } = plan.full_jars;
  // A caution that the judge has raised already is said once.
  const cautions = [...new Set(plan.lines.flatMap((line) => line.cautions))].filter(
    (caution) => !findings.some((finding) => finding.message === caution),
  );
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div className="min-w-0 flex-1 basis-60">
          <Answer value={expected} unit={jarText(request.jar, expected)}>
            expect {low} to {high}, {yieldText(plan.yields, units)}
          </Answer>
        </div>
        <div className="flex flex-wrap gap-2">
          {plan.loads.slice(0, 4).map((load, index) => {
            const count = load.jars.reduce((sum, line) => sum + line.count, 0);
            return (
              <figure key={index} className="text-center">
                <div className="mx-auto size-[84px]">
                  <CannerPicture
                    jars={load.standing.map((place, i) => ({ label: i + 1, place, gone: false }))}
                    boiling={false}
                  />
                </div>
                <figcaption className="text-sm font-semibold">
                  {count} × {load.minutes} min
                </figcaption>
              </figure>
            );
          })}
        </div>
      </div>
      <div className="grid grid-cols-2 gap-4 border-y-2 border-line py-3 sm:grid-cols-3">
        <Figure
          value={`${longest} min`}
          words={
            added > 0
              ? `at ${altitudeText(altitude, units)}, ${added} more than at sea level`
              : `at ${altitudeText(altitude, units)}`
          }
        />
        <Figure
          value={first?.acid ?? ""}
          words={`${AGENT[request.agent]} per ${jarText(request.jar)}, ${plan.acid_total} in all`}
        />
        <Figure
          value={`${plan.loads.length} ${plan.loads.length === 1 ? "load" : "loads"}`}
          words={`${spanText(plan.canner_minutes)} of canner, ${headspaceText(plan.headspace_in, units)} headspace`}
        />
      </div>
      {plan.loads.length > 1 && (
        <p className="text-muted">
          {plan.why}
          {plan.shortest && " No grouping takes less."}
        </p>
      )}
      {request.salt === true && (
        <p className="text-muted">
          Salt for taste: {plan.lines.map((line) => `${line.salt} per ${jarText(line.jar)}`).join(", ")}.
        </p>
      )}
      <MixSteps plan={plan} jar={request.jar} onJars={onJars} />
      <Findings items={findings} />
      {plan.missing.length > 0 && (
        <Note tone="warn">The cupboard lacks {[...new Set(plan.missing)].join(", ")} for this.</Note>
      )}
      {cautions.map((caution) => (
        <Note key={caution} tone="warn">
          {caution}
        </Note>
      ))}
      <div className="flex flex-wrap items-center gap-4">
        <Touch big look="main" disabled={jars === 0 || accepting} onPress={onAccept} className="grow">
          Set out {jars} {jars === 1 ? "jar" : "jars"}
        </Touch>
        <AcidTotals request={request} plan={plan} units={units} />
        <Methods plan={plan} />
        <Why label={`Why ${longest} minutes`}>
          <p className="mb-2">
            Water boils cooler the higher you are, so the tested time rises with altitude. It also depends on
            the pack, what the fruit lies in, and the jar. Change one and this time no longer holds.
          </p>
          {first !== undefined && <SourceText source={first.source} />}
          <p className="mt-2 text-muted">
            Your local extension office or food authority comes before Bodega.
          </p>
        </Why>
      </div>
      <Rest plan={plan} units={units} rest={request.rest} onRest={onRest} />
    </div>
  );
}

export function PlanAnswer({
  request,
  preview,
  units,
  trouble,
  accepting,
  onJars,
  onRest,
  onAccept,
}: {
  request: PlanRequest;
  preview: PlanPreview | undefined;
  units: Units;
  trouble: Error | null;
  accepting: boolean;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
  onAccept: () => void;
}) {
  if (trouble !== null) {
    return (
      <Plate title="This makes">
        <Trouble error={trouble} />
      </Plate>
    );
  }
  if (preview === undefined) {
    return (
      <Plate title="This makes">
        <p className="text-lg text-muted">Choose fruit to see what it makes.</p>
      </Plate>
    );
  }
  if (preview.refusal != null) {
    return (
      <Plate title="There is no tested way">
        <Note tone="stop">
          <p className="text-lg font-semibold">{preview.refusal.message}</p>
          <p className="mt-2">Do this instead:</p>
          <ul className="ml-5 list-disc">
            {preview.refusal.instead.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </Note>
      </Plate>
    );
  }
  return (
    <Plate title="This makes">
      {preview.plan != null && (
        <Worked
          plan={preview.plan}
          findings={preview.findings}
          request={request}
          altitude={preview.altitude_ft}
          units={units}
          accepting={accepting}
          onJars={onJars}
          onRest={onRest}
          onAccept={onAccept}
        />
      )}
    </Plate>
  );
}
