import { useState } from "react";
import { api, take, type RecipeLine } from "../../api/client";
import { useChange } from "../../queries/queries";
import { Trouble } from "../../parts/Note";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { isOpen, written, type Answered } from "./model";
import { OpenLine } from "./OpenLine";

/** One more line, read as it is typed: something that went in besides, or that is missing on the page. */
export function SomethingElse({
  done: doneWords,
  example,
  onAdd,
}: {
  /** What the touch says that takes it. */
  done: string;
  example: string;
  onAdd: (line: RecipeLine) => void;
}) {
  const [typed, setTyped] = useState("");
  const [line, setLine] = useState<Answered | null>(null);
  const read = useChange(
    () => take(api.POST("/api/recipes/read", { body: { text: typed } })),
    (found) => setLine(found.lines[0] ?? null),
  );
  const done = () => {
    if (line === null) return;
    onAdd(written(line));
    setLine(null);
    setTyped("");
  };
  return (
    <div className="grid gap-3">
      {line === null ? (
        <>
          <TextField label="What, and how much" example={example} typed={typed} onType={setTyped} />
          <Touch disabled={typed.trim() === "" || read.isPending} onPress={() => read.mutate(undefined)}>
            Read it
          </Touch>
        </>
      ) : (
        <>
          <ul>
            <OpenLine line={line} onChange={setLine} />
          </ul>
          <Touch look="main" disabled={isOpen(line)} onPress={done}>
            {doneWords}
          </Touch>
        </>
      )}
      <Trouble error={read.error} />
    </div>
  );
}
