import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, take, type JarSize, type JarStep, type LoadView, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { AGENT, batchText, headspaceText, jarText, PRODUCT } from "../../parts/format";
import { Findings } from "../../parts/Findings";
import { useKeys } from "../../parts/keys";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Stepper } from "../../parts/Stepper";
import { Touch } from "../../parts/Touch";
import { BenchCare } from "./BenchCare";
import { Grouping } from "./Grouping";
import { JarRow } from "./JarRow";
import { nextStep, stepsOf } from "./steps";

type Dose = LoadView["doses"][number];

/** The dose for the jars that come first, in figures that read from two metres, and the others under it. */
function Doses({ doses, units }: { doses: readonly Dose[]; units: Units }) {
  const [first, ...others] = doses;
  if (first === undefined) return null;
  const mixed = others.some((other) => other.batch !== first.batch);
  const name = (dose: Dose) =>
    `${mixed ? `${PRODUCT[dose.product].toLowerCase()} ` : ""}${jarText(dose.jar)}`;
  return (
    <Answer value={first.acid} unit={`${AGENT[first.agent]} in each ${name(first)}`}>
      {others.map((other) => `${other.acid} ${AGENT[other.agent]} in each ${name(other)}. `)}
      {first.salt != null && `Salt ${first.salt}. `}
      Acid first, then food to {headspaceText(first.headspace_in, units)} under the rim, bubbles out, rim
      wiped, lid on.
    </Answer>
  );
}

function Bench({ load }: { load: LoadView }) {
  const { data: counter } = useQuery(ask.counter());
  const go = useNavigate();
  const tick = useChange(({ id, step, done }: { id: number; step: JarStep; done: boolean }) =>
    take(api.POST("/api/jars/{id}/steps", { params: { path: { id } }, body: { step, done } })),
  );
  const all = useChange((step: JarStep) =>
    take(api.POST("/api/loads/{id}/steps", { params: { path: { id: load.id } }, body: { step } })),
  );
  const recount = useChange((body: { batch: number; jar: JarSize; count: number }) =>
    take(api.POST("/api/loads/{id}/recount", { params: { path: { id: load.id } }, body })),
  );
  const count = load.jars.length;
  const acid = load.jars.filter((jar) => jar.acid).length;
  const steps = stepsOf(load.jars).map((step) => ({
    ...step,
    have: load.jars.filter((jar) => jar[step.step]).length,
  }));
  const next = steps.find((step) => step.have < count);
  const may = (step: JarStep) => step === "acid" || acid === count;
  useKeys({
    ...Object.fromEntries(
      steps.map(({ step, key }) => [key.toLowerCase(), () => may(step) && all.mutate(step)]),
    ),
    ...Object.fromEntries(
      load.jars
        .slice(0, 9)
        .map((jar, i) => [String(i + 1), () => tick.mutate({ id: jar.id, ...nextStep(jar) })]),
    ),
  });
  if (counter === undefined) return null;
  const mixed = load.doses.some((dose) => dose.batch !== load.batch.id);
  const lacking = load.doses.filter((dose) => dose.still_lacks != null);
  return (
    <Plate
      title={`Load ${load.position} of ${load.of}: ${mixed ? "several batches together" : batchText(load.batch)}`}
      aside={<span className="text-muted">{mixed ? load.canner_name : `Batch ${load.batch.code}`}</span>}
    >
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
        <div className="max-w-[820px]">
          <Doses doses={load.doses} units={counter.kitchen.units} />
        </div>
        <div className="flex flex-wrap gap-4">
          {load.doses.map((line) => {
            const set = (next: number) => recount.mutate({ batch: line.batch, jar: line.jar, count: next });
            return (
              <Stepper
                key={`${line.batch} ${line.jar}`}
                label={`The pot gave ${jarText(line.jar, 2)}${mixed ? ` of ${PRODUCT[line.product].toLowerCase()}` : ""}`}
                text={String(line.count)}
                onLess={line.count > 1 ? () => set(line.count - 1) : undefined}
                onMore={() => set(line.count + 1)}
              />
            );
          })}
        </div>
      </div>
      <JarRow jars={load.jars} mixed={mixed} onTick={(step) => tick.mutate(step)} />
      <div className="mt-4 flex flex-wrap gap-2">
        {steps.map(({ step, word, key, have }) => (
          <Touch
            key={step}
            shortcut={key}
            look={have === count ? "done" : "plain"}
            disabled={!may(step) || have === count}
            label={`${word} in all jars`}
            onPress={() => all.mutate(step)}
          >
            {have === count ? `${word} ✓` : `${word} ${have} of ${count}`}
          </Touch>
        ))}
      </div>
      <div className="mt-3 grid gap-3 sm:grid-cols-2">
        <Touch
          big
          look={next === undefined ? "plain" : "main"}
          disabled={next === undefined}
          onPress={() => next !== undefined && all.mutate(next.step)}
        >
          {next === undefined ? `All ${count} are ready` : next.all}
        </Touch>
        <Touch
          big
          look={next === undefined ? "done" : "plain"}
          disabled={next !== undefined}
          onPress={() => void go("/canner")}
        >
          To the canner
        </Touch>
      </div>
      <div className="mt-4 grid gap-3">
        <Trouble error={tick.error ?? all.error ?? recount.error} />
        {lacking.map((dose) => (
          <Note key={`${dose.batch} ${dose.jar}`} tone="stop">
            <strong>
              The pot had too little acid for these jars: {dose.still_lacks} more {AGENT[dose.agent]} into
              each {jarText(dose.jar)}
            </strong>{" "}
            before it is filled.
          </Note>
        ))}
        <Findings items={load.findings} />
        {acid < count && (
          <Note tone="warn">
            {acid} of {count} jars have their acid. A jar is filled only after its acid is in.
          </Note>
        )}
        <Grouping />
      </div>
      <BenchCare load={load} />
    </Plate>
  );
}

/** Acid in every jar, then everything else. */
export function JarsStation() {
  const { data: loads } = useQuery(ask.loads());
  if (loads === undefined) return null;
  const waiting = loads.filter((item) => item.now.phase === "waiting" && item.jars.length > 0);
  const busy = loads.some((item) => !["waiting", "lifted"].includes(item.now.phase));
  // While the canner is busy a ready load waits, and the next one's jars come to the bench.
  const unready = waiting.find((item) => item.jars.some((jar) => !jar.lid));
  const load = busy ? (unready ?? waiting[0]) : waiting[0];
  if (load === undefined) {
    return (
      <Plate title="The bench is clear">
        <p className="text-lg text-muted">No jars are to be filled. Plan a batch and its jars stand here.</p>
      </Plate>
    );
  }
  return <Bench key={load.id} load={load} />;
}
