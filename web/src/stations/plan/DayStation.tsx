import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take, type DayView, type Kitchen } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useKitchenNow } from "../../counter/clock";
import { useSay } from "../../counter/notices";
import { clockText, PRODUCT, spanText } from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Stepper } from "../../parts/Stepper";
import { Touch } from "../../parts/Touch";
import { blockText, DayStrip, type Block } from "./DayStrip";
import { PlanTabs } from "./PlanTabs";

const MINUTE = 60_000;
/** Steps by which somebody says that something takes longer. */
const SLIPS = [10, 30, -10];

/** "at most 12 min longer than the best possible", or that there is no shorter day. */
function proof(day: DayView): string {
  if (day.status === "optimal") return "No shorter day is possible.";
  return day.why == null ? "" : `It is ${day.why}.`;
}

function Slip({ block }: { block: Block }) {
  const say = useSay();
  const slip = useChange(
    (minutes: number) => take(api.POST("/api/day/slips", { body: { block: block.key, minutes } })),
    (_, minutes) => minutes !== 0 && say("The day is laid out again", () => slip.mutate(block.slip_minutes)),
  );
  const length = Math.round((block.ends - block.starts) / MINUTE);
  return (
    <div className="rounded-2xl border-2 border-brass bg-brass-wash p-4" data-testid="chosen">
      <p className="text-lg">
        <strong>{blockText(block)}</strong>
        {block.batch != null && ` of batch ${block.batch}`}: {clockText(block.starts)} to{" "}
        {clockText(block.ends)}, {spanText(length)}.{" "}
        {block.begun
          ? "It has begun."
          : block.slack_minutes > 0
            ? `It may start ${spanText(block.slack_minutes)} later without a later evening.`
            : "Any delay makes the evening later."}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <span className="font-semibold text-muted">It takes</span>
        {SLIPS.map((minutes) => (
          <Touch key={minutes} onPress={() => slip.mutate(block.slip_minutes + minutes)}>
            {minutes > 0 ? `${minutes} min longer` : `${-minutes} min less`}
          </Touch>
        ))}
        {block.slip_minutes !== 0 && (
          <Touch onPress={() => slip.mutate(0)}>As first thought ({block.slip_minutes} min off)</Touch>
        )}
      </div>
      <Trouble error={slip.error} />
    </div>
  );
}

/** Takes a way out at a touch; a canner has to be found first. */
function TakeWay({ way }: { way: DayView["ways_out"][number] }) {
  const say = useSay();
  const kitchen = useChange((body: { day_ends?: number; people?: number }) =>
    take(api.PATCH("/api/kitchen", { body })),
  );
  const leave = useChange(({ batch, removed }: { batch: number; removed: boolean }) =>
    take(api.PATCH("/api/batches/{id}", { params: { path: { id: batch } }, body: { removed } })),
  );
  const { step } = way;
  switch (step.way) {
    case "later":
      return <Touch onPress={() => kitchen.mutate({ day_ends: step.day_ends })}>Do that</Touch>;
    case "hands":
      return <Touch onPress={() => kitchen.mutate({ people: step.people })}>Do that</Touch>;
    case "leave":
      return (
        <span className="grid gap-1">
          <Touch
            onPress={() =>
              leave.mutate(
                { batch: step.batch, removed: true },
                {
                  onSuccess: () =>
                    say("Its fruit is back in the crates", () =>
                      leave.mutate({ batch: step.batch, removed: false }),
                    ),
                },
              )
            }
          >
            Do that
          </Touch>
          <Trouble error={leave.error} />
        </span>
      );
    case "canner":
      return (
        <Link
          to="/kitchen"
          className="inline-flex min-h-[50px] items-center font-semibold text-cobalt underline underline-offset-4"
        >
          Add it to the kitchen
        </Link>
      );
  }
}

/** What comes next, in the order of the clock; on a phone this is the day. */
function Next({ day, now, products }: { day: DayView; now: number; products: ReadonlyMap<string, string> }) {
  const coming = day.blocks
    .filter((block) => block.ends > now && !block.begun)
    .sort((a, b) => a.starts - b.starts);
  return (
    <ol className="grid gap-1.5">
      {coming.slice(0, 7).map((block) => (
        <li
          key={block.key}
          className="flex items-baseline gap-3 rounded-xl border-2 border-line bg-white px-3 py-2 text-lg"
        >
          <strong className="font-slab">
            {block.starts <= now + MINUTE ? "Now" : clockText(block.starts)}
          </strong>
          <span>
            {blockText(block)}
            {block.batch != null && (
              <span className="text-muted">
                {" "}
                · {products.get(block.batch)} {block.batch}
              </span>
            )}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** When a kitchen sits down that has not said: half past five. */
const USUAL_BREAK = 17 * 60 + 30;

/** Minutes after midnight as "17:30". */
function clockOf(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

function Help({ kitchen }: { kitchen: Kitchen }) {
  const change = useChange(
    (body: { people?: number; burners?: number; day_ends?: number; break_at?: number; no_break?: boolean }) =>
      take(api.PATCH("/api/kitchen", { body })),
  );
  const ends = kitchen.day_ends;
  const stepOf = (at: number, step: number) =>
    at + step >= 0 && at + step <= 1440 ? () => change.mutate({ break_at: at + step }) : undefined;
  return (
    <div className="flex flex-wrap gap-5 print:hidden">
      <Stepper
        label="Hands"
        text={String(kitchen.people)}
        onLess={kitchen.people > 1 ? () => change.mutate({ people: kitchen.people - 1 }) : undefined}
        onMore={() => change.mutate({ people: kitchen.people + 1 })}
      />
      <Stepper
        label="Burners"
        text={String(kitchen.burners)}
        onLess={kitchen.burners > 1 ? () => change.mutate({ burners: kitchen.burners - 1 }) : undefined}
        onMore={() => change.mutate({ burners: kitchen.burners + 1 })}
      />
      <Stepper
        label="Done by"
        text={clockOf(ends)}
        onLess={ends >= 30 ? () => change.mutate({ day_ends: ends - 30 }) : undefined}
        onMore={ends <= 1410 ? () => change.mutate({ day_ends: ends + 30 }) : undefined}
      />
      {kitchen.break_at == null ? (
        <Touch className="self-end" onPress={() => change.mutate({ break_at: USUAL_BREAK })}>
          With a break
        </Touch>
      ) : (
        <>
          <Stepper
            label={`Break, ${kitchen.break_minutes} min`}
            text={clockOf(kitchen.break_at)}
            onLess={stepOf(kitchen.break_at, -30)}
            onMore={stepOf(kitchen.break_at, 30)}
          />
          <Touch className="self-end" onPress={() => change.mutate({ no_break: true })}>
            No break
          </Touch>
        </>
      )}
      <Trouble error={change.error} />
    </div>
  );
}

/** The day on one strip: when it ends, who does what when, and what to do when it does not fit. */
export function DayStation() {
  const { data: day, error } = useQuery(ask.day());
  const { data: counter } = useQuery(ask.counter());
  const { data: batches } = useQuery(ask.batches());
  const [chosen, setChosen] = useState<string | null>(null);
  const now = useKitchenNow();
  if (error !== null && day === undefined) return <Trouble error={error} />;
  if (day === undefined || counter === undefined) return null;
  const products = new Map(batches?.map((batch) => [batch.code, PRODUCT[batch.product]]));
  const block = day.blocks.find((item) => item.key === chosen);
  const empty = day.blocks.length === 0 && day.finish != null;
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <Plate
        title="The day from now on"
        aside={
          <span className="flex flex-wrap items-center gap-4 print:hidden">
            <a href="/api/day.ics" className="font-semibold text-cobalt underline underline-offset-4">
              As calendar
            </a>
            <Touch onPress={() => window.print()}>Print</Touch>
          </span>
        }
      >
        <div className="grid items-end gap-x-8 gap-y-4 sm:grid-cols-[1fr_auto]">
          {day.finish == null ? (
            <Answer value="Does not fit" unit={`by ${clockText(day.day_ends)}`}>
              {day.why == null ? "" : `${day.why.charAt(0).toUpperCase()}${day.why.slice(1)}.`}
            </Answer>
          ) : (
            <Answer value={empty ? "Free" : clockText(day.finish)} unit={empty ? undefined : "all done"}>
              {empty
                ? "Nothing is planned. Plan a batch and its work is laid out here."
                : `${proof(day)}${day.start_by == null ? "" : ` Start by ${clockText(day.start_by)} to be done by ${clockText(day.day_ends)}.`}`}
            </Answer>
          )}
          <div className="max-sm:order-last">
            <Help kitchen={counter.kitchen} />
          </div>
          <div className="grid gap-4 sm:col-span-2">
            {day.ways_out.length > 0 && (
              <div>
                <Note tone="note">
                  <p className="font-semibold">What would make it fit:</p>
                  <ul className="mt-1 grid gap-1">
                    {day.ways_out.map((way) => (
                      <li key={way.text} className="flex flex-wrap items-center justify-between gap-2">
                        <span>
                          {way.text}: done by <strong>{clockText(way.finish)}</strong>.
                        </span>
                        <TakeWay way={way} />
                      </li>
                    ))}
                  </ul>
                </Note>
              </div>
            )}
            {day.blocks.length > 0 && (
              <>
                <div className="hidden sm:block">
                  <DayStrip day={day} now={now} chosen={chosen} products={products} onChoose={setChosen} />
                </div>
                {block !== undefined && <Slip block={block} />}
                <div>
                  <Next day={day} now={now} products={products} />
                </div>
              </>
            )}
          </div>
        </div>
      </Plate>
    </div>
  );
}
