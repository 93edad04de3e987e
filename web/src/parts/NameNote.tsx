import { useState } from "react";
import { Fold } from "./Fold";
import { Trouble } from "./Note";
import { TextArea } from "./TextArea";
import { TextField } from "./TextField";
import { Touch } from "./Touch";

export interface Named {
  name?: string | null;
  note?: string | null;
}

/** What the household calls something, and a note beside it; on the label too. */
export function NameNote({
  of,
  example,
  error,
  onKeep,
}: {
  of: Named;
  example: string;
  error: Error | null;
  onKeep: (named: { name: string; note: string }) => void;
}) {
  const [typed, setTyped] = useState<{ name: string; note: string } | null>(null);
  const shown = typed ?? { name: of.name ?? "", note: of.note ?? "" };
  return (
    <Fold words={of.name == null && of.note == null ? "Name it" : "Name and note"}>
      <div className="grid gap-3">
        <TextField
          label="What we call it"
          example={example}
          typed={shown.name}
          onType={(name) => setTyped({ ...shown, name })}
        />
        <TextArea label="Note" rows={2} typed={shown.note} onType={(note) => setTyped({ ...shown, note })} />
        <div>
          <Touch
            look="main"
            disabled={typed === null}
            onPress={() => {
              onKeep(shown);
              setTyped(null);
            }}
          >
            Keep it
          </Touch>
        </div>
        <Trouble error={error} />
      </div>
    </Fold>
  );
}
