import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type KettleView, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice } from "../../parts/Choice";
import { depthText, volumeText, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { inMm, L_PER_QUART, rulerUnit } from "../../parts/units";

/** Pour a quart, read the stick, pour the next: for kettles whose walls are not straight. */
function Calibrate({ kettle, units, onDone }: { kettle: KettleView; units: Units; onDone: () => void }) {
  const us = units === "us";
  const [typed, setTyped] = useState("");
  const [depths, setDepths] = useState<number[]>([]);
  const save = useChange(
    (list: number[]) =>
      take(
        api.PUT("/api/kettles/{id}/calibration", {
          params: { path: { id: kettle.id } },
          body: { pour_l: us ? L_PER_QUART : 1, depths_mm: list },
        }),
      ),
    onDone,
  );
  const value = inMm(typed, units);
  const ready = isNumber(typed);
  const measure = us ? "quart" : "litre";
  return (
    <div className="grid gap-3 rounded-2xl border-2 border-line p-3">
      <p>
        Pour {depths.length === 0 ? `one ${measure}` : `another ${measure}`} of water in and read the stick.
        {depths.length > 0 && ` So far: ${depths.map((depth) => depthText(depth, units)).join(", ")}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <WeightField
          label={`Depth after ${depths.length + 1}`}
          typed={typed}
          unit={rulerUnit(units)}
          onType={setTyped}
        />
        <Touch
          disabled={!ready}
          onPress={() => {
            setDepths([...depths, value]);
            setTyped("");
          }}
        >
          Next {measure}
        </Touch>
        <Touch look="main" disabled={depths.length === 0} onPress={() => save.mutate(depths)}>
          Keep these marks
        </Touch>
        <Touch onPress={() => save.mutate([])}>Straight walls</Touch>
      </div>
      <Trouble error={save.error} />
    </div>
  );
}

/** The household's kettles, pans and roasters. */
export function KettleList({ units }: { units: Units }) {
  const { data: kettles } = useQuery(ask.kettles());
  const say = useSay();
  const [open, setOpen] = useState<number | null>(null);
  const [name, setName] = useState("");
  const [wide, setWide] = useState("");
  const [deep, setDeep] = useState("");
  const [heat, setHeat] = useState<KettleView["heat"]>("burner");
  const add = useChange(
    () =>
      take(
        api.POST("/api/kettles", {
          body: { name, inner_diameter_mm: inMm(wide, units), depth_mm: inMm(deep, units), heat },
        }),
      ),
    (kettle) => {
      setName("");
      setWide("");
      setDeep("");
      say(`${kettle.name} is in the kitchen`);
    },
  );
  if (kettles === undefined) return null;
  const ready = name.trim() !== "" && [wide, deep].every(isNumber);
  return (
    <Plate title="Your kettles">
      <ul className="grid gap-2">
        {kettles.map((kettle) => (
          <li key={kettle.id} className="grid gap-2">
            <div className="flex flex-wrap items-center justify-between gap-2">
              <p className="min-w-0 leading-snug">
                <strong>{kettle.name}</strong>, {volumeText(kettle.brim_l, units)} to the brim
                <span className="block text-sm text-muted">
                  {depthText(kettle.inner_diameter_mm, units)} wide, {depthText(kettle.depth_mm, units)} deep,{" "}
                  {kettle.pour_depths_mm.length > 0
                    ? `${kettle.pour_depths_mm.length} poured marks`
                    : "straight walls"}
                  , {kettle.heat === "oven" ? "in the oven" : "on a burner"}
                </span>
              </p>
              <Touch onPress={() => setOpen(open === kettle.id ? null : kettle.id)}>Calibrate</Touch>
            </div>
            {open === kettle.id && <Calibrate kettle={kettle} units={units} onDone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex flex-wrap items-end gap-3 border-t-2 border-line pt-4">
        <TextField label="Another kettle" typed={name} onType={setName} />
        <WeightField label="Wide inside" typed={wide} unit={rulerUnit(units)} onType={setWide} />
        <WeightField label="Deep inside" typed={deep} unit={rulerUnit(units)} onType={setDeep} />
        <Choice
          label="It stands"
          value={heat}
          options={[
            { value: "burner", text: "On a burner" },
            { value: "oven", text: "In the oven" },
          ]}
          onChoose={setHeat}
        />
        <Touch look="main" disabled={!ready} onPress={() => add.mutate(undefined)}>
          Add it
        </Touch>
      </div>
      <div className="mt-3">
        <Trouble error={add.error} />
      </div>
    </Plate>
  );
}
