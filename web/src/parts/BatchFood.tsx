import { api, take, type Food, type FoodMove, type FoodPlace, type Units } from "../api/client";
import { useChange, useUndoMove } from "../queries/queries";
import { WORDS } from "../api/words.generated";
import { useSay } from "./notices";
import { MoveFood } from "./MoveFood";
import { Trouble } from "./Note";

const PLACES = Object.keys(WORDS.FoodPlace) as FoodPlace[];

/** What left a batch beside its jars: what, how much, and one touch for where. */
export function BatchFood({
  batch,
  foods,
  places = PLACES,
  units,
}: {
  batch: number;
  foods: readonly Food[];
  places?: readonly FoodPlace[];
  units: Units;
}) {
  const say = useSay();
  const undo = useUndoMove();
  const tell = useChange(
    ({ body }: { body: FoodMove; done: () => void }) =>
      take(api.POST("/api/batches/{id}/moves", { params: { path: { id: batch } }, body })),
    ({ balance }, { body, done }) => {
      done();
      const last = balance.parts.findLast((part) => part.id != null)?.id;
      const words = body.place === "line" ? "It waits at the Plan for other jars" : "It is in the books";
      say(words, last == null ? undefined : () => undo.mutate(last));
    },
  );
  return (
    <>
      <MoveFood
        foods={foods}
        places={places}
        mayBeAll={false}
        units={units}
        send={(body, done) => tell.mutate({ body, done })}
        error={tell.error}
      />
      <Trouble error={undo.error} />
    </>
  );
}
