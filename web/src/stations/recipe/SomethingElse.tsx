import { useState } from "react";
import { api, take, type Part, type ReadLine } from "../../api/client";
import { useChange } from "../../api/queries";
import { Trouble } from "../../parts/Note";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { isOpen, written } from "./model";
import { OpenLine } from "./OpenLine";

/** Something that the recipe does not have and that went in all the same: said as a line, and judged. */
export function SomethingElse({ onAdd }: { onAdd: (part: Part) => void }) {
  const [typed, setTyped] = useState("");
  const [line, setLine] = useState<ReadLine | null>(null);
  const read = useChange(
    () => take(api.POST("/api/recipes/read", { body: { text: typed } })),
    (found) => setLine(found.lines[0] ?? null),
  );
  const done = () => {
    if (line === null) return;
    onAdd(written(line).part);
    setLine(null);
    setTyped("");
  };
  return (
    <div className="grid gap-3">
      {line === null ? (
        <>
          <TextField label="What, and how much" example="1 cup corn" typed={typed} onType={setTyped} />
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
            It went in
          </Touch>
        </>
      )}
      <Trouble error={read.error} />
    </div>
  );
}
