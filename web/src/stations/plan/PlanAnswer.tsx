import type { Added, JarSize, PlanPreview, PlanRequest, Units } from "../../api/client";
import { AltitudeHere } from "../../parts/AltitudeHere";
import { Note, Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Worked } from "./Worked";

/** What the choices make, or why there is no tested process for them. */
export function PlanAnswer({
  request,
  preview,
  units,
  trouble,
  accepting,
  onJars,
  onRest,
  onAccept,
  onContents,
}: {
  request: PlanRequest;
  preview: PlanPreview | undefined;
  units: Units;
  trouble: Error | null;
  accepting: boolean;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
  onAccept: () => void;
  onContents: (additions: Added[]) => void;
}) {
  if (trouble !== null) {
    return (
      <Plate title="This makes">
        <div className="grid gap-3">
          <Trouble error={trouble} />
          <AltitudeHere />
        </div>
      </Plate>
    );
  }
  if (preview === undefined) {
    return (
      <Plate title="This makes">
        <p className="text-lg text-muted">Choose fruit to see what it makes.</p>
      </Plate>
    );
  }
  if (preview.refusal != null) {
    return (
      <Plate title="No tested process for this">
        <Note tone="stop">
          <p className="text-lg font-semibold">{preview.refusal.message}</p>
          <p className="mt-2">Do this instead:</p>
          <ul className="ml-5 list-disc">
            {preview.refusal.instead.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </Note>
      </Plate>
    );
  }
  return (
    <Plate title="This makes">
      {preview.plan?.notes.map((note) => (
        <div key={note} className="mb-3">
          <Note tone="warn">{note}</Note>
        </div>
      ))}
      {preview.plan != null && (
        <Worked
          plan={preview.plan}
          judged={preview.judged ?? null}
          request={request}
          altitude={preview.altitude_ft}
          units={units}
          accepting={accepting}
          onJars={onJars}
          onRest={onRest}
          onAccept={onAccept}
          onContents={onContents}
        />
      )}
    </Plate>
  );
}
