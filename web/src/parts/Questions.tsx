import { useState } from "react";
import { api, take, type Added, type Question } from "../api/client";
import { useChange } from "../queries/queries";
import { AltitudeHere } from "./AltitudeHere";
import { USUAL } from "./claims";
import { ContentsPicker } from "./ContentsPicker";
import { Note, Trouble } from "./Note";
import { Touch } from "./Touch";
import { SayWater } from "./WaterOver";
import { useClaims } from "./useClaims";

/** What else goes in, said where it was found to be missing. */
function SayContents({ onSave }: { onSave: (additions: Added[]) => void }) {
  const [said, setSaid] = useState<Added[] | null>(null);
  return (
    <>
      <ContentsPicker
        value={null}
        onSay={(next) => {
          setSaid(next);
          // Nothing is said in one touch.
          if (next?.length === 0) onSave(next);
        }}
      />
      {said !== null && said.length > 0 && (
        <Touch look="main" onPress={() => onSave(said)}>
          Save it
        </Touch>
      )}
    </>
  );
}

/** The card of a load, confirmed where its jars are no longer looked at one by one. */
function SayUsual({ load }: { load: number }) {
  const save = useClaims(load);
  return (
    <div>
      <Touch onPress={() => save.mutate(USUAL)}>Yes, all of that</Touch>
      <Trouble error={save.error} />
    </div>
  );
}

/** The same of a batch that is on the line. */
function SayOfBatch({ batch }: { batch: number }) {
  const save = useChange((additions: Added[]) =>
    take(api.PUT("/api/batches/{id}/additions", { params: { path: { id: batch } }, body: { additions } })),
  );
  return (
    <>
      <SayContents onSave={(additions) => save.mutate(additions)} />
      <Trouble error={save.error} />
    </>
  );
}

/** What is said of a load as a whole. */
const ON_LOAD: readonly Question["ask"][] = ["claims", "water"];

/** What has to be said before anybody can tell whether these jars are done right. */
export function Questions({
  items,
  load,
  onContents,
}: {
  items: readonly Question[];
  /** The load whose card and water can be said here; where they stand themselves, they are not asked again. */
  load?: number;
  /** What is done with what goes in, of a plan that is no batch yet. */
  onContents?: (additions: Added[]) => void;
}) {
  const asked = items.filter((item) => !ON_LOAD.includes(item.ask) || load !== undefined);
  return asked.map((item) => (
    <Note key={item.ask + String(item.batch)} tone="warn">
      <div data-question={item.ask} className="grid gap-2">
        <p>
          <strong>Cannot tell yet.</strong> {item.ask === "additions" ? "" : item.says}
        </p>
        {item.ask === "additions" && item.batch != null && <SayOfBatch batch={item.batch} />}
        {item.ask === "additions" && item.batch == null && onContents !== undefined && (
          <SayContents onSave={onContents} />
        )}
        {item.ask === "claims" && load !== undefined && <SayUsual load={load} />}
        {item.ask === "water" && load !== undefined && <SayWater load={load} />}
        {item.ask === "altitude" && <AltitudeHere />}
      </div>
    </Note>
  ));
}

/** What was not asked yet when this was recorded: no alarm, and no claim. */
export function NotAsked({ items }: { items: readonly Question[] }) {
  if (items.length === 0) return null;
  return (
    <p className="text-sm text-muted">
      Recorded before this was asked: {items.map((item) => item.says).join(" ")}
    </p>
  );
}
