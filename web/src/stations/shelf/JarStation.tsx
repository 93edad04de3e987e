import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { ask } from "../../queries/queries";
import { AGENT, batchText, clockText, dayText, jarText } from "../../writing/format";
import { JarPicture } from "../../parts/JarPicture";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Questions } from "../../parts/Questions";
import { Touch } from "../../parts/Touch";
import { useUndosed } from "../../parts/useUndosed";
import { Leave } from "./Leave";

/** One jar, as the code on its label opens it. */
export function JarStation() {
  const id = Number(useParams().id);
  const { data, error } = useQuery(ask.jar(id));
  const undosed = useUndosed();
  if (error !== null) return <Trouble error={error} />;
  if (data === undefined) return <Pending of={[ask.jar(id)]} />;
  const { jar } = data;
  const there = jar.gone_at == null && jar.lifted_at != null;
  const stops = jar.standing?.against ?? [];
  return (
    <Plate title={`Jar ${jar.number} of batch ${jar.code}`}>
      <div className="grid gap-6 sm:grid-cols-[180px_1fr]">
        <div className="h-56">
          <JarPicture size={jar.size} product={jar.product} acid filled lid number={jar.number} />
        </div>
        <div className="grid content-start gap-3 text-lg">
          <p className="font-slab text-[2.4rem] leading-tight font-bold first-letter:uppercase">
            {jar.whereabouts}
          </p>
          <p className="first-letter:uppercase">
            {jarText(jar.size)} of {batchText(jar)}
            {jar.product !== "recipe" && `, with ${AGENT[jar.agent]}`}
            {jar.lifted_at != null && `, put up ${dayText(jar.lifted_at)}`}.
          </p>
          {data.recalled && (
            <Note tone="stop">
              <strong>A jar of this batch spoiled.</strong> Look at this one with care, and in doubt discard
              it. Never taste.
            </Note>
          )}
          {stops.map((stop) => (
            <Note key={stop.message} tone="stop">
              <p data-standing={stop.code}>
                <strong>Do not eat it.</strong> {stop.message} Since {dayText(stop.since)},{" "}
                {clockText(stop.since)}. The{" "}
                <Link to="/towel" className="font-semibold underline underline-offset-4">
                  Towel
                </Link>{" "}
                says what may still be done with it.
              </p>
            </Note>
          ))}
          {jar.standing != null && <Questions items={jar.standing.open} load={jar.load} />}
          <Trouble error={undosed.error} />
          {stops.length === 0 && (
            <>
              <h3 className="text-xl">Before you open it</h3>
              <ul className="grid list-disc gap-1 pl-6">
                {data.before_opening.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </>
          )}
          <div className="flex flex-wrap gap-3">
            {there && (stops.length === 0 || jar.rescue != null) && (
              <Leave which={{ jar: jar.id }} title={`Jar ${jar.number} of ${jar.code}`}>
                <button
                  type="button"
                  className="min-h-[72px] rounded-2xl border-[3px] border-[#1f5230] bg-vine px-6 text-xl font-semibold text-white"
                >
                  Take it
                </button>
              </Leave>
            )}
            {there && (
              <Touch
                disabled={undosed.isPending}
                onPress={() => undosed.mutate({ jars: [jar.id], undosed: !jar.undosed })}
              >
                {jar.undosed ? "Its acid is in after all" : "Its acid was left out"}
              </Touch>
            )}
            <Link
              to={`/batches/${jar.batch}/record`}
              className="inline-flex min-h-[72px] items-center px-2 font-semibold text-link underline underline-offset-4"
            >
              The batch&apos;s record
            </Link>
          </div>
        </div>
      </div>
    </Plate>
  );
}
