import { useState } from "react";
import type { BowlsView, Part } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Touch } from "../../parts/Touch";

/** One bowl: as much as the card says by one touch, or the amount that is really in it. */
export function BowlLine({
  part,
  planned,
  onAmount,
}: {
  part: Part;
  planned: BowlsView["planned"][number] | undefined;
  onAmount: (amount: number | null) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const kept = part.amount == null ? "" : typedOf(part.amount);
  const wanted = planned?.part.amount ?? null;
  const isIn = part.amount != null && part.amount === wanted;
  const keep = (next: string) => {
    const value = parseNumber(next);
    if (next.trim() !== "" && value === null) return;
    setTyped(null);
    if (next !== kept) onAmount(value);
  };
  if (part.per != null && part.per !== "batch") {
    return (
      <li className="rounded-xl border-2 border-line bg-enamel p-3">
        <span className="block text-xl font-semibold">{planned?.says ?? part.name}</span>
        <span className="text-muted">Into the jars, not into a bowl: it is ticked there.</span>
      </li>
    );
  }
  return (
    <li
      className={`grid gap-2 rounded-xl border-2 p-3 ${isIn ? "border-vine bg-vine-wash" : "border-line bg-enamel"}`}
    >
      <span className="text-xl font-semibold">{planned?.says ?? part.name}</span>
      <div className="flex flex-wrap items-center gap-3">
        <Touch
          look={isIn ? "done" : "plain"}
          disabled={wanted === null}
          onPress={() => onAmount(isIn ? null : wanted)}
        >
          {isIn ? "✓ In" : "As the card says"}
        </Touch>
        <NumberField
          quiet
          label={`Really in it: ${part.name}`}
          unit={part.unit == null || part.unit === "piece" ? "" : WORDS.Unit[part.unit]}
          step={part.unit === "piece" || part.unit === "packet" ? 1 : 0.25}
          typed={typed ?? kept}
          onType={setTyped}
          onLeave={() => typed !== null && keep(typed)}
          onStep={keep}
        />
      </div>
    </li>
  );
}
