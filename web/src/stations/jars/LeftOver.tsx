import { api, take, type Food, type JarSize, type LoadView, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { BatchFood } from "../../parts/BatchFood";
import { Fold } from "../../parts/Fold";
import { jarText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { moreJars } from "./model";

const FOODS: readonly Food[] = ["product", "fruit", "bits", "thin_juice", "trimmings"];

/** What fills no jar: one jar more first, then wherever it goes. */
export function LeftOver({ load, units }: { load: LoadView; units: Units }) {
  const say = useSay();
  const more = useChange(
    (body: { batch: number; jar: JarSize; count: number }) =>
      take(api.PUT("/api/loads/{id}/jars", { params: { path: { id: load.id } }, body })),
    (_, { jar }) => say(`One ${jarText(jar)} more is set out, in this load or the next that has room`),
  );
  const batches = [...new Map(load.doses.map((dose) => [dose.batch, dose.code])).entries()];
  return batches.map(([batch, code]) => (
    <Fold key={batch} words={batches.length > 1 ? `Some of ${code} is left over` : "Some is left over"}>
      <div className="grid gap-4">
        <div className="flex flex-wrap gap-2">
          {moreJars(load.doses.filter((dose) => dose.batch === batch)).map(({ jar, count }) => (
            <Touch key={jar} onPress={() => more.mutate({ batch, jar, count })}>
              One {jarText(jar)} more
            </Touch>
          ))}
        </div>
        <Trouble error={more.error} />
        <BatchFood batch={batch} foods={FOODS} units={units} />
      </div>
    </Fold>
  ));
}
