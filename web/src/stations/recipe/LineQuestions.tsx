import type { LineAsk, PacketLabel, Part } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { allOf, Choice } from "../../parts/Choice";
import { capitals, jarText } from "../../writing/format";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Touch } from "../../parts/Touch";
import { useState } from "react";

/** Whether an amount goes into each jar or into the pot: two answers, each a touch. */
export function EachOrAll({
  jar,
  onAnswer,
}: {
  /** The size that the line names. */
  jar: LineAsk["jar"];
  onAnswer: (per: Part["per"]) => void;
}) {
  const size = jar ?? null;
  return (
    <div className="flex flex-wrap gap-2">
      {(size === null ? (["quart", "pint"] as const) : [size]).map((each) => (
        <Touch key={each} onPress={() => onAnswer({ jar: each })}>
          In every {jarText(each)}
        </Touch>
      ))}
      <Touch onPress={() => onAnswer("batch")}>In the whole batch</Touch>
    </div>
  );
}

/** What stands on the label of a packet. */
export function PacketFields({
  name,
  label,
  onChange,
}: {
  name: string;
  label: PacketLabel | null | undefined;
  onChange: (label: PacketLabel) => void;
}) {
  const now = { tomatoes_lb: label?.tomatoes_lb ?? null, acid: label?.acid ?? null };
  const [typed, setTyped] = useState(now.tomatoes_lb === null ? "" : typedOf(now.tomatoes_lb));
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberField
        label={`Tomatoes to one ${name}`}
        unit="lb"
        typed={typed}
        onType={(next) => {
          setTyped(next);
          onChange({ ...now, tomatoes_lb: parseNumber(next, "lb") });
        }}
      />
      <Choice
        label="Its acid"
        value={now.acid ?? ""}
        options={
          allOf(capitals(WORDS.PacketAcid)) as { value: NonNullable<PacketLabel["acid"]>; text: string }[]
        }
        onChoose={(acid) => onChange({ ...now, acid })}
      />
    </div>
  );
}
