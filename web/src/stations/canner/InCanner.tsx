import { useQuery } from "@tanstack/react-query";
import { api, take, type BoilEvent, type Figure, type LoadView } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useAtMoment, useKitchenNow } from "../../base/clock";
import { useSay } from "../../parts/notices";
import { batchesOf, sizesText } from "../../parts/batches";
import { altitudeText, loadText, clockText, historyText, MINUTE } from "../../writing/format";
import { CannerPicture } from "../../parts/CannerPicture";
import { Choice } from "../../parts/Choice";
import { Findings } from "../../parts/Findings";
import { useKeys } from "../../parts/keys";
import { LoadCard, WaterWarmth } from "../../parts/LoadCard";
import { Note, Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Questions } from "../../parts/Questions";
import { Share } from "../../parts/Share";
import { Touch } from "../../parts/Touch";
import { WaterOver } from "../../parts/WaterOver";
import { WaitNote } from "../../parts/WaitNote";
import { allowNotifications } from "../../parts/useAlarm";
import { AlsoIn } from "./AlsoIn";
import { JarTrouble } from "./JarTrouble";
import { figureText, saidNow, shareOver, touchText, wordsText } from "../../parts/said";
import { UnderJars } from "./UnderJars";
import { ProbeNote } from "./ProbeNote";
import { useWays } from "./useWays";
import { lastOf, useUndo } from "./useUndo";
import { WaterNote } from "./WaterNote";
import { Dock } from "../../parts/Dock";
import { Sources } from "../../parts/Sources";

/** Which figures its minutes rest on: the published table, a recipe's own page, or both. */
function minutesOf(load: LoadView): Figure[] {
  const isRecipe = (jar: { product: string }) => jar.product === "recipe";
  return [
    ...(load.jars.every(isRecipe) ? [] : (["minutes"] as const)),
    ...(load.jars.some(isRecipe) ? (["recipe_minutes"] as const) : []),
  ];
}

/** How far a running time is, with when it began and when it is done. */
function Running({ figure }: { figure: LoadView["says"]["figure"] }) {
  const now = useKitchenNow(MINUTE / 4);
  const share = shareOver(figure, now);
  if (share === null || figure.shows !== "left") return null;
  return (
    <div>
      <Share
        label="Time that is over"
        share={share}
        className="h-5 border-2 border-line bg-cloth"
        bar="bg-tomato"
      />
      <div className="mt-1 flex justify-between text-sm text-muted">
        <span>{clockText(figure.since)} began</span>
        <span>{clockText(figure.ends)} done</span>
      </div>
    </div>
  );
}

/** A figure fills the plate, and a long word stays on it. */
function sizeOf(figure: string): string {
  if (figure.length > 10) return "text-(length:--clock-words)";
  return figure.length > 5 ? "text-(length:--clock-long)" : "text-(length:--clock)";
}

const GONE = {
  stayed: "",
  broken: "broke. Leave it in until the others are out, then throw it away with its food.",
  out_in_time: "was lifted early, after its own full time: it counts.",
  out_too_early: "was lifted before its own full time: refrigerate it and eat it within days.",
};

type Touches = LoadView["says"]["touches"];

const keyOf = (touch: Touches[number]) => touch.event + (touch.water ?? "");

/** At half time of a long process somebody looks at the water again. */
function LookAgain({ load, from }: { load: LoadView; from: number | null }) {
  const isDue = useAtMoment((now) => from !== null && now >= from);
  if (!isDue || load.look_again_words == null) return null;
  return <Note tone="warn">{load.look_again_words}</Note>;
}

/** The clock of the moment: of all that is drawn only its digits change every second. */
function Clock({ figure, notProcessed }: { figure: LoadView["says"]["figure"]; notProcessed: boolean }) {
  const text = useAtMoment((now) => figureText(figure, now));
  return (
    <p
      data-testid="clock"
      data-moment
      className={`my-2 font-slab leading-none font-bold tracking-tight ${sizeOf(text)} ${notProcessed ? "text-alarm" : ""}`}
    >
      {text}
    </p>
  );
}

/** The two touches of the moment, big; what else may be said, small. */
function Touches({
  touches,
  texts,
  onPress,
}: {
  touches: Touches;
  texts: readonly string[];
  onPress: (touch: Touches[number]) => void;
}) {
  const [big, small] = [touches.slice(0, 2), touches.slice(2)];
  return (
    <>
      <Dock>
        <div className="grid grid-cols-2 gap-2 sm:gap-3">
          {big.map((touch, place) => (
            <Touch
              key={keyOf(touch)}
              big
              className="leading-tight only:col-span-2 max-sm:px-2 max-sm:text-lg"
              look={touch.look}
              shortcut={touch.key}
              onPress={() => onPress(touch)}
            >
              {texts[place]}
            </Touch>
          ))}
        </div>
      </Dock>
      {small.length > 0 && (
        <div className="mt-3 flex flex-wrap gap-2">
          {small.map((touch, place) => (
            <Touch key={keyOf(touch)} shortcut={touch.key} onPress={() => onPress(touch)}>
              {texts[place + big.length]}
            </Touch>
          ))}
        </div>
      )}
    </>
  );
}

/** One load in its canner: the clock of the moment, what to say of it, and what it stands in. */
export function InCanner({ load }: { load: LoadView }) {
  const { data: counter } = useQuery(ask.counter());
  const say = useSay();
  const path = { params: { path: { id: load.id } } };
  const words = (event: BoilEvent) => load.sayings.find((saying) => saying.event === event)?.says ?? event;
  const undo = useUndo(load.id);
  const happen = useChange(
    ({ event, water }: Pick<Touches[number], "event" | "water">) =>
      take(
        api.POST("/api/loads/{id}/events", {
          ...path,
          body: water == null ? { event } : { event, water },
        }),
      ),
    (changed, { event }) => say(words(event), () => undo.mutate(lastOf(changed))),
  );
  const { ways, error: notTaken } = useWays(load.id);
  const move = useChange((canner: number) =>
    take(api.PUT("/api/loads/{id}/canner", { ...path, body: { canner } })),
  );
  const said = useAtMoment((now) => saidNow(load, now));
  // What is missing is counted to the second, and said anew when its minutes change.
  const texts = useAtMoment((now) => said.touches.map((touch) => touchText(touch, now)));
  const press = (touch: LoadView["says"]["touches"][number]) => {
    allowNotifications();
    if (!happen.isPending) happen.mutate(touch);
  };
  useKeys(
    said.touches.map((touch, place) => ({
      key: touch.key,
      text: texts[place] ?? touch.says,
      press: () => press(touch),
    })),
  );
  if (counter === undefined) return null;
  const { units, canners } = counter.kitchen;
  const waiting = load.now.phase === "waiting";
  const others = canners.filter((canner) => canner.method === load.method);
  const batches = batchesOf(load.jars);
  const standing = load.standing.map((place, index) => {
    const jar = load.jars[index];
    const gone = jar !== undefined && load.gone.some((item) => item.jar === jar.id);
    const letter = batches.find((one) => one.batch === jar?.batch)?.letter ?? "";
    return { label: jar === undefined ? null : `${letter}${jar.number}`, place, gone };
  });
  const stops = load.judged.findings.filter((item) => item.severity === "stop");
  return (
    <div className="grid gap-3 lg:grid-cols-[1.65fr_1fr]">
      <Plate
        title={`Load ${load.position} of ${load.of}: ${loadText(load)}, ${sizesText(load.jars)}`}
        aside={canners.length > 1 && <span className="text-muted">{load.canner_name}</span>}
      >
        <p className="text-muted">
          {load.minutes} minutes{" "}
          {load.method === "boiling_water" ? "of unbroken full boil" : "without a break"}
          {counter.kitchen.altitude_ft != null && ` at ${altitudeText(load.batch.altitude_ft)}`}
          {load.psi != null && ` under ${load.psi} lb of pressure`}
        </p>
        <Clock figure={said.figure} notProcessed={load.not_processed} />
        <p className="mb-4 text-xl" data-testid="moment" data-moment>
          {wordsText(said)}
        </p>
        <Running figure={said.figure} />
        <Sources
          of={[...minutesOf(load), ...(load.psi == null ? [] : (["pressure", "venting"] as const)), "rest"]}
        />
        {stops.length > 0 && (
          <div className="mt-3 grid gap-3">
            <Findings items={stops} ways={ways} />
          </div>
        )}
        <Touches touches={said.touches} texts={texts} onPress={press} />
        <div className="mt-3">
          {said.running &&
            !load.not_processed &&
            !["resting", "dropping", "unwatched"].includes(load.now.phase) && (
              <JarTrouble load={load} closed={load.method !== "boiling_water"} />
            )}
        </div>
        <div className="mt-3">
          <Trouble error={happen.error ?? undo.error ?? notTaken ?? move.error} />
        </div>
      </Plate>
      <Plate title="In the canner">
        <div className="mx-auto max-h-[270px] max-w-[270px]">
          <CannerPicture jars={standing} stretch={load.stretch} boiling={said.boiling} />
        </div>
        <ul className="mt-2 text-center font-semibold">
          {batches.map((one) => (
            <li key={one.batch}>
              {one.letter !== "" && `${one.letter}: `}
              {one.name}, {sizesText(one.jars)}
            </li>
          ))}
        </ul>
        <div className="mt-4 grid gap-3">
          {load.times_lost > 0 && (
            <Note tone="warn">
              The boil was lost {load.times_lost === 1 ? "once" : `${load.times_lost} times`}. The full{" "}
              {load.minutes} minutes start again from the new boil.
            </Note>
          )}
          {load.gone.map((gone) => (
            <Note key={gone.jar} tone="warn">
              Jar {gone.number} {GONE[gone.fate]}
            </Note>
          ))}
          {waiting && <WaitNote load={load} />}
          {load.rides_along != null && <Note tone="note">{load.rides_along}</Note>}
          {waiting && <WaterNote load={load} units={units} />}
          {waiting && <UnderJars load={load} />}
          {!["lifted", "rested", "resting"].includes(load.now.phase) && <AlsoIn load={load} />}
          <LoadCard load={load} units={units} />
          {waiting && <WaterWarmth load={load} />}
          <LookAgain load={load} from={said.look_again ?? null} />
          {load.asks_water ? (
            <Questions
              items={load.judged.questions.filter((question) => question.ask === "water")}
              load={load.id}
            />
          ) : (
            <WaterOver load={load} />
          )}
          {waiting && others.length > 1 && (
            <Choice
              label="Goes into"
              value={String(load.canner)}
              options={others.map((canner) => ({ value: String(canner.id), text: canner.name }))}
              onChoose={(id) => Number(id) !== load.canner && move.mutate(Number(id))}
            />
          )}
          <Findings items={load.judged.findings.filter((item) => item.severity !== "stop")} ways={ways} />
          <Questions items={load.judged.questions} />
          {said.good != null && <Note tone="good">{said.good}</Note>}
          {said.mind != null && <Note tone="note">{said.mind}</Note>}
          {said.running && <ProbeNote load={load} />}
          <p className="text-sm text-muted">{historyText(load)}</p>
          {load.events.length > 0 && load.now.phase !== "unwatched" && (
            <Touch onPress={() => undo.mutate(lastOf(load))}>Take the last step back</Touch>
          )}
        </div>
      </Plate>
    </div>
  );
}
