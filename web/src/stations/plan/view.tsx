import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, take, type BatchChange, type PlanRequest, type Product } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Trouble } from "../../parts/Note";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { BatchList } from "./BatchList";
import { PlanAnswer } from "./PlanAnswer";
import { PlanChoices } from "./PlanChoices";
import { chooseLots, useChosenLots } from "./chosenLots";
import { firstWish, startWith } from "./model";
import { PlanTabs } from "./PlanTabs";
import { jarsText } from "../../writing/format";

export function PlanStation() {
  const { data: lots } = useQuery(ask.lots());
  const { data: batches } = useQuery(ask.batches());
  const [search] = useSearchParams();
  const [wished, setWish] = useState<PlanRequest | null>(null);
  const chosen = useChosenLots();
  const say = useSay();
  const go = useNavigate();
  const { data: counter } = useQuery(ask.counter());
  const wish = wished ?? firstWish(search, counter?.kitchen);
  const ready = lots?.filter((lot) => lot.condition === "firm_ripe" || lot.condition === "trim") ?? [];
  // Until somebody chooses, what must go first of that which can become it is the answer to "which fruit?".
  const first = ready.filter((lot) => lot.becomes.includes(wish.product)).slice(0, 1);
  const drawn = (chosen ?? first.map((lot) => lot.id)).filter((id) => ready.some((lot) => lot.id === id));
  const request = { ...wish, lots: drawn };
  const preview = useQuery(ask.plan(request));
  const change = useChange(({ id, ...body }: { id: number } & BatchChange) =>
    take(api.PATCH("/api/batches/{id}", { params: { path: { id } }, body })),
  );
  const accept = useChange(
    () => take(api.POST("/api/batches", { body: request })),
    (batch) => {
      chooseLots(null);
      setWish({ ...wish, jars: null, additions: null });
      say(`Batch ${batch.code} is on the line: ${jarsText(batch.jars)}`, () =>
        change.mutate({ id: batch.id, removed: true }),
      );
      void go("/jars");
    },
  );
  if (lots === undefined || counter === undefined) return <Pending of={[ask.lots(), ask.counter()]} />;
  const units = counter.kitchen.units;
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <div className="grid gap-3 lg:grid-cols-2">
        <Plate title="What do you want to make?">
          <PlanChoices
            wish={wish}
            packs={preview.data?.plan?.packs ?? []}
            lots={ready}
            drawn={drawn}
            units={units}
            onWish={(next) => setWish({ ...wish, jars: null, ...next })}
            onLots={(ids) => {
              // Juice alone becomes juice: the product follows what was chosen.
              const taken = ready.filter((lot) => ids.includes(lot.id));
              const both = taken.reduce<Product[] | null>(
                (all, lot) => all?.filter((product) => lot.becomes.includes(product)) ?? lot.becomes,
                null,
              );
              const follows =
                both === null || both.includes(wish.product) || both[0] === undefined
                  ? {}
                  : startWith(both[0], wish.jar);
              setWish({ ...wish, jars: null, ...follows });
              chooseLots(ids);
            }}
          />
        </Plate>
        <div className="grid content-start gap-3 max-lg:order-first">
          <PlanAnswer
            request={request}
            preview={drawn.length > 0 ? preview.data : undefined}
            units={units}
            trouble={drawn.length > 0 ? preview.error : null}
            accepting={accept.isPending}
            onJars={(jars) => setWish({ ...wish, jars })}
            onRest={(rest) => setWish({ ...wish, rest })}
            onAccept={() => accept.mutate(undefined)}
            onContents={(additions) => setWish({ ...wish, additions })}
          />
          <Trouble error={accept.error ?? change.error} />
          <BrokenRecords of={["batch"]} />
          <BatchList
            batches={batches ?? []}
            units={units}
            onKeep={(batch) => change.mutate({ id: batch.id, chilled: false })}
            onRemove={(batch) =>
              change.mutate(
                { id: batch.id, removed: true },
                {
                  onSuccess: () =>
                    say(`Batch ${batch.code} taken off the line`, () =>
                      change.mutate({ id: batch.id, removed: false }),
                    ),
                },
              )
            }
          />
        </div>
      </div>
    </div>
  );
}
