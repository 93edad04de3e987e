import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as v from "valibot";
import { api, take, type KettleView, type Units } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { named, number, optionalNumber, useFields, useRefusal } from "../../parts/fields";
import { Fold } from "../../parts/Fold";
import { volumeText } from "../../writing/format";
import { ChoiceOf, NumberOf, TextOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { lengthScale } from "../../writing/units";
import { Calibrate } from "./Calibrate";
import { kettleText } from "./model";

const EMPTY = { name: "", wide: "", top: "", deep: "", heat: "burner" };

function AddKettle({ units }: { units: Units }) {
  const say = useSay();
  const scale = lengthScale(units);
  const schema = v.object({
    name: named,
    wide: number("NewKettleRequest.inner_diameter_mm", scale),
    top: optionalNumber("NewKettleRequest.top_diameter_mm", scale),
    deep: number("NewKettleRequest.depth_mm", scale),
    heat: v.string(),
  });
  const form = useFields(schema, EMPTY);
  const { control, handleSubmit, reset } = form;
  const add = useChange(
    ({ name, wide, top, deep, heat }: v.InferOutput<typeof schema>) =>
      take(
        api.POST("/api/kettles", {
          body: {
            name,
            inner_diameter_mm: wide,
            top_diameter_mm: top ?? null,
            depth_mm: deep,
            heat: heat as KettleView["heat"],
          },
        }),
      ),
    (kettle) => {
      reset(EMPTY);
      say(`${kettle.name} is in the kitchen`);
    },
  );
  const left = useRefusal(form, add.error, {
    name: "name",
    inner_diameter_mm: "wide",
    top_diameter_mm: "top",
    depth_mm: "deep",
  });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => void handleSubmit((kettle) => add.mutate(kettle))(event)}
    >
      <TextOf control={control} name="name" label="Another kettle" />
      <NumberOf
        control={control}
        name="wide"
        label="Wide inside"
        bound="NewKettleRequest.inner_diameter_mm"
        scale={scale}
      />
      <NumberOf
        control={control}
        name="top"
        label="At the top, if it is wider"
        bound="NewKettleRequest.top_diameter_mm"
        scale={scale}
      />
      <NumberOf
        control={control}
        name="deep"
        label="Deep inside"
        bound="NewKettleRequest.depth_mm"
        scale={scale}
      />
      <ChoiceOf
        control={control}
        name="heat"
        label="It stands"
        options={[
          { value: "burner", text: "On a burner" },
          { value: "oven", text: "In the oven" },
        ]}
      />
      <Touch submit look="main">
        Add it
      </Touch>
      <Trouble error={left} />
    </form>
  );
}

/** The household's kettles, pans and roasters. */
export function KettleList({ units }: { units: Units }) {
  const { data: kettles } = useQuery(ask.kettles());
  const [open, setOpen] = useState<number | null>(null);
  return (
    <Plate title="Your kettles">
      <ul className="grid gap-2">
        {kettles?.map((kettle) => (
          <li key={kettle.id} className="grid gap-2">
            <div className="flex flex-wrap items-center justify-between gap-2">
              <p className="min-w-0 leading-snug">
                <strong>{kettle.name}</strong>, {volumeText(kettle.brim_l, units)} to the brim
                <span className="block text-sm text-muted">{kettleText(kettle, units)}</span>
              </p>
              <Touch onPress={() => setOpen(open === kettle.id ? null : kettle.id)}>Calibrate</Touch>
            </div>
            {open === kettle.id && <Calibrate kettle={kettle} units={units} onDone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
      <div className="mt-4 border-t-2 border-line pt-4">
        <Fold words="Another kettle, pan or roaster">
          <AddKettle units={units} />
        </Fold>
      </div>
    </Plate>
  );
}
