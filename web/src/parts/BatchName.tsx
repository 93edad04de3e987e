import { api, take, type Batch } from "../api/client";
import { useChange } from "../queries/queries";
import { NameNote } from "./NameNote";

/** What the household calls a batch, and its note. */
export function BatchName({ batch }: { batch: Batch }) {
  const name = useChange((body: { name: string; note: string }) =>
    take(api.PUT("/api/batches/{id}/name", { params: { path: { id: batch.id } }, body })),
  );
  return (
    <NameNote
      of={batch}
      example="with the yellow ones"
      error={name.error}
      onKeep={(named) => name.mutate(named)}
    />
  );
}
