import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take } from "../../api/client";
import { useChange } from "../../queries/queries";
import { Findings } from "../../parts/Findings";
import { Trouble } from "../../parts/Note";
import { TextArea } from "../../parts/TextArea";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { EMPTY, isOpen, unmeasured, written, type Answered } from "./model";
import { OpenLine } from "./OpenLine";

/** A recipe typed or pasted: lines are read, and what cannot be read for certain is asked. */
export function WriteDown() {
  const [typed, setTyped] = useState("");
  const [name, setName] = useState("");
  const [lines, setLines] = useState<Answered[] | null>(null);
  // Lines that are kept without an amount, because their page has none.
  const [bare, setBare] = useState<readonly string[]>([]);
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
  const open = (lines ?? []).filter((line) => isOpen(line) && !bare.includes(line.line)).length;
  const set = (place: number, line: Answered | null) =>
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
              <OpenLine
                key={line.line}
                line={line}
                onChange={(next) => {
                  setBare(bare.filter((other) => other !== line.line));
                  set(place, next);
                }}
                onUnmeasured={(next) => {
                  set(place, unmeasured(next));
                  setBare([...bare, line.line]);
                }}
              />
            ))}
          </ul>
          <Findings items={read.data?.findings ?? []} />
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
