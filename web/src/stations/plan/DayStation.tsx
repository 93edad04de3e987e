import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Kitchen } from "../../api/client";
import { ask } from "../../queries/queries";
import { useKitchenNow } from "../../base/clock";
import { minuteText, clockText, contentText, MINUTE } from "../../writing/format";
import { sentence } from "../../parts/sentence";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { CountField } from "../../parts/CountField";
import { TimeStepper } from "../../parts/TimeStepper";
import { Touch } from "../../parts/Touch";
import { useKitchenChange } from "../../parts/useKitchenChange";
import { ChosenBlock } from "./ChosenBlock";
import { DayStrip } from "./DayStrip";
import { LanesNow } from "./LanesNow";
import { NextWork } from "./NextWork";
import { PlanTabs } from "./PlanTabs";
import { WaysOut } from "./WaysOut";
import { WorkLegend } from "./WorkLegend";
import { proofText, USUAL_BREAK } from "./model";

function Help({ kitchen }: { kitchen: Kitchen }) {
  const change = useKitchenChange();
  const ends = kitchen.day_ends;
  const stepOf = (at: number, step: number) =>
    at + step >= 0 && at + step <= 1440 ? () => change.mutate({ break_at: at + step }) : undefined;
  return (
    <div className="flex flex-wrap gap-5 print:hidden">
      <CountField
        label="Hands"
        count={kitchen.people}
        bound="KitchenRequest.people"
        onSet={(people) => change.mutate({ people })}
      />
      <CountField
        label="Burners"
        count={kitchen.burners}
        bound="KitchenRequest.burners"
        onSet={(burners) => change.mutate({ burners })}
      />
      <TimeStepper
        label="Done by"
        text={minuteText(ends)}
        onLess={ends >= 30 ? () => change.mutate({ day_ends: ends - 30 }) : undefined}
        onMore={ends <= 1410 ? () => change.mutate({ day_ends: ends + 30 }) : undefined}
      />
      {kitchen.break_at == null ? (
        <Touch className="self-end" onPress={() => change.mutate({ break_at: USUAL_BREAK })}>
          With a break
        </Touch>
      ) : (
        <>
          <TimeStepper
            label={`Break, ${kitchen.break_minutes} min`}
            text={minuteText(kitchen.break_at)}
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
  const { data: day } = useQuery(ask.day());
  const { data: counter } = useQuery(ask.counter());
  const { data: batches } = useQuery(ask.batches());
  const [chosen, setChosen] = useState<string | null>(null);
  const now = useKitchenNow(MINUTE);
  if (day === undefined || counter === undefined) return <Pending of={[ask.day(), ask.counter()]} />;
  const products = new Map(
    batches?.map((batch) => [batch.code, contentText({ product: batch.product, named: batch.name ?? null })]),
  );
  const block = day.blocks.find((item) => item.key === chosen);
  const empty = day.blocks.length === 0 && day.finish != null;
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <Plate
        title="The day from now on"
        aside={
          <span className="flex flex-wrap items-center gap-4 print:hidden">
            <a
              href="/api/day.ics"
              className="inline-flex min-h-[48px] items-center font-semibold text-link underline underline-offset-4"
            >
              As calendar
            </a>
            <Touch onPress={() => window.print()}>Print</Touch>
          </span>
        }
      >
        <div className="grid items-end gap-x-8 gap-y-4 sm:grid-cols-[1fr_auto]">
          {day.finish == null ? (
            <Answer value="Does not fit" unit={`by ${clockText(day.day_ends)}`}>
              {day.why == null ? "" : sentence(day.why)}
            </Answer>
          ) : (
            <Answer value={empty ? "Free" : clockText(day.finish)} unit={empty ? undefined : "all done"}>
              {empty
                ? "Nothing is planned. Plan a batch and its work is laid out here."
                : `${proofText(day)}${day.start_by == null ? "" : ` Start by ${clockText(day.start_by)} to be done by ${clockText(day.day_ends)}.`}`}
            </Answer>
          )}
          <div className="max-sm:order-last">
            <Help kitchen={counter.kitchen} />
          </div>
          <div className="grid gap-4 sm:col-span-2">
            {day.waiting.map((text) => (
              <Note key={text} tone="warn">
                {text}.
              </Note>
            ))}
            {day.ways_out.length > 0 && (
              <div>
                <WaysOut ways={day.ways_out} />
              </div>
            )}
            {day.blocks.length > 0 && (
              <>
                {day.would_finish != null && (
                  <p className="font-semibold text-alarm">
                    Drawn all the same: all done {clockText(day.would_finish)}. What is hatched falls off the
                    end at {clockText(day.day_ends)}.
                  </p>
                )}
                <LanesNow day={day} now={now} />
                <div
                  className="overflow-x-auto"
                  role="region"
                  aria-label="The day as a strip, wider than a phone"
                  // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls is reached without a mouse
                  tabIndex={0}
                >
                  <div className="min-w-[720px]">
                    <DayStrip
                      day={day}
                      now={now}
                      chosen={chosen}
                      products={products}
                      details={block !== undefined && <ChosenBlock block={block} />}
                      onChoose={(key) => setChosen(key === chosen ? null : key)}
                    />
                  </div>
                </div>
                <WorkLegend day={day} />
                <div>
                  <NextWork day={day} now={now} products={products} />
                </div>
              </>
            )}
          </div>
        </div>
      </Plate>
    </div>
  );
}
