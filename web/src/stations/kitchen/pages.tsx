import { useQuery } from "@tanstack/react-query";
import { ask } from "../../queries/queries";
import { Pending } from "../../parts/Pending";
import { CannerList } from "./CannerList";
import { ContainerList } from "./ContainerList";
import { CupboardList } from "./CupboardList";
import { Devices } from "./Devices";
import { JarSizes } from "./JarSizes";
import { KettleList } from "./KettleList";
import { useKitchenChange } from "../../parts/useKitchenChange";
import { KitchenPage } from "./KitchenPage";
import { SafeKeeping } from "./SafeKeeping";
import { ThisScreen } from "./ThisScreen";

/** The canners of the household, and the jars that go into them. */
export function CannersPage() {
  const change = useKitchenChange();
  return (
    <KitchenPage broken={["canner"]} error={change.error}>
      {(kitchen) => (
        <CannerList kitchen={kitchen} onPlanFor={(canner) => change.mutate({ canner })}>
          <JarSizes kitchen={kitchen} onSet={(jar_outsides) => change.mutate({ jar_outsides })} />
        </CannerList>
      )}
    </KitchenPage>
  );
}

/** What food is cooked in. */
export function KettlesPage() {
  return <KitchenPage>{(kitchen) => <KettleList units={kitchen.units} />}</KitchenPage>;
}

/** What is there to can with, and what crates are counted in. */
export function CupboardPage() {
  return (
    <KitchenPage>
      {(kitchen) => (
        <>
          <CupboardList />
          <ContainerList units={kitchen.units} />
        </>
      )}
    </KitchenPage>
  );
}

/** Screens of the household: this one and the others. */
export function DevicesPage() {
  const { data } = useQuery(ask.network());
  return (
    <KitchenPage>
      {() => (
        <div className="grid items-start gap-3 lg:grid-cols-2">
          <ThisScreen />
          {data === undefined ? <Pending of={[ask.network()]} /> : <Devices />}
        </div>
      )}
    </KitchenPage>
  );
}

/** Backups, and everything in open formats. */
export function SafePage() {
  return <KitchenPage>{() => <SafeKeeping />}</KitchenPage>;
}
