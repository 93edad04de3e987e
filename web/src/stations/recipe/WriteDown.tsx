import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type ReadLine } from "../../api/client";
import { useChange } from "../../api/queries";
import { Trouble } from "../../parts/Note";
import { TextArea } from "../../parts/TextArea";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { EMPTY, isOpen, written } from "./model";
import { OpenLine } from "./OpenLine";

/** A recipe typed or pasted: lines are read, and what cannot be read for certain is asked. */
export function WriteDown() {
  const [typed, setTyped] = useState("");
  const [name, setName] = useState("");
  const [lines, setLines] = useState<ReadLine[] | null>(null);
  const go = useNavigate();
  const read = useChange(
    () => take(api.POST("/api/recipes/read", { body: { text: typed } })),
    (found) => {
      setLines(found.lines);
      if (name.trim() === "" && found.name != null) setName(found.name);
    },
  );
  const keep = useChange(
    () =>
      take(
        api.POST("/api/recipes", { body: { text: { ...EMPTY, name, lines: (lines ?? []).map(written) } } }),
      ),
    (recipe) => void go(`/plan/recipes/${recipe.id}`),
  );
  const open = (lines ?? []).filter(isOpen).length;
  const set = (place: number, line: ReadLine | null) =>
    setLines((lines ?? []).flatMap((other, at) => (at !== place ? [other] : line === null ? [] : [line])));
  return (
    <div className="grid gap-3">
      <TextField label="Its name" typed={name} onType={setName} />
      {lines === null ? (
        <>
          <TextArea label="What goes in, a line for each, as it is printed" typed={typed} onType={setTyped} />
          <Touch
            look="main"
            disabled={typed.trim() === "" || read.isPending}
            onPress={() => read.mutate(undefined)}
          >
            Read the lines
          </Touch>
        </>
      ) : (
        <>
          <ul className="grid gap-2">
            {lines.map((line, place) => (
              <OpenLine key={line.line} line={line} onChange={(next) => set(place, next)} />
            ))}
          </ul>
          <p className="font-semibold" role="status">
            {open === 0
              ? "Everything is read."
              : `${open === 1 ? "One line is" : `${open} lines are`} still open.`}
          </p>
          <div className="flex flex-wrap gap-2">
            <Touch
              look="main"
              disabled={open > 0 || lines.length === 0 || name.trim() === "" || keep.isPending}
              onPress={() => keep.mutate(undefined)}
            >
              Write it down
            </Touch>
            <Touch onPress={() => setLines(null)}>Change the text</Touch>
          </div>
        </>
      )}
      <Trouble error={read.error ?? keep.error} />
    </div>
  );
}
