import { useState } from "react";
import * as v from "valibot";
import { api, take, type DoseMeasure, type LoadView, type Measured } from "../../api/client";
import { useChange } from "../../queries/queries";
import { Choice, optionsOf } from "../../parts/Choice";
import { number, optionalNumber, useFields, useRefusal } from "../../parts/fields";
import { NumberOf } from "../../parts/FormFields";
import { AGENT } from "../../writing/format";
import { WORDS } from "../../api/words.generated";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { plain } from "../../writing/units";
import { measuresOf } from "./model";

const schema = v.object({ amount: number("Measured.amount"), bottle: optionalNumber("Measured.bottle_ml") });

/** Acid that went into the pot instead of the jars, in whatever it was measured with. */
export function PotDose({ load }: { load: LoadView }) {
  const { batch } = load;
  const measures = measuresOf(batch.agent);
  const [measure, setMeasure] = useState<DoseMeasure>(measures[0]);
  const form = useFields(schema, { amount: "", bottle: "" });
  const { control, handleSubmit, reset } = form;
  const { pot_said: said } = batch;
  const dose = useChange(
    (all: Measured[]) =>
      take(
        api.PUT("/api/batches/{id}/pot_dose", { params: { path: { id: batch.id } }, body: { said: all } }),
      ),
    () => reset({ amount: "", bottle: "" }),
  );
  const left = useRefusal(form, dose.error, {
    [`said[${said.length}].amount`]: "amount",
    [`said[${said.length}].bottle_ml`]: "bottle",
  });
  const inPot = load.doses.find((line) => line.batch === batch.id)?.in_pot;
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) =>
        void handleSubmit(({ amount, bottle }) =>
          dose.mutate([
            ...said,
            { amount, measure, ...(measure === "bottle" && bottle !== undefined && { bottle_ml: bottle }) },
          ]),
        )(event)
      }
    >
      {inPot != null && (
        <div className="flex flex-wrap items-center gap-3">
          <p className="font-semibold">
            In the pot: {inPot} of {AGENT[batch.agent]}.
          </p>
          <Touch onPress={() => dose.mutate(said.slice(0, -1))}>Take the last back</Touch>
        </div>
      )}
      <Choice
        label={inPot == null ? "Or: acid stirred into the pot, in" : "More stirred in, in"}
        value={measure}
        options={optionsOf(measures, WORDS.DoseMeasure)}
        onChoose={setMeasure}
      />
      <div className="flex flex-wrap items-end gap-2">
        <NumberOf
          control={control}
          name="amount"
          label="How much"
          bound="Measured.amount"
          scale={plain(WORDS.DoseMeasure[measure])}
        />
        {measure === "bottle" && (
          <NumberOf
            control={control}
            name="bottle"
            label="One bottle holds"
            bound="Measured.bottle_ml"
            scale={plain("mL")}
          />
        )}
        <Touch submit>Stirred in</Touch>
      </div>
      <Trouble error={left} />
    </form>
  );
}
