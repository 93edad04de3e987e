import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import * as v from "valibot";
import type { Height, NearAnswer, Units } from "../api/client";
import { ask } from "../queries/queries";
import { Choice } from "./Choice";
import { number, useFields } from "./fields";
import { altitudeText, distanceText } from "../writing/format";
import { NumberOf } from "./FormFields";
import { Note, Trouble } from "./Note";
import { Touch } from "./Touch";
import { NumberField } from "./NumberField";
import { parseNumber, saidText } from "../writing/number";
import { waysNow } from "../writing/ways";
import { TextField } from "./TextField";
import { heatScale, heightScale, lowAsked } from "../writing/units";

/** The column of the table that a height lies in, in the household's own measure. */
const bandText = (height: Height) => (waysNow().height === "feet" ? height.band : height.band_m);

type Way = "enter" | "place" | "boil";
type Use = (feet: number) => void;

function Enter({ onUse }: { onUse: Use }) {
  const scale = heightScale();
  const { control, getValues, handleSubmit, reset } = useFields(
    v.object({ height: number("KitchenRequest.altitude_ft", scale) }),
    { height: "" },
  );
  const [asked, setAsked] = useState<readonly number[] | null>(null);
  const use = (feet: number) => {
    setAsked(null);
    onUse(feet);
    reset({ height: "" });
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ height }) => {
          const values = asked === null ? lowAsked(getValues("height"), scale) : null;
          setAsked(values);
          if (values === null) use(height);
        })(event)
      }
    >
      <NumberOf
        control={control}
        name="height"
        label="New altitude"
        bound="KitchenRequest.altitude_ft"
        scale={scale}
      />
      <Touch submit look="main">
        Set altitude
      </Touch>
      {asked?.map((value) => (
        <Touch key={value} onPress={() => use(scale.toApi(value))}>
          {saidText(value, scale.unit)}
        </Touch>
      ))}
    </form>
  );
}

function UseHeight({ height, onUse }: { height: Height; onUse: Use }) {
  return <Touch onPress={() => onUse(height.altitude_ft)}>Use {altitudeText(height.altitude_ft)}</Touch>;
}

function Near({ answer, units, onUse }: { answer: NearAnswer; units: Units; onUse: Use }) {
  return (
    <div className="grid gap-2">
      <ul className="grid gap-2">
        {answer.airfields.map((field) => (
          <li key={field.name + field.distance_km} className="flex items-center justify-between gap-3">
            <span className="min-w-0 leading-snug">
              <strong>{altitudeText(field.height.altitude_ft)}</strong>, {bandText(field.height)}
              <span className="block truncate text-sm text-muted">
                {field.name}, {distanceText(field.distance_km, units)} away
              </span>
            </span>
            <UseHeight height={field.height} onUse={onUse} />
          </li>
        ))}
      </ul>
      {answer.straddles && answer.highest != null ? (
        <Note tone="warn">
          These straddle a band's edge. Use the highest, {altitudeText(answer.highest.altitude_ft)}, or make a
          boil test: a time that is too long does no harm.
        </Note>
      ) : (
        <Note tone="note">An airfield lies on flat ground. If your house stands higher, say so.</Note>
      )}
    </div>
  );
}

function ByPlace({ units, onUse }: { units: Units; onUse: Use }) {
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState<{ lat: number; lon: number } | null>(null);
  const name = useDeferredValue(typed.trim());
  const towns = useQuery(ask.towns(name));
  const near = useQuery(ask.near(at));
  return (
    <div className="grid gap-3">
      <TextField
        label="Town near the kitchen"
        typed={typed}
        onType={(next) => {
          setTyped(next);
          setAt(null);
        }}
      />
      {at === null && (
        <div className="flex flex-wrap gap-2">
          {towns.data?.map((town) => (
            <Touch
              key={town.place}
              onPress={() => {
                setAt({ lat: town.lat, lon: town.lon });
                setTyped(town.place);
              }}
            >
              {town.place}
            </Touch>
          ))}
          {towns.data?.length === 0 && name !== "" && (
            <p className="text-muted">No airfield goes by that town. Try a larger one nearby.</p>
          )}
        </div>
      )}
      {near.data !== undefined && at !== null && <Near answer={near.data} units={units} onUse={onUse} />}
      <Trouble error={towns.error ?? near.error} />
    </div>
  );
}

function ByBoil({ onUse }: { onUse: Use }) {
  const [typed, setTyped] = useState("");
  const scale = heatScale();
  const reading = parseNumber(typed, scale.unit);
  const { data, error } = useQuery(ask.boilTest(reading === null ? null : scale.toApi(reading)));
  return (
    <div className="grid gap-3">
      <NumberField
        label="Thermometer in water at a rolling boil"
        typed={typed}
        unit={scale.unit}
        onType={setTyped}
      />
      {data !== undefined && (
        <>
          <p className="text-lg leading-snug">
            <strong>About {altitudeText(data.expected.altitude_ft)}</strong>. A kitchen thermometer may be{" "}
            {scale.unit === "°C" ? "half a degree" : "a degree"} off: {altitudeText(data.low.altitude_ft)} to{" "}
            {altitudeText(data.high.altitude_ft)}, {bandText(data.high)}.
          </p>
          {data.straddles && (
            <Note tone="warn">That straddles a band's edge; the higher band is the safe one.</Note>
          )}
          <div>
            <UseHeight height={data.high} onUse={onUse} />
          </div>
        </>
      )}
      <Trouble error={error} />
    </div>
  );
}

/** Three ways to an altitude: known, from airfields nearby, from boiling water. */
export function AltitudeFinder({
  units,
  start = "enter",
  onUse,
}: {
  units: Units;
  /** The way that is open first. */
  start?: Way;
  onUse: Use;
}) {
  const [way, setWay] = useState(start);
  return (
    <div className="grid gap-3">
      <Choice
        label="Find it"
        value={way}
        options={[
          { value: "enter", text: "I know it" },
          { value: "place", text: "By place" },
          { value: "boil", text: "By a boil test" },
        ]}
        onChoose={setWay}
      />
      {way === "enter" && <Enter onUse={onUse} />}
      {way === "place" && <ByPlace units={units} onUse={onUse} />}
      {way === "boil" && <ByBoil onUse={onUse} />}
    </div>
  );
}
