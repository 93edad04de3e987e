import { useQuery } from "@tanstack/react-query";
import * as v from "valibot";
import { api, take, type Units } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { named, number, useFields, useRefusal } from "../../parts/fields";
import { weightText } from "../../writing/format";
import { NumberOf, TextOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { plain, weighedIn } from "../../writing/units";

const EMPTY = { name: "", weight: "" };
const schema = v.object({ name: named, weight: number("Weight.value") });

/** Containers taught once and counted ever after. */
export function ContainerList({ units }: { units: Units }) {
  const { data } = useQuery(ask.containers());
  const unit = weighedIn(units);
  const form = useFields(schema, EMPTY);
  const { control, handleSubmit, reset } = form;
  const teach = useChange(
    ({ name, weight }: v.InferOutput<typeof schema>) =>
      take(api.POST("/api/containers", { body: { name, weight: { value: weight, unit } } })),
    () => reset(EMPTY),
  );
  const forget = useChange((id: number) =>
    take(api.DELETE("/api/containers/{id}", { params: { path: { id } } })),
  );
  const left = useRefusal(form, teach.error, { name: "name", "weight.value": "weight" });
  return (
    <Plate title="Your containers">
      <ul className="grid gap-1">
        {data?.taught.map((container) => (
          <li key={container.id} className="flex items-center justify-between gap-3">
            <span>
              <strong>{container.name}</strong> holds {weightText(container.weight_g, units)}
            </span>
            <Touch onPress={() => forget.mutate(container.id)}>Forget</Touch>
          </li>
        ))}
      </ul>
      <form
        className="mt-3 flex flex-wrap items-end gap-3"
        onSubmit={(event) => void handleSubmit((taught) => teach.mutate(taught))(event)}
      >
        <TextOf control={control} name="name" label="Teach another" example="green bucket" />
        <NumberOf
          control={control}
          name="weight"
          label="Tomatoes in one"
          bound="Weight.value"
          scale={plain(unit)}
        />
        <Touch submit look="main">
          Teach
        </Touch>
      </form>
      <div className="mt-3">
        <Trouble error={left ?? forget.error} />
      </div>
    </Plate>
  );
}
