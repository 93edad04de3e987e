import { useState } from "react";
import type { JarSize, RecipeText } from "../../api/client";
import { CANNED_SIZES, jarText } from "../../writing/format";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Pick } from "../../parts/Pick";

/** How many jars of which size it fills, made once, as it is printed. */
export function MakesForm({ text, onChange }: { text: RecipeText; onChange: (text: RecipeText) => void }) {
  const { makes } = text;
  const [jar, setJar] = useState<JarSize>(makes?.jar ?? "pint");
  const [low, setLow] = useState(makes == null ? "" : typedOf(makes.low));
  const [high, setHigh] = useState(makes == null ? "" : typedOf(makes.high));
  const said = (size: JarSize, least: string, most: string) => {
    const [from, to] = [parseNumber(least), parseNumber(most.trim() === "" ? least : most)];
    onChange({ ...text, makes: from === null || to === null ? null : { jar: size, low: from, high: to } });
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberField
        label="It fills at least"
        typed={low}
        onType={(typed) => {
          setLow(typed);
          said(jar, typed, high);
        }}
      />
      <NumberField
        label="At most"
        typed={high}
        onType={(typed) => {
          setHigh(typed);
          said(jar, low, typed);
        }}
      />
      <Pick
        label="Jars it fills"
        value={jar}
        options={CANNED_SIZES.map((size) => ({ value: size, text: jarText(size, 2) }))}
        onChoose={(size) => {
          setJar(size);
          said(size, low, high);
        }}
      />
    </div>
  );
}
