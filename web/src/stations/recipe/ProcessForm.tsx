import { useState } from "react";
import type { JarSize, Method, RecipeText, Units } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { allOf, Choice } from "../../parts/Choice";
import { altitudeText, CANNED_SIZES, capitals, jarText, METHOD } from "../../writing/format";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Pick } from "../../parts/Pick";
import { Tick } from "../../parts/Tick";
import { Touch } from "../../parts/Touch";
import { heightScale, inchScale } from "../../writing/units";

type Process = NonNullable<RecipeText["process"]>;
type Time = Process["times"][number];
type Printed = NonNullable<Process["altitude"]>;

/** Where a printed time holds. */
function whereText(time: Time, printed: Printed | null): string {
  if (time.up_to_ft != null) return `up to ${altitudeText(time.up_to_ft)}`;
  return printed === "nothing" ? "nothing said of altitude" : "above";
}

/** The printed table, band by band. What the page says of altitude is asked by itself. */
export function ProcessForm({
  text,
  printed,
  units,
  onChange,
}: {
  text: RecipeText;
  /** What the page says of altitude, as far as it was said or can be told. */
  printed: Printed | null;
  units: Units;
  onChange: (text: RecipeText) => void;
}) {
  const process = text.process ?? null;
  const [chosen, setJar] = useState<JarSize | null>(null);
  const jar = chosen ?? text.makes?.jar ?? "pint";
  const [method, setMethod] = useState<Method>("boiling_water");
  const [said, setSaid] = useState<Printed | null>(printed);
  const [upTo, setUpTo] = useState("");
  const [above, setAbove] = useState(false);
  const [minutes, setMinutes] = useState("");
  const [pounds, setPounds] = useState("");
  const height = heightScale();
  const times = process?.times ?? [];
  const pressure = method === "pressure_dial" || method === "pressure_weighted";
  const [feet, count, psi] = [
    parseNumber(upTo, height.unit),
    parseNumber(minutes, "min"),
    parseNumber(pounds, "lb"),
  ];
  const inches = inchScale(units);
  const [space, setSpace] = useState<string | null>(null);
  const keep = (next: Partial<Process>) =>
    process !== null && onChange({ ...text, process_ticked: false, process: { ...process, ...next } });
  // In records from before altitude was asked for, an open band above closed ones is the highest.
  const isOld = process !== null && process.altitude == null && printed === "bands";
  const known = times.map((time) => (isOld && time.up_to_ft == null ? { ...time, above: true } : time));
  const put = (next: Time[], altitude = said) =>
    onChange({
      ...text,
      // What was changed is held against the copy again.
      process_ticked: false,
      process:
        next.length === 0 ? null : { pack: "hot", headspace_in: 0.5, ...process, altitude, times: next },
    });
  // A time of which nothing was said does not hold above anything because somebody touched another answer.
  const putSaid = (next: Printed) => {
    setSaid(next);
    if (times.length === 0) return;
    put(
      next === "nothing"
        ? known.map((time) => ({ ...time, above: false }))
        : known.filter((time) => time.up_to_ft != null || time.above === true),
      next,
    );
  };
  const isBanded = said === "bands" || said === "added";
  const add = () => {
    if (count === null) return;
    const up_to_ft = !isBanded || above || feet === null ? null : Math.round(height.toApi(feet));
    const others = known.filter(
      (time) => time.jar !== jar || time.method !== method || (time.up_to_ft ?? null) !== up_to_ft,
    );
    const time: Time = { jar, method, up_to_ft, minutes: count, psi: pressure ? psi : null };
    put([...others, isBanded && up_to_ft === null ? { ...time, above: true } : time]);
    setUpTo("");
    setAbove(false);
    setMinutes("");
  };
  const isWhere = said === "nothing" || (isBanded && (above || feet !== null));
  return (
    <div className="grid gap-3">
      <Choice<Printed>
        label="What does the page say of altitude?"
        value={said ?? ""}
        options={allOf(capitals(WORDS.AltitudePrinted)) as { value: Printed; text: string }[]}
        onChoose={putSaid}
      />
      {times.length === 0 && (
        <p className="text-muted">No time yet: then it is not canned. Put in what is printed, or leave it.</p>
      )}
      <ul className="grid gap-1.5">
        {known.map((time) => {
          const says = `${jarText(time.jar)}, ${METHOD[time.method]}, ${whereText(time, said)}: ${time.minutes} min${time.psi == null ? "" : ` at ${time.psi} lb`}`;
          return (
            <li
              key={says}
              className="flex flex-wrap items-center justify-between gap-2 rounded-xl border-2 border-edge bg-enamel px-3 py-1"
            >
              <span className="font-semibold">{says}</span>
              <Touch label={`Take out ${says}`} onPress={() => put(known.filter((other) => other !== time))}>
                ✕
              </Touch>
            </li>
          );
        })}
      </ul>
      {said !== null && (
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
          {isBanded && (
            <>
              {!above && (
                <NumberField label="Up to an altitude of" unit={height.unit} typed={upTo} onType={setUpTo} />
              )}
              <Tick label="At every altitude above" on={above} onTick={setAbove} />
            </>
          )}
          <NumberField label="Minutes printed" unit="min" typed={minutes} onType={setMinutes} />
          {pressure && <NumberField label="Pounds printed" unit="lb" typed={pounds} onType={setPounds} />}
          <Touch disabled={count === null || !isWhere || (pressure && psi === null)} onPress={add}>
            Put this line in
          </Touch>
        </div>
      )}
      {process !== null && (
        <div className="flex flex-wrap items-end gap-3">
          <Choice
            label="Packed"
            value={process.pack}
            options={[
              { value: "hot", text: "Hot" },
              { value: "raw", text: "Raw" },
            ]}
            onChoose={(pack) => keep({ pack })}
          />
          <NumberField
            label="Headspace printed"
            unit={inches.unit}
            typed={space ?? typedOf(inches.fromApi(process.headspace_in))}
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
          onTick={(process_ticked) => onChange({ ...text, process_ticked })}
        />
      )}
    </div>
  );
}
