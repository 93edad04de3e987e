import { useState } from "react";
import type { RecipeUnit, Role } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { allOf } from "../../parts/Choice";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Pick } from "../../parts/Pick";
import { Touch } from "../../parts/Touch";
import { EachOrAll, PacketFields } from "./LineQuestions";
import { isOpen, type Answered } from "./model";

/** A line as it was read; what it leaves open is asked beside it. */
export function OpenLine({
  line,
  onChange,
  onUnmeasured,
}: {
  line: Answered;
  onChange: (line: Answered | null) => void;
  /** Keeps it without an amount, where that can be. */
  onUnmeasured?: (line: Answered) => void;
}) {
  const [typed, setTyped] = useState(line.amount == null ? "" : typedOf(line.amount));
  const [changing, setChanging] = useState(isOpen(line));
  const open = isOpen(line);
  return (
    <li
      className={`grid gap-2 rounded-xl border-2 p-3 ${open ? "border-brass bg-brass-wash" : "border-line bg-enamel"}`}
    >
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <span className="text-lg font-semibold">
          {!open && <span aria-hidden="true">✓ </span>}
          {line.line}
        </span>
        <span className="flex gap-2">
          {!changing && (
            <Touch label={`Change ${line.line}`} onPress={() => setChanging(true)}>
              Change
            </Touch>
          )}
          <Touch label={`Leave out ${line.line}`} onPress={() => onChange(null)}>
            Leave it out
          </Touch>
        </span>
      </div>
      {(open || line.role === "packet") && line.asks.length > 0 && (
        <p className="font-semibold">{line.asks.join(" ")}</p>
      )}
      {line.per == null && (
        <EachOrAll
          jar={line.per_jar ?? null}
          onAnswer={(per) => onChange({ ...line, per: per ?? "batch" })}
        />
      )}
      {line.role === "packet" && (
        <PacketFields
          name={line.name}
          label={line.packet}
          onChange={(packet) => onChange({ ...line, packet })}
        />
      )}
      {changing && (
        <div className="flex flex-wrap items-end gap-3">
          <NumberField
            label={`How much ${line.name}`}
            typed={typed}
            onType={(next) => {
              setTyped(next);
              onChange({ ...line, amount: parseNumber(next), up_to: null });
            }}
          />
          <Pick<RecipeUnit>
            label={`Measure of ${line.name}`}
            value={line.unit ?? ("" as RecipeUnit)}
            placeholder="Measure"
            options={allOf(WORDS.Unit) as { value: RecipeUnit; text: string }[]}
            onChoose={(unit) => onChange({ ...line, unit })}
          />
          <Pick<Role>
            label={`What ${line.name} is`}
            value={line.role ?? ("" as Role)}
            placeholder="What is it?"
            options={allOf(WORDS.Role) as { value: Role; text: string }[]}
            onChoose={(role) =>
              onChange({ ...line, role, group: role === line.role ? (line.group ?? null) : null })
            }
          />
          {open && line.role != null && line.amount == null && onUnmeasured !== undefined && (
            <Touch onPress={() => onUnmeasured(line)}>The page does not say</Touch>
          )}
        </div>
      )}
    </li>
  );
}
