import { useWatch } from "react-hook-form";
import * as v from "valibot";
import { api, take, type CookEventRequest, type CookView, type Units } from "../../api/client";
import { useChange, useUndoLine } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { number, useFields, useRefusal } from "../../parts/fields";
import { NumberOf, PickOf } from "../../parts/FormFields";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { BYS, READ, type By } from "./model";

const EMPTY = { by: "depth", reading: "" };

/** The reading, checked by what it is read by. */
function schemaOf(units: Units) {
  const one = (by: By) =>
    v.object({ by: v.literal(by), reading: number(READ[by].bound, READ[by].scale(units)) });
  return v.variant("by", [one("depth"), one("volume"), one("mass"), one("brix"), one("temp")]);
}

/** One reading of the kettle. */
export function ReadForm({ cook, units }: { cook: CookView; units: Units }) {
  const say = useSay();
  const path = { params: { path: { id: cook.id } } };
  const form = useFields(
    schemaOf(units) as v.GenericSchema<typeof EMPTY, { by: By; reading: number }>,
    EMPTY,
  );
  const { control, handleSubmit, reset } = form;
  const by = useWatch({ control, name: "by" }) as By;
  const undo = useUndoLine(cook.id);
  const write = useChange(
    (body: CookEventRequest) => take(api.POST("/api/cooks/{id}/events", { ...path, body })),
    ({ log }) => {
      reset({ ...EMPTY, by });
      const line = log.findLast((item) => !item.simulated);
      say("Saved", line && (() => undo.mutate(line.at)));
    },
  );
  const left = useRefusal(form, write.error, {
    reading: "reading",
    "reading.depth_mm": "reading",
    "reading.volume_l": "reading",
    "reading.mass_kg": "reading",
    "reading.brix": "reading",
    temp_c: "reading",
  });
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) =>
        void handleSubmit((typed) => write.mutate({ [READ[typed.by].field]: typed.reading }))(event)
      }
    >
      <div className="w-[7.6rem]">
        <PickOf
          control={control}
          name="by"
          label="Read it by"
          options={BYS.map((key) => ({ value: key, text: READ[key].text }))}
        />
      </div>
      <NumberOf
        control={control}
        name="reading"
        label="Reading"
        bound={READ[by].bound}
        scale={READ[by].scale(units)}
      />
      <Touch submit look="main" disabled={write.isPending}>
        Save it
      </Touch>
      <Trouble error={left ?? undo.error} />
    </form>
  );
}
