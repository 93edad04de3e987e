import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type CookView, type HeatSetting, type Simulation, type Units } from "../../api/client";
import { ask, useChange, useUndoLine } from "../../queries/queries";
import { useAtMoment } from "../../base/clock";
import { useSay } from "../../parts/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";
import {
  batchText,
  clockText,
  countdown,
  depthText,
  HEAT_SETTING,
  jarText,
  spanText,
  temperatureText,
  volumeText,
} from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { Asked } from "./Asked";
import { Curve } from "./Curve";
import { InOut } from "./InOut";
import { KettlePicture } from "./KettlePicture";
import { boilText, goalText, likelyText, lineText, minutesLeft, promiseText } from "./model";
import { ReadForm } from "./ReadForm";
import { Dock } from "../../parts/Dock";
import { useDevice } from "../../device/device";
import { Sources } from "../../parts/Sources";

const INSTRUMENTS: readonly { instrument: Simulation; text: string }[] = [
  { instrument: "scale", text: "Scale" },
  { instrument: "probe", text: "Probe" },
  { instrument: "refractometer", text: "Refractometer" },
];

/** The answer of a kettle that goes to a mark. */
function ToMark({
  cook,
  units,
  now,
  reached,
  onBoils,
}: {
  cook: CookView;
  units: Units;
  now: number;
  reached: boolean;
  onBoils: (boils: boolean) => void;
}) {
  const mark = cook.mark_hot_mm == null ? "" : ` at ${depthText(cook.mark_hot_mm, units)}`;
  const boils = reached ? "" : boilText(cook, now);
  const about = `${clockText(Math.max(cook.finish_low, now))} to ${clockText(cook.finish_high)}`;
  return (
    <>
      <Answer
        value={reached ? "Take it off" : cook.vague ? about : clockText(cook.finish)}
        unit={reached || cook.vague ? undefined : `in ${spanText(minutesLeft(cook, now))}`}
      >
        {reached
          ? `By the clock the mark is reached: ${volumeText(cook.target_l, units)}${mark}. Look at the stick.`
          : likelyText(cook, now)}
      </Answer>
      {boils !== "" && (
        <div className="flex flex-wrap items-center gap-3">
          <Touch big look="heat" onPress={() => onBoils(true)}>
            It boils now
          </Touch>
          <Touch big onPress={() => onBoils(false)}>
            Not yet
          </Touch>
          <p className="text-lg text-muted">{boils}</p>
        </div>
      )}
      <Curve cook={cook} now={now} units={units} />
    </>
  );
}

/** The answer of a kettle whose goal is a time: its clock, and the touch that starts it. */
function ToTime({ cook, reached, onStart }: { cook: CookView; reached: boolean; onStart: () => void }) {
  const { timer } = cook;
  const left = useAtMoment((now) => countdown(cook.finish - now));
  if (timer == null) return null;
  const holds = timer.hold_from_c != null && timer.hold_to_c != null;
  const between = holds
    ? `${temperatureText(timer.hold_from_c ?? 0)} and ${temperatureText(timer.hold_to_c ?? 0)}`
    : "";
  if (timer.since == null) {
    return (
      <>
        <Answer value={holds ? "Heat it" : "Bring it to the boil"}>
          {holds
            ? `Between ${between} it is held for ${timer.minutes} minutes. It need not boil.`
            : timer.minutes > 0
              ? `Its ${timer.minutes} minutes count from the boil.`
              : "It is not boiled down."}
        </Answer>
        <Touch big look="heat" onPress={onStart}>
          {holds ? "It is hot enough" : "It boils"}
        </Touch>
      </>
    );
  }
  return (
    <Answer value={reached ? "Take it off" : left}>
      {reached
        ? holds
          ? `It was held hot for ${timer.minutes} minutes. ${timer.before_filling ?? ""}`
          : "Its time is full. Fill it hot."
        : holds
          ? `Held between ${between} since ${clockText(timer.since)}.`
          : `It simmers since ${clockText(timer.since)}.`}
    </Answer>
  );
}

/** What it fills: the jars of its batch with their own acid. */
function Fills({ cook, units }: { cook: CookView; units: Units }) {
  const { batch } = cook;
  if (batch == null) {
    return (
      <p className="text-lg">
        It fills about <strong>{cook.pints} pints</strong>. It cooks for no batch yet, so its acid is not
        known.
      </p>
    );
  }
  return (
    <div className="text-lg">
      <p>
        For{" "}
        <Link to="/jars" className="font-semibold text-link underline underline-offset-4">
          {batch.code}
        </Link>
        , {batch.thickness} {batchText(batch)}: {volumeText(cook.together?.target_l ?? cook.target_l, units)}
        {cook.together != null && " together"} for jars that hold {volumeText(cook.jars_hold_l ?? 0, units)}.
      </p>
      <ul>
        {cook.fills.map((fill) => (
          <li key={fill.jar}>
            <strong>
              {fill.set_out} {jarText(fill.jar, fill.set_out)}
            </strong>
            ; {fill.says}.
          </li>
        ))}
      </ul>
    </div>
  );
}

export function CookPlate({ cook, units, now }: { cook: CookView; units: Units; now: number }) {
  const say = useSay();
  const path = { params: { path: { id: cook.id } } };
  const end = useChange(
    (ended: boolean) => take(api.PATCH("/api/cooks/{id}", { ...path, body: { ended } })),
    (_, ended, again) => ended && say(`${cook.kettle.name} is off the stove`, () => again(false)),
  );
  const simulate = useChange((instrument: Simulation) =>
    take(api.POST("/api/cooks/{id}/simulations", { ...path, body: { instrument } })),
  );
  const lid = useChange((on: boolean) =>
    take(api.POST("/api/cooks/{id}/events", { ...path, body: { lid_on: on } })),
  );
  const turn = useChange((setting: HeatSetting) =>
    take(api.POST("/api/cooks/{id}/events", { ...path, body: { setting } })),
  );
  const undo = useUndoLine(cook.id);
  const said = useChange(
    (boils: boolean) => take(api.POST("/api/cooks/{id}/events", { ...path, body: { boils } })),
    ({ log }) => {
      const line = log.findLast((item) => item.what === "boils" || item.what === "not_yet");
      say("Written down", line && (() => undo.mutate(line.at)));
    },
  );
  const start = useChange(() =>
    take(
      api.POST("/api/cooks/{id}/events", {
        ...path,
        body: cook.timer?.starts_with === "hot_enough" ? { hot_enough: true } : { boils: true },
      }),
    ),
  );
  const chill = useChange(
    async (batch: number) => {
      await take(api.PATCH("/api/cooks/{id}", { ...path, body: { ended: true } }));
      return take(
        api.PATCH("/api/batches/{id}", { params: { path: { id: batch } }, body: { chilled: true } }),
      );
    },
    () => say("In the refrigerator: heat it to the boil again before it is packed"),
  );
  const { practice } = useDevice();
  const drain = cook.drain_first;
  // Between two answers the clock runs on.
  const over = useAtMoment((now) => cook.finish <= now);
  const reached = cook.reached || (over && cook.timer?.since !== null);
  const last = cook.log.at(-1);
  const { together } = cook;
  const { data: kettles } = useQuery(ask.kettles());
  const promises = kettles?.find((kettle) => kettle.id === cook.kettle.id)?.promises;
  const promise = cook.timer == null ? promiseText(promises) : "";
  return (
    <Plate
      title={cook.kettle.name}
      aside={
        <span className="text-muted">
          {goalText(cook)}, on since {clockText(cook.started_at)}
        </span>
      }
    >
      <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[1.15fr_1fr]">
        <div className="grid content-start gap-3">
          {cook.flagged.map((flag) => (
            <Asked key={flag.at} cook={cook} flag={flag} units={units} />
          ))}
          {cook.timer == null ? (
            <ToMark
              cook={cook}
              units={units}
              now={now}
              reached={reached}
              onBoils={(boils) => said.mutate(boils)}
            />
          ) : (
            <ToTime cook={cook} reached={reached} onStart={() => start.mutate(undefined)} />
          )}
          {together != null && (
            <Note tone="note">
              {together.kettles} kettles cook this batch: {volumeText(together.now_l, units)} together now,{" "}
              {volumeText(together.target_l, units)} at the end, the last at {clockText(together.finish)}.
              Pour them together before you fill.
            </Note>
          )}
          {cook.timer?.before_filling != null && !reached && (
            <Note tone="note">{cook.timer.before_filling}</Note>
          )}
          {cook.stir && <Note tone="warn">It thickens: stir often and turn the heat down.</Note>}
          {!reached && drain != null && drain.spares_minutes > 15 && (
            <Note tone="note">
              Ladle {volumeText(drain.drain_l, units)} of thin juice off first:{" "}
              {spanText(Math.round(drain.spares_minutes))} sooner
              {drain.less_l > 0.05 ? `, ${volumeText(drain.less_l, units)} less sauce` : ", the pulp stays"},
              and the juice can be canned as juice.
            </Note>
          )}
          {cook.lid_on && (
            <Note tone="warn">The lid is on: hardly any water leaves. The time counts it as off.</Note>
          )}
          <Sources of={["finish"]} />
          {promise !== "" && <p className="text-muted">{promise}</p>}
          {cook.temp_c != null && <p className="text-lg">At {temperatureText(cook.temp_c)}.</p>}
          <Fills cook={cook} units={units} />
        </div>
        <div className="grid content-start gap-3">
          <div className="flex flex-wrap items-center gap-4">
            <div className="w-[190px] shrink-0 sm:w-[210px]">
              <KettlePicture
                depthMm={cook.kettle.depth_mm}
                levelMm={cook.level_mm}
                markMm={cook.mark_hot_mm ?? null}
                boiling={!reached && cook.boiling !== false}
              />
            </div>
            <div>
              {cook.mark_hot_mm != null && (
                <p className="font-slab text-[2.3rem] leading-none font-bold" data-testid="mark">
                  {depthText(cook.mark_hot_mm, units)}
                </p>
              )}
              <p className="mt-1 text-muted">
                {cook.mark_mm != null &&
                  `the mark, ${volumeText(cook.target_l, units)}, read in the hot pot; ${depthText(cook.mark_mm, units)} when cold. `}
                Now about {depthText(cook.level_mm, units)}, {volumeText(cook.now_l, units)}.
              </p>
            </div>
          </div>
          <Choice
            label="The heat"
            value={cook.setting}
            options={optionsOf(["low", "medium", "high"], HEAT_SETTING)}
            onChoose={(setting) => setting !== cook.setting && turn.mutate(setting)}
          />
          <Fold words="In or out of the pot">
            <InOut cook={cook} units={units} />
          </Fold>
          <div className="flex flex-wrap gap-3">
            <Touch big look={reached ? "done" : "plain"} onPress={() => end.mutate(true)}>
              It is off the stove
            </Touch>
            <Touch big onPress={() => lid.mutate(!cook.lid_on)}>
              {cook.lid_on ? "Lid off" : "Lid on"}
            </Touch>
            {cook.batch != null && (
              <Touch onPress={() => cook.batch != null && chill.mutate(cook.batch.id)}>
                Into the refrigerator until tomorrow
              </Touch>
            )}
          </div>
          {(practice || cook.simulated.length > 0) && (
            <div className="flex flex-wrap items-center gap-2 text-sm">
              <span className="font-semibold text-muted">Simulated, for practice:</span>
              {INSTRUMENTS.map(({ instrument, text }) =>
                cook.simulated.includes(instrument) ? (
                  <span key={instrument} className="font-semibold text-fine">
                    {text} on
                  </span>
                ) : (
                  <Touch key={instrument} onPress={() => simulate.mutate(instrument)}>
                    {text}
                  </Touch>
                ),
              )}
              {last?.simulated === true && <span className="text-muted">last {lineText(last, units)}</span>}
            </div>
          )}
          <Trouble
            error={
              end.error ??
              simulate.error ??
              lid.error ??
              turn.error ??
              said.error ??
              undo.error ??
              start.error ??
              chill.error
            }
          />
        </div>
      </div>
      <Dock>
        <ReadForm cook={cook} units={units} />
      </Dock>
    </Plate>
  );
}
