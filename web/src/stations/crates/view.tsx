import { useQueries, useQuery } from "@tanstack/react-query";
import { api, take, type Condition, type Lot, type Product, type Thickness } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { weight, weightText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { CrateCard } from "./CrateCard";
import { HarvestLog } from "./HarvestLog";
import { WeighIn } from "./WeighIn";
import { Way } from "../../parts/Way";

/** What the waiting fruit could become, in the order people think of it. */
const COULD_BE: readonly { product: Product; thickness: Thickness | null; text: string }[] = [
  { product: "whole", thickness: null, text: "whole" },
  { product: "crushed", thickness: null, text: "crushed" },
  { product: "sauce", thickness: "thin", text: "thin sauce" },
];

function CouldBe({ grams }: { grams: number }) {
  const answers = useQueries({
    queries: COULD_BE.map((item) => ask.yield(item.product, item.thickness, grams)),
  });
  if (answers.some((answer) => answer.data === undefined)) return <>&nbsp;</>;
  const parts = answers.map(
    (answer, i) => `${answer.data?.jars.quart?.expected ?? 0} ${COULD_BE[i]?.text ?? ""}`,
  );
  return (
    <>
      Makes about <strong className="text-ink">{parts.join(", ")}</strong>, in quarts.
    </>
  );
}

export function CratesStation() {
  const { data: lots } = useQuery(ask.lots());
  const { data: counter } = useQuery(ask.counter());
  const say = useSay();
  const change = useChange(
    ({
      id,
      ...body
    }: {
      id: number;
      removed?: boolean;
      condition?: Condition;
      weight?: { value: number; unit: "lb" | "kg" };
    }) => take(api.PATCH("/api/lots/{id}", { params: { path: { id } }, body })),
  );
  if (lots === undefined || counter === undefined) return <Pending of={[ask.lots(), ask.counter()]} />;
  const units = counter.kitchen.units;
  const waiting = weight(counter.waiting_g, units);
  const takeOff = (lot: Lot) =>
    change.mutate(
      { id: lot.id, removed: true },
      {
        onSuccess: () =>
          say(`${weightText(lot.left_g, units)} taken off the line`, () =>
            change.mutate({ id: lot.id, removed: false }),
          ),
      },
    );
  return (
    <div className="grid gap-3 lg:grid-cols-[1.15fr_1fr]">
      <Plate title="In the crates">
        {counter.is_new && (
          <div className="mb-4">
            <Way to="/start">What could your tomatoes be? Three things, and the answer</Way>
          </div>
        )}
        <Answer value={waiting.value} unit={`${waiting.unit} ready for jars`}>
          {counter.waiting_fruit_g > 0 ? (
            <CouldBe grams={counter.waiting_fruit_g} />
          ) : counter.waiting_g > 0 ? (
            "Juice and cooked food wait: make them into jars at the Plan."
          ) : (
            "Nothing is waiting. Weigh in what came from the garden."
          )}
        </Answer>
        <ul className="mt-5 grid gap-2">
          {lots.map((lot) => (
            <CrateCard
              key={lot.id}
              lot={lot}
              units={units}
              now={counter.now}
              onTakeOff={() => takeOff(lot)}
              onRipe={() => change.mutate({ id: lot.id, condition: "firm_ripe" })}
              onCorrect={(value) =>
                change.mutate({ id: lot.id, weight: { value, unit: units === "us" ? "lb" : "kg" } })
              }
            />
          ))}
        </ul>
        <div className="mt-4">
          <Trouble error={change.error} />
        </div>
        <BrokenRecords of={["lot"]} />
        <HarvestLog />
      </Plate>
      <div className="max-lg:order-first">
        <WeighIn units={units} />
      </div>
    </div>
  );
}
