import { api, take, type FoodMove, type FoodPlace, type Lot, type Units } from "../../api/client";
import { useChange, useUndoMove } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Fold } from "../../parts/Fold";
import { Trouble } from "../../parts/Note";
import { MoveFood } from "../../parts/MoveFood";
import { Touch } from "../../parts/Touch";
import { WORDS } from "../../api/words.generated";

const PLACES: readonly FoodPlace[] = ["freezer", "refrigerator", "table", "neighbour", "discarded"];

/** What becomes of a lot other than jars: a part for the freezer, water off thawed fruit, juice that waits in the cold. */
export function LotFood({ lot, units }: { lot: Lot; units: Units }) {
  const say = useSay();
  const undo = useUndoMove();
  const move = useChange(
    ({ body }: { body: FoodMove; done: () => void }) =>
      take(api.POST("/api/lots/{id}/moves", { params: { path: { id: lot.id } }, body })),
    (moved, { done }) => {
      done();
      say(`${moved.food === "water" ? "Water poured off" : WORDS.FoodPlace[moved.place]}: written down`, () =>
        undo.mutate(moved.id),
      );
    },
  );
  const chill = useChange((chilled: boolean) =>
    take(api.PATCH("/api/lots/{id}", { params: { path: { id: lot.id } }, body: { chilled } })),
  );
  const send = (body: FoodMove, done: () => void) => move.mutate({ body, done });
  const isFruit = lot.food === "fruit";
  return (
    <>
      {!isFruit && !(lot.frozen && lot.thawed_at == null) && (
        <Touch onPress={() => chill.mutate(lot.chilled_at == null)}>
          {lot.chilled_at == null ? "Into the refrigerator" : "Out of the refrigerator"}
        </Touch>
      )}
      {lot.frozen && (
        <Fold words="Water poured off">
          <MoveFood
            foods={["water"]}
            places={["discarded"]}
            mayBeAll={false}
            units={units}
            send={send}
            error={move.error}
          />
        </Fold>
      )}
      <Fold words="Elsewhere">
        <MoveFood foods={[lot.food]} places={PLACES} mayBeAll units={units} send={send} error={move.error} />
      </Fold>
      <Trouble error={undo.error ?? chill.error} />
    </>
  );
}
