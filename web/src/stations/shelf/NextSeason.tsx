import { useQuery } from "@tanstack/react-query";
import * as v from "valibot";
import { api, take, type Units } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { number, useFields, useRefusal } from "../../parts/fields";
import { contentText, dayText, jarText, weightText } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { KG_PER_LB, massScale, type Scale } from "../../writing/units";

/** How much fruit one plant gives, as the household knows it. */
function PerPlant({ pounds, units }: { pounds: number; units: Units }) {
  // Sent in pounds, whatever it is typed in.
  const scale: Scale = {
    unit: massScale(units).unit,
    toApi: (typed) => massScale(units).toApi(typed) / KG_PER_LB,
    fromApi: (sent) => massScale(units).fromApi(sent * KG_PER_LB),
  };
  const form = useFields(v.object({ each: number("KitchenRequest.pounds_per_plant", scale) }), { each: "" });
  const { control, handleSubmit, reset } = form;
  const set = useChange(
    (pounds_per_plant: number) => take(api.PATCH("/api/kitchen", { body: { pounds_per_plant } })),
    () => reset({ each: "" }),
  );
  const left = useRefusal(form, set.error, { pounds_per_plant: "each" });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => void handleSubmit(({ each }) => set.mutate(each))(event)}
    >
      <NumberOf
        control={control}
        name="each"
        label={`A plant gives ${weightText(pounds * KG_PER_LB * 1000, units)}; set`}
        bound="KitchenRequest.pounds_per_plant"
        scale={scale}
      />
      <Touch submit>Set</Touch>
      <Trouble error={left} />
    </form>
  );
}

/** What was eaten, when each product runs out, and what that asks of next season's garden. */
export function NextSeason({ units }: { units: Units }) {
  const { data: pantry } = useQuery(ask.pantry());
  const say = useSay();
  const goals = useChange(
    () => take(api.PUT("/api/goals/pantry")),
    () => say("These are the Plan's goals now"),
  );
  if (pantry === undefined || pantry.lines.length === 0) return null;
  const weight = (pounds: number) => weightText(pounds * KG_PER_LB * 1000, units);
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
          const name = `${contentText(line)}${line.thickness === "thick" ? ", thick" : ""}, ${jarText(line.jar, 2)}`;
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
                    : `, ${line.per_month.toFixed(1)} a month while there were some, gone about ${dayText(line.runs_out)}; ${line.next_season} for a year, likely ${line.next_season_low} to ${line.next_season_high}`}
                  {line.given > 0 && `, ${line.given} given away`}
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
        <PerPlant pounds={pantry.pounds_per_plant} units={units} />
      </div>
      <Trouble error={goals.error} />
    </Plate>
  );
}
