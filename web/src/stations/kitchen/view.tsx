import { useState } from "react";
import * as v from "valibot";
import { Refused, type AltitudeReason, type Kitchen } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { AltitudeFinder } from "../../parts/AltitudeFinder";
import { Choice, optionsOf } from "../../parts/Choice";
import { named, useFields } from "../../parts/fields";
import { altitudeText } from "../../writing/format";
import { Fold } from "../../parts/Fold";
import { TextOf } from "../../parts/FormFields";
import { Note } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { useKitchenChange } from "../../parts/useKitchenChange";
import { sentence } from "../../parts/sentence";
import { KitchenPage } from "./KitchenPage";

/** An altitude that waits for its reason. */
interface Why {
  kitchen: Kitchen;
  feet: number;
  asks: string;
}

/** The question that another altitude asks while jars stand there that were put up by the one before. */
const asked = (error: Error | null): string | null =>
  error instanceof Refused && error.problem.code === "why_altitude" ? error.message : null;

/** Whether the kitchen moved or its altitude was wrong: the jars that stand there are judged by it. */
function WhyAltitude({ why, onSay }: { why: Why; onSay: (reason: AltitudeReason) => void }) {
  return (
    <Note tone="warn">
      <div className="grid gap-2" data-question="altitude_reason">
        <p>{sentence(why.asks)}</p>
        <Choice
          label={altitudeText(why.feet)}
          value=""
          options={optionsOf(["corrected", "moved"] as const, WORDS.AltitudeReason)}
          onChoose={(reason) => onSay(reason)}
        />
      </div>
    </Note>
  );
}

function Rename({ name, onRename }: { name: string; onRename: (name: string) => void }) {
  const { control, handleSubmit } = useFields(v.object({ name: named }), { name });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => void handleSubmit((typed) => onRename(typed.name))(event)}
    >
      <TextOf control={control} name="name" label="Name of the kitchen" />
      <Touch submit>Rename</Touch>
    </form>
  );
}

/** Where the kitchen lies, and how it measures. */
export function KitchenStation() {
  const say = useSay();
  const change = useKitchenChange();
  const [why, setWhy] = useState<Why | null>(null);
  const set = (kitchen: Kitchen, feet: number, reason?: AltitudeReason) => {
    const before = kitchen.altitude_ft;
    // Taken back, it was wrong.
    const back = () => change.mutate({ altitude_ft: before ?? null, altitude_reason: "corrected" });
    change.mutate(
      { altitude_ft: feet, ...(reason === undefined ? {} : { altitude_reason: reason }) },
      {
        onSuccess: () => {
          setWhy(null);
          say(`Altitude is ${altitudeText(feet)}`, before == null ? undefined : back);
        },
        onError: (error) => {
          const asks = asked(error);
          if (asks !== null) setWhy({ kitchen, feet, asks });
        },
      },
    );
  };
  return (
    <KitchenPage broken={["goal"]} error={asked(change.error) === null ? change.error : null}>
      {(kitchen) => (
        <div className="grid items-start gap-3 lg:grid-cols-2">
          <Plate title="Altitude">
            <Answer value={kitchen.altitude_ft == null ? "Not known" : altitudeText(kitchen.altitude_ft)}>
              Every time depends on it. Water boils cooler the higher you are.
            </Answer>
            <div className="mt-4 grid gap-4">
              <AltitudeFinder units={kitchen.units} onUse={(feet) => set(kitchen, feet)} />
              {why !== null && (
                <WhyAltitude why={why} onSay={(reason) => set(why.kitchen, why.feet, reason)} />
              )}
              {kitchen.altitude_ft == null && (
                <Note tone="stop">Until the altitude is known, nothing can be timed.</Note>
              )}
            </div>
          </Plate>
          <Plate title="How this household measures">
            <div className="grid gap-4">
              <Choice
                label="Units"
                value={kitchen.units}
                options={[
                  { value: "us", text: "Pounds, quarts" },
                  { value: "metric", text: "Kilograms, litres" },
                ]}
                onChoose={(units) => change.mutate({ units })}
              />
              <Choice
                label="Your measuring spoons and cups"
                value={kitchen.spoons}
                options={optionsOf(["us", "metric", "australian"] as const, WORDS.Spoons)}
                onChoose={(spoons) => change.mutate({ spoons })}
              />
              <Fold words="Hours, days, numbers, heat and height">
                <div className="grid gap-4">
                  <Choice
                    label="Time of day"
                    value={kitchen.ways.hours}
                    options={optionsOf(["24", "12"] as const, WORDS.HoursIn)}
                    onChoose={(hours) => change.mutate({ hours })}
                  />
                  <Choice
                    label="Days"
                    value={kitchen.ways.days}
                    options={optionsOf(["day_first", "month_first", "year_first"] as const, WORDS.Days)}
                    onChoose={(days) => change.mutate({ days })}
                  />
                  <Choice
                    label="Numbers"
                    value={kitchen.ways.decimal}
                    options={optionsOf(["point", "comma"] as const, WORDS.Decimal)}
                    onChoose={(decimal) => change.mutate({ decimal })}
                  />
                  <Choice
                    label="Heat"
                    value={kitchen.ways.heat}
                    options={optionsOf(["fahrenheit", "celsius"] as const, WORDS.HeatIn)}
                    onChoose={(heat) => change.mutate({ heat })}
                  />
                  <Choice
                    label="Heights"
                    value={kitchen.ways.height}
                    options={optionsOf(["feet", "metres"] as const, WORDS.HeightIn)}
                    onChoose={(height) => change.mutate({ height })}
                  />
                </div>
              </Fold>
              <Rename name={kitchen.name} onRename={(name) => change.mutate({ name })} />
            </div>
          </Plate>
        </div>
      )}
    </KitchenPage>
  );
}
