import { useState } from "react";
import * as v from "valibot";
import { api, Refused, take, type AlsoIn as Also, type JarSize, type LoadView } from "../../api/client";
import { useChange } from "../../api/queries";
import { WORDS } from "../../api/words.generated";
import { number, useFields, useRefusal } from "../../parts/fields";
import { NumberOf, PickOf } from "../../parts/FormFields";
import { capital, jarText } from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { sentence } from "../../parts/sentence";
import { Touch } from "../../parts/Touch";
import { plain } from "../../parts/units";

const SIZES = Object.keys(WORDS.JarSize) as JarSize[];
const schema = v.object({
  size: v.picklist(SIZES),
  count: number("AlsoIn.count"),
  minutes: number("AlsoIn.minutes"),
});

type How = keyof typeof WORDS.AlsoHow;

/** Whether the clock counts, so that it has to be said how there come to be other jars. */
const asksHow = (error: Error | null) => error instanceof Refused && error.problem.code === "say_how";

const jarsIn = (also: readonly Also[]) => also.reduce((sum, { count }) => sum + count, 0);

/** Jars of something else that ride along: said before they go in, taken out again when they do not. */
export function AlsoIn({ load }: { load: LoadView }) {
  const [open, setOpen] = useState(false);
  const form = useFields(schema, { size: "pint", count: "", minutes: "" });
  const { control, handleSubmit, reset } = form;
  const [waits, setWaits] = useState<Also[] | null>(null);
  const save = useChange(
    ({ also, how }: { also: Also[]; how?: How }) =>
      take(
        api.PUT("/api/loads/{id}/also", {
          params: { path: { id: load.id } },
          body: { also, ...(how === undefined ? {} : { how }) },
        }),
      ),
    () => {
      reset({ size: "pint", count: "", minutes: "" });
      setOpen(false);
      setWaits(null);
    },
  );
  const say = (also: Also[], how?: How) =>
    save.mutate(how === undefined ? { also } : { also, how }, {
      onError: (error) => {
        if (asksHow(error)) setWaits(also);
      },
    });
  const fewer = waits !== null && jarsIn(waits) < jarsIn(load.also);
  const place = load.also.length;
  const left = useRefusal(form, save.error, {
    [`also[${place}].count`]: "count",
    [`also[${place}].minutes`]: "minutes",
  });
  return (
    <div className="grid gap-2">
      {load.also.map((also, index) => (
        <div key={index} className="flex flex-wrap items-center justify-between gap-2">
          <span>
            {also.count} {jarText(also.size, also.count)} of something else, {also.minutes} min
          </span>
          <Touch onPress={() => say(load.also.filter((_, other) => other !== index))}>Not in it</Touch>
        </div>
      ))}
      {!open && <Touch onPress={() => setOpen(true)}>Also in this canner: something else</Touch>}
      {open && (
        <form
          className="grid gap-2 rounded-xl border-2 border-line p-3"
          onSubmit={(event) => void handleSubmit((also) => say([...load.also, also]))(event)}
        >
          <PickOf
            control={control}
            name="size"
            label="Jars of something else"
            options={SIZES.map((size) => ({ value: size, text: capital(jarText(size, 2)) }))}
          />
          <div className="flex flex-wrap items-end gap-2">
            <NumberOf control={control} name="count" label="How many" bound="AlsoIn.count" />
            <NumberOf
              control={control}
              name="minutes"
              label="They need"
              bound="AlsoIn.minutes"
              scale={plain("min")}
            />
          </div>
          <div className="flex flex-wrap gap-2">
            <Touch submit look="main">
              They go in
            </Touch>
            <Touch onPress={() => setOpen(false)}>None</Touch>
          </div>
        </form>
      )}
      {waits !== null && save.error !== null && (
        <Note tone="warn">
          <div className="grid gap-2" data-question="how">
            <p>{sentence(save.error.message)}</p>
            <div className="flex flex-wrap gap-2">
              {(["said_wrongly", fewer ? "lifted_now" : "put_in_now"] as const).map((how) => (
                <Touch
                  key={how}
                  look={how === "said_wrongly" ? "plain" : "heat"}
                  onPress={() => say(waits, how)}
                >
                  {capital(WORDS.AlsoHow[how])}
                </Touch>
              ))}
            </div>
          </div>
        </Note>
      )}
      <Trouble error={waits === null ? left : null} />
    </div>
  );
}
