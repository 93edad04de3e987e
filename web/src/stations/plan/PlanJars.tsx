import type { JarSize, PlanAnswer as Plan, PlanRequest, Units } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { CountField } from "../../parts/CountField";
import { jarText, volumeText } from "../../parts/format";
import { Note } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
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
      onChoose={(next) => next !== "" && onRest(next)}
    />
  );
}

/** How many jars of each size are set out. */
export function MixSteps({
  plan,
  jar,
  onJars,
}: {
  plan: Plan;
  jar: JarSize;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
}) {
  const set = (size: JarSize, next: number) =>
    onJars(plan.lines.map((line) => ({ jar: line.jar, count: line.jar === size ? next : line.count })));
  const small: JarSize | undefined =
    plan.lines.some((line) => line.jar === "pint") || jar === "half_pint" ? undefined : "pint";
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
      {small !== undefined && jar !== small && (
        <Touch
          onPress={() =>
            onJars([
              ...plan.lines.map(({ jar: size, count }) => ({ jar: size, count })),
              { jar: small, count: 1 },
            ])
          }
        >
          + a pint
        </Touch>
      )}
    </div>
  );
}
