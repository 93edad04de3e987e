import { useQuery } from "@tanstack/react-query";
import * as v from "valibot";
import { api, take, type Kitchen } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { WORDS } from "../../api/words.generated";
import { Choice, optionsOf } from "../../parts/Choice";
import { named, useFields } from "../../parts/fields";
import { altitudeText } from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { TextOf } from "../../parts/FormFields";
import { Touch } from "../../parts/Touch";
import { AltitudeFinder } from "./AltitudeFinder";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { CannerList } from "./CannerList";
import { JarSizes } from "./JarSizes";
import { KettleList } from "./KettleList";
import { CupboardList } from "./CupboardList";
import { Devices } from "./Devices";
import { SafeKeeping } from "./SafeKeeping";
import { ContainerList } from "./ContainerList";

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

function Settings({ kitchen }: { kitchen: Kitchen }) {
  const say = useSay();
  const change = useChange(
    (
      body: Partial<Pick<Kitchen, "name" | "altitude_ft" | "units" | "spoons" | "jar_outsides">> & {
        canner?: number;
      },
    ) => take(api.PATCH("/api/kitchen", { body })),
  );
  const use = (feet: number) => {
    const before = kitchen.altitude_ft;
    change.mutate(
      { altitude_ft: feet },
      {
        onSuccess: () =>
          say(
            `Altitude is ${altitudeText(feet, kitchen.units)}`,
            before == null ? undefined : () => change.mutate({ altitude_ft: before }),
          ),
      },
    );
  };
  return (
    <div className="grid gap-3 lg:grid-cols-2">
      <div className="grid content-start gap-3">
        <Plate title="Altitude">
          <Answer
            value={
              kitchen.altitude_ft == null ? "Not known" : altitudeText(kitchen.altitude_ft, kitchen.units)
            }
          >
            Every time depends on it. Water boils cooler the higher you are.
          </Answer>
          <div className="mt-4">
            <AltitudeFinder units={kitchen.units} onUse={use} />
          </div>
          <div className="mt-4 grid gap-3">
            <Trouble error={change.error} />
            {kitchen.altitude_ft == null && (
              <Note tone="stop">Until the altitude is known, nothing can be timed.</Note>
            )}
          </div>
          <div className="mt-5 grid gap-4 border-t-2 border-line pt-4">
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
            <Rename name={kitchen.name} onRename={(name) => change.mutate({ name })} />
          </div>
        </Plate>
        <ContainerList units={kitchen.units} />
        <Devices />
        <SafeKeeping />
      </div>
      <div className="grid content-start gap-3">
        <CannerList kitchen={kitchen} onPlanFor={(canner) => change.mutate({ canner })}>
          <JarSizes kitchen={kitchen} onSet={(jar_outsides) => change.mutate({ jar_outsides })} />
        </CannerList>
      </div>
      <div className="lg:col-span-2">
        <CupboardList />
      </div>
      <div className="lg:col-span-2">
        <KettleList units={kitchen.units} />
      </div>
    </div>
  );
}

export function KitchenStation() {
  const { data: counter } = useQuery(ask.counter());
  return (
    <div className="grid gap-3">
      <BrokenRecords of={counter === undefined ? ["goal"] : ["canner", "goal"]} />
      {counter === undefined ? <Pending of={[ask.counter()]} /> : <Settings kitchen={counter.kitchen} />}
    </div>
  );
}
