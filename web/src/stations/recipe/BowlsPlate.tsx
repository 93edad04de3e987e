import { Link } from "react-router";
import {
  api,
  take,
  type BowlsChange,
  type BowlsView,
  type Food,
  type FoodPlace,
  type Strength,
  type Units,
} from "../../api/client";
import { useChange, useUndoMove } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { BatchFood } from "../../parts/BatchFood";
import { allOf, Choice } from "../../parts/Choice";
import { capital, jarsText } from "../../writing/format";
import { Fold } from "../../parts/Fold";
import { Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { Balance } from "./Balance";
import { BowlLine } from "./BowlLine";
import { short } from "./model";
import { PhBench } from "./PhBench";
import { SomethingElse } from "./SomethingElse";

/** What comes out of the pot, and where that may go which is not canned. */
const FINISHED: readonly Food[] = ["product"];
const COLD: readonly FoodPlace[] = ["refrigerator", "freezer", "table", "neighbour", "discarded"];

const WORD = { fine: "Holds", not_fine: "Stop", cannot_tell: "Say more" } as const;
const LOOK = { fine: "text-fine", not_fine: "text-alarm", cannot_tell: "text-ink" } as const;

/** The bowls of a recipe: what is in each, whether the proportions hold, and the way back. */
export function BowlsPlate({
  bowls,
  name,
  isChecked,
  units,
}: {
  bowls: BowlsView;
  name: string;
  /** It was held against a copy, so that its jars may be set out. */
  isChecked: boolean;
  units: Units;
}) {
  const say = useSay();
  const path = { path: { id: bowls.id } };
  const change = useChange((body: BowlsChange) => take(api.PATCH("/api/bowls/{id}", { params: path, body })));
  const away = useChange(
    (put: boolean) => take(api.PATCH("/api/bowls/{id}", { params: path, body: { away: put } })),
    (_, put, again) => put && say("The bowls are put away", () => again(false)),
  );
  const jars = useChange(
    () =>
      take(
        api.POST("/api/recipes/{id}/batches", {
          params: { path: { id: bowls.recipe } },
          body: { factor: bowls.factor, bowls: bowls.id },
        }),
      ),
    (batch) => say(`Batch ${batch.code} is on the line: ${jarsText(batch.jars)}`),
  );
  const remove = useChange(
    (removed: boolean) =>
      take(
        api.PATCH("/api/batches/{id}", {
          params: { path: { id: bowls.batch?.id ?? 0 } },
          body: { removed },
        }),
      ),
    (batch, removed, again) => removed && say(`Batch ${batch.code} is taken back`, () => again(false)),
  );
  const cold = useChange(
    () =>
      take(
        api.POST("/api/recipes/{id}/cold", {
          params: { path: { id: bowls.recipe } },
          body: { factor: bowls.factor, bowls: bowls.id },
        }),
      ),
    (batch) => say(`Batch ${batch.code} is begun, not for jars`),
  );
  const takeBack = useUndoMove();
  const { ruling, says } = bowls.may_can;
  const isCold = bowls.cold != null;
  const open = bowls.actual.filter((part) => part.amount == null).length;
  const { batch } = bowls;
  return (
    <Plate
      title={`${name} × ${short(bowls.factor)}, in the bowls`}
      aside={
        batch == null || (isCold && bowls.went.length > 0) ? (
          <Touch disabled={away.isPending} onPress={() => away.mutate(true)}>
            Put away
          </Touch>
        ) : isCold ? (
          <Touch disabled={remove.isPending} onPress={() => remove.mutate(true)}>
            Take it back
          </Touch>
        ) : (
          <span className="text-muted">Batch {batch.code}</span>
        )
      }
      className="print:hidden"
    >
      <div className="grid gap-5 lg:grid-cols-2">
        <div className="grid content-start gap-4">
          <div className={isCold ? "text-cobalt" : LOOK[ruling]} role="status">
            <Answer value={isCold ? "Cold" : WORD[ruling]}>{bowls.cold ?? says}</Answer>
          </div>
          {batch != null && bowls.went.length > 0 && (
            <ul className="grid gap-1 text-lg">
              {bowls.went.map(({ id, words }) => (
                <li key={id} className="flex flex-wrap items-center gap-x-3">
                  {capital(words)}
                  <Touch
                    label={`Take back: ${words}`}
                    disabled={takeBack.isPending}
                    onPress={() => takeBack.mutate(id)}
                  >
                    Take back
                  </Touch>
                </li>
              ))}
            </ul>
          )}
          {batch != null && isCold && (
            <section aria-label="Where it goes">
              <BatchFood batch={batch.id} foods={FINISHED} places={COLD} units={units} />
              <Link
                to={`/batches/${batch.id}`}
                className="mt-2 inline-grid min-h-[48px] w-fit place-items-center font-semibold text-link underline underline-offset-4"
              >
                What to do, in order
              </Link>
            </section>
          )}
          {batch != null && !isCold && (
            <Fold words="Some of it fills no jar">
              <BatchFood batch={batch.id} foods={FINISHED} places={COLD} units={units} />
            </Fold>
          )}
          {batch != null && !isCold && (
            <Link
              to="/jars"
              className="inline-grid min-h-[48px] w-fit place-items-center font-semibold text-link underline underline-offset-4"
            >
              To its {jarsText(batch.jars)}
            </Link>
          )}
          {batch == null && isChecked && (
            <Touch disabled={jars.isPending} onPress={() => jars.mutate(undefined)}>
              Set its jars out
            </Touch>
          )}
          {!isCold && bowls.ways_back.length > 0 && (
            <div className="grid gap-2">
              <h3 className="text-lg">Back to the recipe</h3>
              {bowls.ways_back.map((way, place) => {
                const words = way.map((step) => step.says).join(" and ");
                return (
                  <Touch
                    key={words}
                    look={place === 0 ? "main" : "plain"}
                    className="py-2 text-left"
                    disabled={change.isPending}
                    onPress={() => change.mutate({ way: place })}
                  >
                    {capital(words)}
                  </Touch>
                );
              })}
            </div>
          )}
          {!isCold && ruling === "not_fine" && bowls.ways_back.length === 0 && bowls.instead.length > 0 && (
            <ul className="list-disc pl-6 text-lg">
              {bowls.instead.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          )}
          {batch == null && (
            <Touch disabled={cold.isPending} onPress={() => cold.mutate(undefined)}>
              Refrigerator or freezer, no jars
            </Touch>
          )}
          {bowls.seen.swaps.map((swap) => (
            <p key={swap.name} className="font-semibold">
              {capital(swap.name)}: {swap.says}
            </p>
          ))}
          {!isCold && <Balance proportions={bowls.seen.proportions} />}
          <Trouble
            error={change.error ?? away.error ?? jars.error ?? cold.error ?? remove.error ?? takeBack.error}
          />
        </div>
        <div className="grid content-start gap-2">
          {open > 1 && (
            <Touch disabled={change.isPending} onPress={() => change.mutate({ as_planned: true })}>
              All {open} as on the card
            </Touch>
          )}
          {!isCold && bowls.asks_strength && (
            <Choice
              label="How strong is the vinegar?"
              value=""
              options={allOf(WORDS.Strength) as { value: Strength; text: string }[]}
              onChoose={(strength) => change.mutate({ strength })}
            />
          )}
          <ul className="grid gap-2">
            {bowls.actual.map((part, place) => (
              <BowlLine
                key={`${place} ${part.name}`}
                part={part}
                planned={bowls.planned[place]}
                onAmount={(amount) => change.mutate({ amounts: [{ place, amount }] })}
              />
            ))}
          </ul>
          <Fold words="Something else went in">
            <SomethingElse
              done="It went in"
              example="1 cup corn"
              onAdd={(line) => change.mutate({ add: line.part })}
            />
          </Fold>
          <Fold words="pH meter">
            <PhBench bowls={bowls.id} parts={bowls.actual.map((part) => part.name)} />
          </Fold>
          <Tick
            label="It is mixed: nothing can be taken out any more"
            on={bowls.mixed}
            onTick={(mixed) => change.mutate({ mixed })}
          />
        </div>
      </div>
    </Plate>
  );
}
