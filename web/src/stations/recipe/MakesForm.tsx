import { useState } from "react";
import type { JarSize, RecipeText } from "../../api/client";
import { CANNED_SIZES, jarText } from "../../parts/format";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../parts/number";
import { Pick } from "../../parts/Pick";
import { Touch } from "../../parts/Touch";

/** How many jars of which size it fills, made once, as it is printed. */
export function MakesForm({ text, onSave }: { text: RecipeText; onSave: (text: RecipeText) => void }) {
  const { makes } = text;
  const [jar, setJar] = useState<JarSize>(makes?.jar ?? "pint");
  const [low, setLow] = useState(makes == null ? "" : typedOf(makes.low));
  const [high, setHigh] = useState(makes == null ? "" : typedOf(makes.high));
  const [least, most] = [parseNumber(low), parseNumber(high.trim() === "" ? low : high)];
  const same = makes != null && makes.jar === jar && makes.low === least && makes.high === most;
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberField label="It fills at least" typed={low} onType={setLow} />
      <NumberField label="At most" typed={high} onType={setHigh} />
      <Pick
        label="Jars it fills"
        value={jar}
        options={CANNED_SIZES.map((size) => ({ value: size, text: jarText(size, 2) }))}
        onChoose={setJar}
      />
      <Touch
        disabled={least === null || most === null || same}
        onPress={() =>
          least !== null && most !== null && onSave({ ...text, makes: { jar, low: least, high: most } })
        }
      >
        Keep what it fills
      </Touch>
    </div>
  );
}
