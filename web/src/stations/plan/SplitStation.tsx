import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type Agent, type Goal, type SplitAnswer, type SplitRequest } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Choice } from "../../parts/Choice";
import { jarsText, spanText, weightText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { CountField } from "../../parts/CountField";
import { Touch } from "../../parts/Touch";
import { GoalList } from "./GoalList";
import { LotPicker } from "./LotPicker";
import { PlanTabs } from "./PlanTabs";
import { SplitLines } from "./SplitLines";
import { sharedText, SplitLoads } from "./SplitLoads";
import { useLast } from "../../parts/useLast";
import { useWaiting } from "./useWaiting";
import { Dock } from "../../parts/Dock";
import { Sources } from "../../parts/Sources";
import { AltitudeHere } from "../../parts/AltitudeHere";

type Hours = SplitRequest["hours"];

/** A day to begin with: one canner, two burners and one pair of hands, six hours. */
const DAY: Hours = { canner_minutes: 360, stove_minutes: 720, hands_minutes: 360 };
const HOUR = 60;

const OF: readonly { key: keyof Hours; text: string }[] = [
  { key: "canner_minutes", text: "canner" },
  { key: "stove_minutes", text: "burners, all" },
  { key: "hands_minutes", text: "hands, all" },
];

function Limits({ answer }: { answer: SplitAnswer }) {
  const first = answer.limits[0];
  if (first === undefined) {
    return (
      <Note tone="good">
        Everything the shelf asks for is in it, or the fruit is used up
        {answer.proven ? "; no split does better" : ""}.
      </Note>
    );
  }
  return (
    <Note tone="note">
      <p>
        <strong>
          Limited by {first.what}
          {first.jars_more > 0 &&
            `: ${first.step} gives ${first.jars_more} ${first.jars_more === 1 ? "jar" : "jars"}`}
          .
        </strong>
        {answer.limits.length > 1 &&
          ` Also by ${answer.limits
            .slice(1, 4)
            .map((limit) => limit.what)
            .join(", ")}.`}
        {answer.proven ? " No other split is worth more." : " A better one may exist."}
      </p>
    </Note>
  );
}

/** The best use of all waiting fruit, within what there is of jars, lids, acid and hours. */
export function SplitStation() {
  const { ready, chosen, setChosen } = useWaiting();
  const { data: counter } = useQuery(ask.counter());
  const { data: goals } = useQuery(ask.goals());
  const [agent, setAgent] = useState<Agent>("bottled_lemon_juice");
  const [hours, setHours] = useState(DAY);
  const [pins, setPins] = useState<SplitRequest["pins"]>([]);
  const say = useSay();
  const go = useNavigate();
  const request: SplitRequest = { lots: chosen ?? [], agent, hours, pins };
  const split = useQuery(ask.split(request));
  // The numbers stay under the finger while a new answer is worked out, and when there is none; what they came to is not said then.
  const last = useLast(split.data);
  const isOld = split.data === undefined || split.error !== null;
  const remove = useChange((ids: number[]) =>
    Promise.all(
      ids.map((id) =>
        take(api.PATCH("/api/batches/{id}", { params: { path: { id } }, body: { removed: true } })),
      ),
    ),
  );
  const accept = useChange(
    () => take(api.POST("/api/batches/split", { body: request })),
    (batches) => {
      const jars = batches.reduce((sum, batch) => sum + batch.jars, 0);
      say(`${batches.length} batches are on the line: ${jarsText(jars)}`, () =>
        remove.mutate(batches.map((batch) => batch.id)),
      );
      void go("/plan");
    },
  );
  const keep = useChange(
    (list: Goal[]) => take(api.PUT("/api/goals", { body: list })),
    () => setPins([]),
  );
  if (ready === undefined || chosen === undefined || counter === undefined || goals === undefined)
    return <Pending of={[ask.lots(), ask.counter(), ask.goals()]} />;
  const units = counter.kitchen.units;
  const answer = chosen.length > 0 ? last : undefined;
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <div className="grid gap-3 lg:grid-cols-[1fr_1.1fr]">
        <Plate title="What there is" className="max-lg:order-last">
          <div className="grid gap-4">
            <LotPicker lots={ready} chosen={chosen} units={units} onChoose={setChosen} />
            <div className="flex flex-wrap gap-x-3 gap-y-2">
              {OF.map(({ key, text }) => (
                <CountField
                  key={key}
                  label={text}
                  unit="h"
                  count={hours[key] / HOUR}
                  bound={`Hours.${key}`}
                  onSet={(count) => setHours({ ...hours, [key]: count * HOUR })}
                />
              ))}
            </div>
            <Choice
              label="Acid"
              value={agent}
              options={[
                { value: "bottled_lemon_juice", text: "Lemon, bottled" },
                { value: "citric_acid", text: "Citric acid" },
              ]}
              onChoose={setAgent}
            />
            <GoalList goals={goals} onChange={(list) => keep.mutate(list)} />
            <p className="text-muted">Empty jars, lids and acid are counted under Kitchen.</p>
          </div>
        </Plate>
        <Plate title="The best of it">
          <Trouble
            error={accept.error ?? keep.error ?? remove.error ?? (chosen.length > 0 ? split.error : null)}
          />
          <AltitudeHere />
          {split.error !== null && (pins ?? []).length > 0 && (
            <div className="mt-3">
              <Touch onPress={() => setPins([])}>Let all pins go</Touch>
            </div>
          )}
          {answer !== undefined && (
            <div className="grid gap-4">
              {isOld ? (
                <Answer value="…">
                  {split.error === null && <span role="status">Looking for the best split…</span>}
                </Answer>
              ) : (
                <Answer value={answer.jars} unit={answer.jars === 1 ? "jar" : "jars"}>
                  {spanText(answer.canner_minutes)} of canner in {sharedText(answer)}
                  {answer.left_g > 500 && `, ${weightText(answer.left_g, units)} of fruit left over`}
                </Answer>
              )}
              <SplitLines
                answer={answer}
                units={units}
                lots={ready}
                onPin={(choice, jars) =>
                  setPins([
                    ...(pins ?? []).filter((pin) => pin.choice !== choice),
                    ...(jars === null ? [] : [{ choice, jars }]),
                  ])
                }
              />
              {!isOld && <SplitLoads answer={answer} />}
              {answer.refused.map((words) => (
                <Note key={words} tone="warn">
                  {words}
                </Note>
              ))}
              {!isOld && <Limits answer={answer} />}
              <Sources of={["split", "yields", "turnaround"]} />
              <Dock>
                <Touch
                  big
                  look="main"
                  className="w-full"
                  disabled={isOld || answer.jars === 0 || accept.isPending}
                  onPress={() => accept.mutate(undefined)}
                >
                  {isOld ? "Set out" : `Set out ${jarsText(answer.jars)}`}
                </Touch>
              </Dock>
            </div>
          )}
          {chosen.length > 0 && answer === undefined && split.error === null && (
            <p role="status" className="text-lg text-muted">
              Looking for the best split…
            </p>
          )}
          {chosen.length === 0 && <p className="text-lg text-muted">Choose fruit to share out.</p>}
        </Plate>
      </div>
    </div>
  );
}
