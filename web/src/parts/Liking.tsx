import { api, take, type Batch, type Liking as Word } from "../api/client";
import { useChange } from "../queries/queries";
import { WORDS } from "../api/words.generated";
import { allOf, Choice } from "./Choice";
import { capital } from "../writing/format";
import { Trouble } from "./Note";
import { Touch } from "./Touch";

/** Whether a batch would be made again. */
export function Liking({ batch }: { batch: Batch }) {
  const like = useChange((liked: Word | null) =>
    take(api.PUT("/api/batches/{id}/liked", { params: { path: { id: batch.id } }, body: { liked } })),
  );
  const options = allOf(WORDS.Liking) as { value: Word; text: string }[];
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Choice
        label="Would we make it again?"
        value={batch.liked ?? ""}
        options={options.map(({ value, text }) => ({ value, text: capital(text) }))}
        onChoose={(liked) => like.mutate(liked)}
      />
      {batch.liked != null && (
        <Touch disabled={like.isPending} onPress={() => like.mutate(null)}>
          Not said
        </Touch>
      )}
      <Trouble error={like.error} />
    </div>
  );
}
