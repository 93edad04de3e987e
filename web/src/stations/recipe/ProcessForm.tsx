import { useState } from "react";
import type { JarSize, Method, RecipeText, Units } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { allOf, Choice } from "../../parts/Choice";
import { altitudeText, CANNED_SIZES, jarText, METHOD } from "../../parts/format";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../parts/number";
import { Pick } from "../../parts/Pick";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { heightScale, inchScale } from "../../parts/units";

/** The printed table, band by band, and its tick. */
export function ProcessForm({
  text,
  units,
  onSave,
}: {
  text: RecipeText;
  units: Units;
  onSave: (text: RecipeText) => void;
}) {
  const [jar, setJar] = useState<JarSize>("pint");
  const [method, setMethod] = useState<Method>("boiling_water");
  const [upTo, setUpTo] = useState("");
  const [minutes, setMinutes] = useState("");
  const [pounds, setPounds] = useState("");
  const height = heightScale();
  const times = text.process?.times ?? [];
  const pressure = method === "pressure_dial" || method === "pressure_weighted";
  const [feet, count, psi] = [
    parseNumber(upTo, height.unit),
    parseNumber(minutes, "min"),
    parseNumber(pounds, "lb"),
  ];
  const inches = inchScale(units);
  const [space, setSpace] = useState<string | null>(null);
  const keep = (next: Partial<NonNullable<RecipeText["process"]>>) =>
    text.process != null && onSave({ ...text, process_ticked: false, process: { ...text.process, ...next } });
  const put = (next: typeof times) =>
    onSave({
      ...text,
      process_ticked: false,
      process: next.length === 0 ? null : { pack: "hot", headspace_in: 0.5, ...text.process, times: next },
    });
  const add = () => {
    if (count === null) return;
    const up_to_ft = feet === null ? null : Math.round(height.toApi(feet));
    const others = times.filter(
      (time) => time.jar !== jar || time.method !== method || (time.up_to_ft ?? null) !== up_to_ft,
    );
    put([...others, { jar, method, up_to_ft, minutes: count, psi: pressure ? psi : null }]);
    setUpTo("");
    setMinutes("");
  };
  return (
    <div className="grid gap-3">
      {times.length === 0 && (
        <p className="text-muted">None: then it is not canned. Put in what is printed, or leave it.</p>
      )}
      <ul className="grid gap-1.5">
        {times.map((time) => {
          const where = time.up_to_ft == null ? "above" : `up to ${altitudeText(time.up_to_ft)}`;
          const says = `${jarText(time.jar)}, ${METHOD[time.method]}, ${where}: ${time.minutes} min${time.psi == null ? "" : ` at ${time.psi} lb`}`;
          return (
            <li
              key={says}
              className="flex flex-wrap items-center justify-between gap-2 rounded-xl border-2 border-edge bg-enamel px-3 py-1"
            >
              <span className="font-semibold">{says}</span>
              <Touch label={`Take out ${says}`} onPress={() => put(times.filter((other) => other !== time))}>
                ✕
              </Touch>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap items-end gap-3">
        <Pick
          label="Jar"
          value={jar}
          options={CANNED_SIZES.map((size) => ({ value: size, text: jarText(size) }))}
          onChoose={setJar}
        />
        <Pick
          label="Heated in"
          value={method}
          options={allOf(WORDS.Method) as { value: Method; text: string }[]}
          onChoose={setMethod}
        />
        <NumberField
          label="Up to an altitude of (empty: above)"
          unit={height.unit}
          typed={upTo}
          onType={setUpTo}
        />
        <NumberField label="Minutes printed" unit="min" typed={minutes} onType={setMinutes} />
        {pressure && <NumberField label="Pounds printed" unit="lb" typed={pounds} onType={setPounds} />}
        <Touch disabled={count === null || (pressure && psi === null)} onPress={add}>
          Put this line in
        </Touch>
      </div>
      {text.process != null && (
        <div className="flex flex-wrap items-end gap-3">
          <Choice
            label="Packed"
            value={text.process.pack}
            options={[
              { value: "hot", text: "Hot" },
              { value: "raw", text: "Raw" },
            ]}
            onChoose={(pack) => keep({ pack })}
          />
          <NumberField
            label="Headspace printed"
            unit={inches.unit}
            typed={space ?? typedOf(inches.fromApi(text.process.headspace_in))}
            onType={setSpace}
            onLeave={() => {
              const value = parseNumber(space ?? "", inches.unit);
              if (value !== null) keep({ headspace_in: inches.toApi(value) });
              setSpace(null);
            }}
          />
        </div>
      )}
      {times.length > 0 && (
        <Tick
          className="rounded-xl border-2 border-edge bg-enamel px-3"
          label="Jars, minutes and altitudes stand so in the copy"
          on={text.process_ticked ?? false}
          onTick={(process_ticked) => onSave({ ...text, process_ticked })}
        />
      )}
    </div>
  );
}
