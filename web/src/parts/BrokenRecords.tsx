import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type BrokenRecord } from "../api/client";
import { ask, useChange } from "../queries/queries";
import { Note, Trouble } from "./Note";
import { Pick } from "./Pick";
import { TextField } from "./TextField";
import { Touch } from "./Touch";
import { brokenText } from "./broken";

/** One record that cannot be read: what stands in it, and putting it right. */
function Broken({ record }: { record: BrokenRecord }) {
  const [value, setValue] = useState("");
  const mend = useChange((to: string) =>
    take(
      api.PUT("/api/broken/{table}/{id}/{field}", {
        params: { path: { table: record.table, id: record.id, field: record.field } },
        body: { value: to },
      }),
    ),
  );
  return (
    <Note tone="stop">
      <p className="font-semibold">{brokenText(record)}</p>
      <p>It is left out of every list until it is put right; nothing else is touched.</p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        {record.choices.length > 0 ? (
          <Pick
            label="It should say"
            value={value}
            placeholder="Choose"
            options={record.choices.map((choice) => ({ value: choice.word, text: choice.label }))}
            onChoose={setValue}
          />
        ) : (
          <TextField label="The day should be" typed={value} example="2026-09-12" onType={setValue} />
        )}
        <Touch look="main" disabled={value === ""} onPress={() => mend.mutate(value)}>
          Put it right
        </Touch>
      </div>
      <Trouble error={mend.error} />
    </Note>
  );
}

/** Records of some kinds that cannot be read, each on a card of its own; nothing while all can. */
export function BrokenRecords({ of }: { of: readonly string[] }) {
  const { data: broken } = useQuery(ask.broken());
  return broken
    ?.filter((record) => of.includes(record.table))
    .map((record) => <Broken key={`${record.table} ${record.id} ${record.field}`} record={record} />);
}
