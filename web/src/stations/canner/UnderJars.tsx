import { api, take, type LoadView, type UnderJars as Under } from "../../api/client";
import { useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { Choice, optionsOf } from "../../parts/Choice";
import { capitals } from "../../writing/format";
import { Trouble } from "../../parts/Note";

const UNDERS = Object.keys(WORDS.UnderJars) as Under[];
const UNDER_WORDS = capitals(WORDS.UnderJars);

/** What stands between the jars and the bottom of the pot: asked of its first load of the day. */
export function UnderJars({ load }: { load: LoadView }) {
  const save = useChange((under_jars: Under) =>
    take(
      api.PUT("/api/loads/{id}/under_jars", {
        params: { path: { id: load.id } },
        body: { under_jars },
      }),
    ),
  );
  if (!load.asks_under && load.under_jars == null) return null;
  return (
    <>
      <Choice<Under | "">
        label="Under the jars, in the pot"
        value={load.under_jars ?? ""}
        options={optionsOf(UNDERS, UNDER_WORDS)}
        onChoose={(under) => under !== "" && save.mutate(under)}
      />
      <Trouble error={save.error} />
    </>
  );
}
