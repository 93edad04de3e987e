import { Link } from "react-router";
import { api, take, type CookView, type HeatSetting, type Simulation, type Units } from "../../api/client";
import { useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import {
  clockText,
  depthText,
  HEAT_SETTING,
  jarsText,
  spanText,
  temperatureText,
  volumeText,
} from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { Curve } from "./Curve";
import { KettlePicture } from "./KettlePicture";
import { flaggedText, lastText, minutesLeft } from "./model";
import { ReadForm } from "./ReadForm";

const INSTRUMENTS: readonly { instrument: Simulation; text: string }[] = [
  { instrument: "scale", text: "Scale" },
  { instrument: "probe", text: "Probe" },
  { instrument: "refractometer", text: "Refractometer" },
];

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
  const minutes = minutesLeft(cook, now);
  const drain = cook.drain_first;
  // Between two answers the clock runs on.
  const reached = cook.reached || cook.finish <= now;
  const last = cook.log.at(-1);
  return (
    <Plate
      title={cook.kettle.name}
      aside={<span className="text-muted">on since {clockText(cook.started_at)}</span>}
    >
      <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[1.15fr_1fr]">
        <div className="grid content-start gap-3">
          <Answer
            value={reached ? "Take it off" : clockText(cook.finish)}
            unit={reached ? undefined : `in ${spanText(minutes)}`}
          >
            {reached
              ? `The mark is reached: ${volumeText(cook.target_l, units)} at ${depthText(cook.mark_mm, units)}.`
              : `80 % likely between ${clockText(cook.finish_low)} and ${clockText(cook.finish_high)}.`}
          </Answer>
          <Curve cook={cook} now={now} />
          {cook.stir && <Note tone="warn">It thickens: stir often and turn the heat down.</Note>}
          {cook.flagged.length > 0 && <Note tone="warn">{flaggedText(cook.flagged.length)}</Note>}
          {!reached && drain != null && drain.spares_minutes > 15 && (
            <Note tone="note">
              Drain {volumeText(drain.drain_l, units)} of thin juice first:{" "}
              {spanText(Math.round(drain.spares_minutes))} sooner, {volumeText(drain.less_l, units)} less
              sauce, and the juice can be canned as juice.
            </Note>
          )}
          {cook.lid_on && (
            <Note tone="warn">The lid is on: hardly any water leaves. The time counts it as off.</Note>
          )}
          {cook.temp_c != null && <p className="text-lg">At {temperatureText(cook.temp_c, units)}.</p>}
          {cook.batch != null && (
            <p className="text-lg">
              For batch{" "}
              <Link to="/jars" className="font-semibold text-cobalt underline underline-offset-4">
                {cook.batch.code}
              </Link>
              , {jarsText(cook.batch.jars)} set out.
            </p>
          )}
          <p className="text-lg">
            Fills <strong>{cook.pints} pints</strong>; each takes {cook.acid_per_pint} of bottled lemon juice.
          </p>
        </div>
        <div className="grid content-start gap-3">
          <div className="flex flex-wrap items-center gap-4">
            <div className="w-[190px] shrink-0 sm:w-[210px]">
              <KettlePicture
                depthMm={cook.kettle.depth_mm}
                levelMm={cook.level_mm}
                markMm={cook.mark_mm}
                boiling={!reached}
              />
            </div>
            <div>
              <p className="font-slab text-[2.3rem] leading-none font-bold" data-testid="mark">
                {depthText(cook.mark_mm, units)}
              </p>
              <p className="mt-1 text-muted">
                the mark, {volumeText(cook.target_l, units)}. Now {depthText(cook.level_mm, units)},{" "}
                {volumeText(cook.now_l, units)}.
              </p>
            </div>
          </div>
          <Choice
            label="The heat"
            value={cook.setting}
            options={optionsOf(["low", "medium", "high"], HEAT_SETTING)}
            onChoose={(setting) => setting !== cook.setting && turn.mutate(setting)}
          />
          <ReadForm cook={cook} units={units} />
          <div className="flex flex-wrap gap-3">
            <Touch big look={reached ? "done" : "plain"} onPress={() => end.mutate(true)}>
              It is off the stove
            </Touch>
            <Touch big onPress={() => lid.mutate(!cook.lid_on)}>
              {cook.lid_on ? "Lid off" : "Lid on"}
            </Touch>
          </div>
          <div className="flex flex-wrap items-center gap-2 text-sm">
            <span className="font-semibold text-muted">Simulated, for practice:</span>
            {INSTRUMENTS.map(({ instrument, text }) =>
              cook.simulated.includes(instrument) ? (
                <span key={instrument} className="font-semibold text-vine">
                  {text} on
                </span>
              ) : (
                <Touch key={instrument} onPress={() => simulate.mutate(instrument)}>
                  {text}
                </Touch>
              ),
            )}
            {last?.simulated === true && <span className="text-muted">last {lastText(last, units)}</span>}
          </div>
          <Trouble error={end.error ?? simulate.error ?? lid.error ?? turn.error} />
        </div>
      </div>
    </Plate>
  );
}
