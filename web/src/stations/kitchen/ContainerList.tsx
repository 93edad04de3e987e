import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { weightText, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";

/** Containers taught once and counted ever after. */
export function ContainerList({ units }: { units: Units }) {
  const { data } = useQuery(ask.containers());
  const [name, setName] = useState("");
  const [typed, setTyped] = useState("");
  const unit = units === "us" ? "lb" : "kg";
  const teach = useChange(
    () => take(api.POST("/api/containers", { body: { name, weight: { value: Number(typed), unit } } })),
    () => {
      setName("");
      setTyped("");
    },
  );
  const forget = useChange((id: number) =>
    take(api.DELETE("/api/containers/{id}", { params: { path: { id } } })),
  );
  const ready = name.trim() !== "" && isNumber(typed);
  return (
    <Plate title="Your containers">
      <ul className="grid gap-1">
        {data?.taught.map((container) => (
          <li key={container.id} className="flex items-center justify-between gap-3">
            <span>
              <strong>{container.name}</strong> holds {weightText(container.weight_g, units)}
            </span>
            <Touch onPress={() => forget.mutate(container.id)}>Forget</Touch>
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <TextField label="Teach another" typed={name} example="green bucket" onType={setName} />
        <WeightField label="Tomatoes in one" typed={typed} unit={unit} onType={setTyped} />
        <Touch look="main" disabled={!ready} onPress={() => teach.mutate(undefined)}>
          Teach
        </Touch>
      </div>
      <div className="mt-3">
        <Trouble error={teach.error ?? forget.error} />
      </div>
    </Plate>
  );
}
