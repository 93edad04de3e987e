import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { BatchRecord } from "../../api/client";
import { ask } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { BatchName } from "../../parts/BatchName";
import {
  AGENT,
  altitudeText,
  batchText,
  capital,
  clockText,
  CONDITION,
  dayText,
  historyText,
  INGREDIENT,
  jarsText,
  jarText,
  METHOD,
  shortDay,
  weightText,
} from "../../writing/format";
import { contentsText } from "../../parts/contents";
import { Findings } from "../../parts/Findings";
import { Liking } from "../../parts/Liking";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { NotAsked, Questions } from "../../parts/Questions";
import { Touch } from "../../parts/Touch";
import { PhForm } from "./PhForm";
import { WhatWasSaid } from "./WhatWasSaid";
import { WhereItWent } from "./WhereItWent";

/** Phases in which nothing more counts. */
const DONE = new Set(["dropping", "resting", "rested", "lifted"]);

function Loads({ record }: { record: BatchRecord }) {
  return record.loads.map((load) => (
    <div key={load.id} className="border-t-2 border-line py-2 first:border-t-0">
      <p className="font-semibold">
        Load {load.position}, {jarsText(load.jars.length)} in {load.canner_name}:{" "}
        <span className={DONE.has(load.now.phase) ? (load.processed ? "text-fine" : "text-alarm") : ""}>
          {load.unbroken_minutes} of {load.minutes} min unbroken
          {DONE.has(load.now.phase) ? (load.processed ? ", processed" : ", not processed") : " so far"}
        </span>
      </p>
      <p className="text-muted">{historyText(load)}</p>
      <Findings items={load.judged.findings} />
      <Questions items={load.judged.questions} load={load.id} />
      <NotAsked items={load.judged.not_asked} />
    </div>
  ));
}

/** A batch from the fruit to the table, on one page that prints. */
export function RecordStation() {
  const id = Number(useParams().id);
  const { data: record, error } = useQuery(ask.record(id));
  const { data: counter } = useQuery(ask.counter());
  if (error !== null) return <Trouble error={error} />;
  if (record === undefined || counter === undefined) return <Pending of={[ask.record(id), ask.counter()]} />;
  const units = counter.kitchen.units;
  const { batch } = record;
  const isCold = batch.recipe != null && batch.recipe.process == null;
  const lifted = record.jars.map((jar) => jar.lifted_at ?? 0).filter((at) => at > 0);
  const sealed = record.jars.filter((jar) => jar.verdict === "holds");
  return (
    <Plate
      title={`Batch ${batch.code}: ${batchText(batch)}`}
      aside={
        <span className="flex flex-wrap gap-2 print:hidden">
          <Touch onPress={() => window.print()}>Print</Touch>
          <a
            href={`/api/batches/${batch.id}/recipe.jsonld`}
            className="inline-flex min-h-[50px] items-center px-2 font-semibold text-link underline underline-offset-4"
          >
            As a recipe file
          </a>
          {sealed.length > 0 && (
            <Link
              to={`/labels?jars=${sealed.map((jar) => jar.id).join(",")}`}
              className="inline-flex min-h-[50px] items-center px-2 font-semibold text-link underline underline-offset-4"
            >
              Labels
            </Link>
          )}
        </span>
      }
    >
      <div className="grid gap-5 lg:grid-cols-2">
        <section>
          <h3 className="text-xl">What it is</h3>
          <p className="text-lg">
            {record.household}
            {!isCold && `, ${altitudeText(batch.altitude_ft)}, ${METHOD[batch.method].toLowerCase()}`}
            {batch.recipe == null
              ? `, ${AGENT[batch.agent]} in every jar${batch.salt ? ", salted" : ""}`
              : batch.recipe.source !== "" && `, by ${batch.recipe.source}`}
            {batch.additions != null &&
              batch.additions.length > 0 &&
              `, with ${contentsText(batch.additions, INGREDIENT)}`}
            . {isCold && "Not canned."} {record.recipe_acid}
            {lifted.length > 0 && ` Out of the canner ${dayText(Math.min(...lifted))}.`}
          </p>
          {batch.note != null && <p className="mt-1 text-lg whitespace-pre-line">{batch.note}</p>}
          {batch.liked != null && (
            <p className="mt-1 hidden text-lg print:block">{capital(WORDS.Liking[batch.liked])}.</p>
          )}
          <div className="mt-2 grid gap-3 print:hidden">
            <Liking batch={batch} />
            <BatchName batch={batch} />
          </div>
          {record.bowls != null && (
            <>
              <h3 className="mt-4 text-xl">In the bowls</h3>
              <ul className="text-lg">
                {record.bowls.said.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
              {!isCold && <p className="text-lg font-semibold">{record.bowls.may_can.says}</p>}
            </>
          )}
          {record.fruit.length > 0 && <h3 className="mt-4 text-xl">Fruit</h3>}
          <ul className="text-lg">
            {record.fruit.map(({ lot, words, note, weight_g }) => (
              <li key={lot.id}>
                {weightText(weight_g, units)} {words}
                {lot.food === "fruit" &&
                  `, ${lot.frozen ? "frozen" : "picked"} ${shortDay(lot.picked_on)}, ${CONDITION[lot.condition].toLowerCase()}`}
                {note != null && `. ${note}`}
              </li>
            ))}
          </ul>
          {batch.chilled_at != null && (
            <p className="text-lg">
              It waited in the refrigerator from {dayText(batch.chilled_at)}, {clockText(batch.chilled_at)}.
            </p>
          )}
          <h3 className="mt-4 text-xl">pH</h3>
          <ul className="text-lg">
            {record.ph.map((reading) => (
              <li key={reading.at}>
                {reading.ph.toFixed(2)} at {clockText(reading.at)}
                {reading.sample != null && `, ${WORDS.PhSample[reading.sample]}`}
                {reading.did != null && `, ${WORDS.Remedy[reading.did]}`}
                {reading.calibrated_today === true && ", meter calibrated that day"}
                <Findings items={reading.findings} />
              </li>
            ))}
          </ul>
          <p className="mb-2 text-muted">
            A reading never replaces the acid and never shortens the time; it can only warn.
          </p>
          <PhForm
            batch={batch.id}
            wasHigh={record.ph.some((reading) => reading.findings.some((found) => found.code === "ph_high"))}
          />
        </section>
        {!isCold && (
          <section>
            <h3 className="text-xl">Canner</h3>
            <Loads record={record} />
            <WhatWasSaid record={record} units={units} />
          </section>
        )}
      </div>
      <WhereItWent record={record} units={units} />
      {!isCold && <h3 className="mt-4 text-xl">Jars</h3>}
      <ul className="grid gap-x-6 text-lg sm:grid-cols-2 lg:grid-cols-3">
        {record.jars.map((jar) => (
          <li key={jar.id}>
            <Link to={`/jar/${jar.id}`} className="font-semibold underline underline-offset-4">
              {jar.number}
            </Link>{" "}
            {jarText(jar.size)}: {jar.whereabouts}
            {jar.acid_after_food && ", acid after the food"}
            {jar.earlier_loads.length > 0 && `, processed ${jar.earlier_loads.length + 1} times`}
          </li>
        ))}
      </ul>
    </Plate>
  );
}
