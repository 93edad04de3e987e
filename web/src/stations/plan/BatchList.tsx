import { Link } from "react-router";
import type { Batch, Units } from "../../api/client";
import { batchText, dayText, jarsText, weightText } from "../../writing/format";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

/** Batches on the line, with how far each has come. */
export function BatchList({
  batches,
  units,
  onRemove,
  onKeep,
}: {
  batches: Batch[];
  units: Units;
  onRemove: (batch: Batch) => void;
  /** Its juice does not wait overnight after all. */
  onKeep: (batch: Batch) => void;
}) {
  if (batches.length === 0) return null;
  return (
    <Plate title="On the line">
      <ul className="grid gap-2">
        {batches.map((batch) => (
          <li key={batch.id} className="flex flex-wrap items-center justify-between gap-2">
            <p className="grow">
              <strong>{batch.code}</strong> {batchText(batch)}: {batch.jars_lifted} of {jarsText(batch.jars)}{" "}
              done, from {weightText(batch.weight_g, units)}
              {batch.chilled_at != null && (
                <span className="block font-semibold">
                  Its juice waits overnight in the refrigerator, agreed {dayText(batch.chilled_at)}.
                </span>
              )}
            </p>
            {batch.chilled_at != null && <Touch onPress={() => onKeep(batch)}>Not after all</Touch>}
            <Link
              to={`/batches/${batch.id}`}
              className="inline-flex min-h-[48px] items-center font-semibold text-link underline decoration-2 underline-offset-4"
            >
              Checklist
            </Link>
            {batch.jars_lifted === 0 && <Touch onPress={() => onRemove(batch)}>Take off</Touch>}
          </li>
        ))}
      </ul>
    </Plate>
  );
}
