import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type CookRequest, type HeatSetting, type Kind, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { HEAT_SETTING, KIND, volumeText, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { allowNotifications } from "../../parts/useAlarm";
import { WeightField } from "../../parts/WeightField";
import { KG_PER_LB, L_PER_QUART } from "../../parts/units";

type Goal = "thin" | "thick" | "paste";

const GOAL: Record<Goal, { text: string; target: CookRequest["target"] }> = {
  thin: { text: "Thin sauce, by a third", target: { fraction_left: 2 / 3 } },
  thick: { text: "Thick sauce, by half", target: { fraction_left: 0.5 } },
  paste: { text: "Paste", target: { brix: 17 } },
};

/** Puts a kettle on: which, how much, how far. */
export function PutOn({ units }: { units: Units }) {
  const { data: kettles } = useQuery(ask.kettles());
  const { data: batches } = useQuery(ask.batches());
  const forKettle = batches?.filter((batch) => ["sauce", "paste", "juice"].includes(batch.product)) ?? [];
  const [batch, setBatch] = useState<number | null>(null);
  const say = useSay();
  const [wanted, setKettle] = useState<string | null>(null);
  const [by, setBy] = useState<"juice" | "fruit">("juice");
  const [typed, setTyped] = useState("");
  const [kind, setKind] = useState<Kind>("paste");
  const [setting, setSetting] = useState<HeatSetting>("high");
  const [goal, setGoal] = useState<Goal>("thin");
  // The largest free kettle is the one people reach for.
  const free = (kettles ?? []).filter((kettle) => !kettle.busy).sort((a, b) => b.brim_l - a.brim_l);
  const kettle = free.find((item) => String(item.id) === wanted) ?? free[0];
  const start = useChange(
    (body: CookRequest) => take(api.POST("/api/cooks", { body })),
    (cook) => {
      setTyped("");
      say(`${cook.kettle.name} is on`);
    },
  );
  if (kettles === undefined || kettle === undefined) return null;
  const rate = kettle.rates.find((item) => item.setting === setting);
  const us = units === "us";
  const value = Number(typed);
  const ready = isNumber(typed);
  const put = () => {
    allowNotifications();
    const amount =
      by === "juice"
        ? { volume_l: value * (us ? L_PER_QUART : 1) }
        : { weight_kg: value * (us ? KG_PER_LB : 1) };
    start.mutate({ kettle: kettle.id, batch, ...amount, kind, setting, target: GOAL[goal].target });
  };
  return (
    <Plate title="Put a kettle on">
      <div className="grid gap-4 lg:grid-cols-2">
        <div className="grid content-start gap-3">
          <Choice
            label="Kettle"
            value={String(kettle.id)}
            options={free.map((item) => ({ value: String(item.id), text: item.name }))}
            onChoose={setKettle}
          />
          <Choice
            label="The heat"
            value={setting}
            options={optionsOf(["low", "medium", "high"], HEAT_SETTING)}
            onChoose={setSetting}
          />
          {rate !== undefined && (
            <p className="text-muted">
              Holds {volumeText(kettle.brim_l, units)} to the brim, boils away{" "}
              {volumeText(rate.litres_per_hour, units)} an hour
              {rate.learned_from > 0
                ? `, learned from ${rate.learned_from} at this heat`
                : ", as far as is known"}
              .
            </p>
          )}
          <Choice
            label="Measured as"
            value={by}
            options={[
              { value: "juice", text: "Juice in the kettle" },
              { value: "fruit", text: "Weight of raw fruit" },
            ]}
            onChoose={setBy}
          />
          <WeightField
            label={by === "juice" ? "Juice and pulp that go in" : "Raw fruit that was milled"}
            typed={typed}
            unit={by === "juice" ? (us ? "qt" : "L") : us ? "lb" : "kg"}
            onType={setTyped}
          />
        </div>
        <div className="grid content-start gap-3">
          <Choice
            label="Made of"
            value={kind}
            options={optionsOf(["paste", "slicer", "cherry", "mixed"], KIND)}
            onChoose={setKind}
          />
          <Choice
            label="Cook it down to"
            value={goal}
            options={(Object.keys(GOAL) as Goal[]).map((key) => ({ value: key, text: GOAL[key].text }))}
            onChoose={setGoal}
          />
          {forKettle.length > 0 && (
            <Choice
              label="For the batch"
              value={batch === null ? "none" : String(batch)}
              options={[
                { value: "none", text: "None yet" },
                ...forKettle.map((item) => ({
                  value: String(item.id),
                  text: `${item.code}, ${item.product}`,
                })),
              ]}
              onChoose={(id) => setBatch(id === "none" ? null : Number(id))}
            />
          )}
          <Trouble error={start.error} />
          <Touch big look="main" disabled={!ready || start.isPending} onPress={put}>
            Heat is on
          </Touch>
        </div>
      </div>
    </Plate>
  );
}
