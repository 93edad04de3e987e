import type { JarSize, PlanAnswer as Plan, PlanRequest, Units } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { CountField } from "../../parts/CountField";
import { CANNED_SIZES, jarText, volumeText } from "../../writing/format";
import { Note } from "../../parts/Note";
import { Pick } from "../../parts/Pick";
import { restText } from "./model";

/** Where the part of the last jar goes that fills none. */
export function Rest({
  plan,
  units,
  rest,
  onRest,
}: {
  plan: Plan;
  units: Units;
  rest: PlanRequest["rest"];
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
}) {
  const left = plan.left_over_litres;
  const label = restText(left, units);
  if (label === null) {
    return (
      <Note tone="warn">
        These jars hold {volumeText(-left, units)} more than this fruit is expected to give.
      </Note>
    );
  }
  return (
    <Choice
      label={label}
      value={rest ?? ""}
      options={[
        { value: "refrigerator", text: "Refrigerator" },
        { value: "freezer", text: "Freezer" },
      ]}
      onChoose={onRest}
    />
  );
}

/** How many jars of each size are set out. */
export function MixSteps({
  plan,
  onJars,
}: {
  plan: Plan;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
}) {
  const set = (size: JarSize, next: number) =>
    onJars(plan.lines.map((line) => ({ jar: line.jar, count: line.jar === size ? next : line.count })));
  const others = CANNED_SIZES.filter((size) => plan.lines.every((line) => line.jar !== size));
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      {plan.lines.map((line) => (
        <CountField
          key={line.jar}
          quiet
          label={jarText(line.jar, 2)}
          unit={jarText(line.jar, line.count)}
          count={line.count}
          bound="JarCount.count"
          onSet={(count) => set(line.jar, count)}
        />
      ))}
      <div className="w-44">
        <Pick
          label="And jars of another size"
          value=""
          placeholder="Add a size"
          options={others.map((size) => ({ value: size, text: jarText(size, 2) }))}
          onChoose={(size) =>
            onJars([
              ...plan.lines.map(({ jar: of, count }) => ({ jar: of, count })),
              { jar: size as JarSize, count: 1 },
            ])
          }
        />
      </div>
    </div>
  );
}
