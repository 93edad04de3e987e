import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, take, type BoilEvent, type LoadView } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useKitchenNow } from "../../counter/clock";
import { useSay } from "../../counter/notices";
import {
  altitudeText,
  batchText,
  clockText,
  depthText,
  jarText,
  temperatureText,
  volumeText,
} from "../../parts/format";
import { Findings } from "../../parts/Findings";
import { CannerPicture } from "../../parts/JarPicture";
import { useKeys } from "../../parts/keys";
import { Note, Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { allowNotifications } from "../../parts/useAlarm";
import { momentOf, type Step } from "./moment";
import { useScreenAwake } from "./useScreenAwake";

const EVENT_WORDS: Record<BoilEvent, string> = {
  jars_in: "Jars are in",
  boils: "It boils",
  boil_lost: "Boil lost",
  heat_off: "Heat off, lid off",
  lifted: "Jars are out",
};

function Progress({ since, ends, now }: { since: number; ends: number; now: number }) {
  const share = Math.min(1, Math.max(0, (now - since) / (ends - since)));
  return (
    <div>
      <div className="h-5 overflow-hidden rounded-full border-2 border-line bg-cloth" role="presentation">
        <div className="h-full bg-tomato" style={{ width: `${share * 100}%` }} />
      </div>
      <div className="mt-1 flex justify-between text-sm text-muted">
        <span>{clockText(since)} it boils</span>
        <span>{clockText(ends)} heat off</span>
      </div>
    </div>
  );
}

function InCanner({ load }: { load: LoadView }) {
  const now = useKitchenNow();
  const { data: counter } = useQuery(ask.counter());
  const say = useSay();
  const path = { params: { path: { id: load.id } } };
  const undo = useChange(() => take(api.DELETE("/api/loads/{id}/events/last", path)));
  const happen = useChange(
    (event: BoilEvent) => take(api.POST("/api/loads/{id}/events", { ...path, body: { event } })),
    (_, event) => say(EVENT_WORDS[event], () => undo.mutate(undefined)),
  );
  const retime = useChange(
    () => take(api.POST("/api/loads/{id}/retime", path)),
    (changed) => say(`${changed.minutes} minutes now`),
  );
  const go = useNavigate();
  const moment = momentOf(load, now);
  useScreenAwake(moment.running);
  const press = (step: Step) => {
    allowNotifications();
    if (!happen.isPending) happen.mutate(step.event);
  };
  useKeys(Object.fromEntries(moment.steps.map((step) => [step.key.toLowerCase(), () => press(step)])));
  const feet = counter?.kitchen.altitude_ft;
  const size = load.jars[0]?.size ?? "quart";
  return (
    <div className="grid gap-3 lg:grid-cols-[1.65fr_1fr]">
      <Plate
        title={`Load ${load.position} of ${load.of}: ${batchText(load.batch)}, ${load.jars.length} ${jarText(size, load.jars.length)}`}
      >
        <p className="text-muted">
          {load.minutes} minutes of unbroken full boil
          {feet != null &&
            counter !== undefined &&
            ` at ${altitudeText(load.batch.altitude_ft, counter.kitchen.units)}`}
          {load.psi != null && ` under ${load.psi} lb of pressure`}
        </p>
        <p
          data-testid="clock"
          className={`my-2 font-slab leading-none font-bold tracking-tight ${moment.figure.length > 5 ? "text-[4.2rem] sm:text-[7rem]" : "text-[6.5rem] sm:text-[11.5rem]"}`}
        >
          {moment.figure}
        </p>
        <p className="mb-4 text-xl" data-testid="moment">
          {moment.words}
        </p>
        {moment.span !== null && <Progress since={moment.span.since} ends={moment.span.ends} now={now} />}
        <div className="mt-5 grid gap-3 sm:grid-cols-2">
          {moment.steps.map((step) => (
            <Touch key={step.event} big look={step.look} shortcut={step.key} onPress={() => press(step)}>
              {EVENT_WORDS[step.event]}
            </Touch>
          ))}
        </div>
        <div className="mt-4">
          <Trouble error={happen.error ?? undo.error ?? retime.error} />
        </div>
      </Plate>
      <Plate title="In the canner">
        <div className="mx-auto aspect-square max-w-[290px]">
          <CannerPicture numbers={load.jars.map((jar) => jar.number)} boiling={moment.boiling} />
        </div>
        <div className="mt-4 grid gap-3">
          {load.times_lost > 0 && (
            <Note tone="warn">
              The boil was lost {load.times_lost === 1 ? "once" : `${load.times_lost} times`}. The full{" "}
              {load.minutes} minutes start again from the new boil.
            </Note>
          )}
          {load.water != null && counter !== undefined && load.now.phase === "waiting" && (
            <>
              <Note tone="note">
                <p>
                  <strong>
                    Fill to {depthText(load.water.level_before_mm, counter.kitchen.units)} before the jars go
                    in
                  </strong>
                  , {volumeText(load.water.water_l, counter.kitchen.units)} at about{" "}
                  {temperatureText(load.water.water_c, counter.kitchen.units)}. They lift it to{" "}
                  {load.water.cover_in} in over the lids,{" "}
                  {depthText(load.water.headroom_mm, counter.kitchen.units)} under the rim.
                </p>
              </Note>
              {load.water.cautions.map((caution) => (
                <Note key={caution} tone="warn">
                  {caution}
                </Note>
              ))}
            </>
          )}
          <Findings
            items={load.findings}
            ways={{
              raise_time: {
                text: (fix) => `Set ${fix.way === "raise_time" ? fix.minutes : load.minutes} minutes`,
                take: () => retime.mutate(undefined),
              },
              find_altitude: { text: () => "To the kitchen", take: () => void go("/kitchen") },
            }}
          />
          {moment.notes.map((note) => (
            <Note key={note.text} tone={note.tone}>
              {note.text}
            </Note>
          ))}
          <p className="text-sm text-muted">
            {load.events
              .map((item) => `${clockText(item.at)} ${EVENT_WORDS[item.event].toLowerCase()}`)
              .join(", ")}
          </p>
          {load.events.length > 0 && (
            <Touch onPress={() => undo.mutate(undefined)}>Take the last step back</Touch>
          )}
        </div>
      </Plate>
    </div>
  );
}

export function CannerStation() {
  const { data: loads } = useQuery(ask.loads());
  if (loads === undefined) return null;
  const load =
    loads.find((item) => item.now.phase !== "waiting") ??
    loads.find((item) => item.jars.every((jar) => jar.filled));
  if (load !== undefined) return <InCanner key={load.id} load={load} />;
  return (
    <Plate title="The canner is empty">
      <p className="text-lg text-muted">
        {loads.length > 0
          ? "The next load's jars are not all filled yet."
          : "Nothing is planned for the canner."}
      </p>
      {loads.length > 0 && (
        <Link
          to="/jars"
          className="mt-3 inline-flex min-h-[48px] items-center font-semibold text-cobalt underline underline-offset-4"
        >
          To the jars
        </Link>
      )}
    </Plate>
  );
}
