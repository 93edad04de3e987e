import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import type { JarSize, Units } from "../../api/client";
import { ask } from "../../queries/queries";
import { boundsOf } from "../../parts/fields";
import { Fold } from "../../parts/Fold";
import { jarText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { NumberField } from "../../parts/NumberField";
import { parseNumber } from "../../writing/number";
import { Touch } from "../../parts/Touch";
import { ounceScale } from "../../writing/units";
import { numberText } from "../../writing/ways";

/** A jar nobody knows the size of: filled with water and weighed, it is taken for the next size up. */
export function UnknownJar({ units, onJar }: { units: Units; onJar: (jar: JarSize) => void }) {
  const [typed, setTyped] = useState("");
  const scale = ounceScale(units);
  const { least, most } = boundsOf("JarRequest.water_kg", scale);
  const value = parseNumber(typed, scale.unit);
  const isRead = value !== null && value >= least && value <= most;
  const found = useQuery(ask.jarByWater(isRead ? scale.toApi(value) : null));
  const jar = isRead ? found.data?.jar : null;
  return (
    <Fold words="A jar of unknown size">
      <div className="grid gap-3">
        <p className="text-muted">Weigh it empty, fill it with water to the rim, weigh it again.</p>
        <NumberField
          label="The water in it"
          typed={typed}
          unit={scale.unit}
          error={
            typed.trim() === "" || isRead
              ? undefined
              : `Give ${numberText(least, 1)} to ${numberText(most, 0)} ${scale.unit}`
          }
          onType={setTyped}
        />
        {isRead && found.data !== undefined && (
          <Note tone={jar == null ? "stop" : "note"}>{found.data.says}</Note>
        )}
        {jar != null && <Touch onPress={() => onJar(jar)}>Plan it as a {jarText(jar)}</Touch>}
        <Trouble error={found.error} />
      </div>
    </Fold>
  );
}
