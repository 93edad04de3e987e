import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type JarStep, type LoadView } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { isShared, jarsText, jarText, loadText } from "../../writing/format";
import { Findings } from "../../parts/Findings";
import { LoadCard } from "../../parts/LoadCard";
import { useKeys, useTypedNumber } from "../../parts/keys";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Questions } from "../../parts/Questions";
import { Touch } from "../../parts/Touch";
import { WaitNote } from "../../parts/WaitNote";
import { BenchCare } from "./BenchCare";
import { Doses } from "./Doses";
import { Grouping } from "./Grouping";
import { LeftOver } from "./LeftOver";
import { JarRow } from "./JarRow";
import { RecipeStop } from "./RecipeStop";
import { HANDS, touchOf, type Hand, type Jar, type Tick } from "./model";
import { Dock } from "../../parts/Dock";
import { Empty } from "../../parts/Way";

function Bench({ load }: { load: LoadView }) {
  const { data: counter } = useQuery(ask.counter());
  const go = useNavigate();
  const say = useSay();
  const [hand, setHand] = useState<Hand>("next");
  const tick = useChange(({ id, ...body }: Tick & { id: number }) =>
    take(api.POST("/api/jars/{id}/steps", { params: { path: { id } }, body })),
  );
  const back = useChange((at: number) =>
    take(api.DELETE("/api/loads/{id}/steps/{at}", { params: { path: { id: load.id, at } } })),
  );
  const all = useChange(
    (step: JarStep) =>
      take(api.POST("/api/loads/{id}/steps", { params: { path: { id: load.id } }, body: { step } })),
    ({ at }, step) => say(load.steps.find((line) => line.step === step)?.all ?? step, () => back.mutate(at)),
  );
  const count = load.jars.length;
  const acid = load.jars.filter((jar) => jar.has_acid).length;
  const { steps } = load;
  const next = steps.find((step) => step.have < count);
  const touch = (jar: Jar) => {
    const said = touchOf(jar, hand);
    if (said !== null) tick.mutate({ id: jar.id, ...said });
  };
  const may = (step: JarStep) => step === "acid" || acid === count;
  useKeys([
    ...steps.map(({ step, key, all: text }) => ({
      key,
      text,
      press: () => {
        if (may(step)) all.mutate(step);
      },
    })),
    { key: "1…", text: `A jar by its number: ${HANDS[hand].toLowerCase()}`, press: () => undefined },
  ]);
  useTypedNumber(
    // Two batches may each have a jar of that number; which one is meant is then said by touch.
    load.jars
      .map((jar) => jar.number)
      .filter((number, _, all) => all.indexOf(number) === all.lastIndexOf(number)),
    (number) => load.jars.filter((jar) => jar.number === number).forEach(touch),
  );
  if (counter === undefined) return null;
  const mixed = isShared(load);
  const lacking = load.doses.filter((dose) => dose.still_lacks != null);
  return (
    <Plate
      title={`Load ${load.position} of ${load.of}: ${loadText(load)}`}
      aside={<span className="text-muted">{mixed ? load.canner_name : `Batch ${load.batch.code}`}</span>}
    >
      <div className="mb-3 grid gap-3 empty:hidden">
        <RecipeStop load={load} />
      </div>
      <Doses load={load} units={counter.kitchen.units} />
      <JarRow load={load} mixed={mixed} onTouch={touch} />
      <div className="mt-3">
        <Choice
          label="A touch on a jar"
          value={hand}
          options={optionsOf(Object.keys(HANDS) as Hand[], HANDS)}
          onChoose={setHand}
        />
      </div>
      <div className="mt-4 flex flex-wrap gap-2">
        {steps.map(({ step, thing, key, have }) => (
          <Touch
            key={step}
            shortcut={key}
            look={have === count ? "done" : "plain"}
            disabled={!may(step) || have === count}
            onPress={() => all.mutate(step)}
          >
            <span>
              {have === count ? `${thing} ✓` : `${thing} ${have} of ${count}`}
              <span className="sr-only"> in all jars</span>
            </span>
          </Touch>
        ))}
      </div>
      <div className="mt-4 grid gap-3">
        <Trouble error={tick.error ?? all.error ?? back.error} />
        {lacking.map((dose) => (
          <Note key={`${dose.batch} ${dose.jar}`} tone="stop">
            <strong>
              The pot had too little acid for these jars: {dose.still_lacks} ({dose.to_add_volume}) more{" "}
              {dose.acid_name} into each {jarText(dose.jar)}
              {mixed && ` of ${dose.code}`}
            </strong>{" "}
            before it is filled.
          </Note>
        ))}
        {load.before_filling != null && <Note tone="note">{load.before_filling}</Note>}
        {load.jars.some((jar) => jar.filled) && <LoadCard load={load} units={counter.kitchen.units} />}
        <WaitNote load={load} />
        <Findings items={load.judged.findings} />
        <Questions items={load.judged.questions} />
        {acid < count && (
          <Note tone="warn">
            Acid is in {acid} of {jarsText(count)}. It goes in before the food. Is the food in already? Say so
            of the jar, add the dose before its lid, and measure the headspace again.
          </Note>
        )}
        <Grouping />
      </div>
      <div className="mt-3">
        <LeftOver load={load} units={counter.kitchen.units} />
      </div>
      <BenchCare load={load} />
      <Dock>
        <div className="grid grid-cols-[1.6fr_1fr] gap-2 sm:grid-cols-2 sm:gap-3">
          <Touch
            big
            look={next === undefined || load.recipes.some((recipe) => recipe.stops) ? "plain" : "main"}
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
      </Dock>
    </Plate>
  );
}

/** Acid in every jar, then everything else. */
export function JarsStation() {
  const { data: loads } = useQuery(ask.loads());
  const { data: counter } = useQuery(ask.counter());
  if (loads === undefined || counter === undefined) return <Pending of={[ask.loads(), ask.counter()]} />;
  const load = loads.find((item) => item.id === counter.bench?.load);
  if (load !== undefined) return <Bench key={load.id} load={load} />;
  return (
    <Plate title="The bench is clear">
      <Empty to="/plan" way="Plan a batch">
        No jars are to be filled. Plan a batch and its jars stand here, each with its acid.
      </Empty>
    </Plate>
  );
}
