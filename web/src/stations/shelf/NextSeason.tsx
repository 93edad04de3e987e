import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Units } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { dayText, jarText, PRODUCT, weightText, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { WeightField } from "../../parts/WeightField";
import { KG_PER_LB } from "../../parts/units";

/** What was eaten, when each product runs out, and what that asks of next season's garden. */
export function NextSeason({ units }: { units: Units }) {
  const { data: pantry } = useQuery(ask.pantry());
  const [typed, setTyped] = useState("");
  const say = useSay();
  const goals = useChange(
    () => take(api.PUT("/api/goals/pantry")),
    () => say("These are the Plan's goals now"),
  );
  const perPlant = useChange(
    (pounds_per_plant: number) => take(api.PATCH("/api/kitchen", { body: { pounds_per_plant } })),
    () => setTyped(""),
  );
  if (pantry === undefined || pantry.lines.length === 0) return null;
  const us = units === "us";
  const weight = (pounds: number) => weightText(pounds * KG_PER_LB * 1000, units);
  const ready = isNumber(typed);
  const eaten = pantry.lines.some((line) => line.eaten > 0);
  return (
    <Plate title="Next season">
      {eaten ? (
        <p className="flex flex-wrap items-baseline gap-x-3 leading-none" data-testid="plants">
          <span className="font-slab text-[3.4rem] font-bold">{pantry.plants}</span>
          <span className="text-xl font-semibold text-muted">
            plants, {weight(pantry.pounds)} of tomatoes
          </span>
        </p>
      ) : (
        <p className="text-lg text-muted">
          Nothing has been eaten yet. Say so when a jar is opened, and Bodega works out what to plant.
        </p>
      )}
      <ul className="mt-4 grid gap-2">
        {pantry.lines.map((line) => {
          const name = `${PRODUCT[line.product]}${line.thickness === "thick" ? ", thick" : ""}, ${jarText(line.jar, 2)}`;
          const most = Math.max(1, line.on_shelf, line.next_season);
          return (
            <li
              key={name + line.pack + (line.medium ?? "")}
              className="grid gap-1 sm:grid-cols-[13rem_1fr] sm:items-center"
            >
              <span className="font-semibold">{name}</span>
              <span>
                <span
                  className="flex h-5 overflow-hidden rounded-full border-2 border-line bg-cloth"
                  aria-hidden="true"
                >
                  <span className="bg-tomato" style={{ width: `${(line.on_shelf / most) * 100}%` }} />
                </span>
                <span className="text-muted">
                  {line.on_shelf} there
                  {line.runs_out == null
                    ? ", none eaten so far"
                    : `, ${line.per_month.toFixed(1)} a month, gone about ${dayText(line.runs_out)}; ${line.next_season} for a year`}
                </span>
              </span>
            </li>
          );
        })}
      </ul>
      <div className="mt-5 flex flex-wrap items-end gap-3">
        {eaten && (
          <Touch look="main" onPress={() => goals.mutate(undefined)}>
            Make these the Plan&apos;s goals
          </Touch>
        )}
        <WeightField
          label={`A plant gives ${weight(pantry.pounds_per_plant)}; set`}
          typed={typed}
          unit={us ? "lb" : "kg"}
          onType={setTyped}
        />
        <Touch
          disabled={!ready}
          onPress={() => perPlant.mutate(us ? Number(typed) : Number(typed) / KG_PER_LB)}
        >
          Set
        </Touch>
      </div>
      <Trouble error={goals.error ?? perPlant.error} />
    </Plate>
  );
}
