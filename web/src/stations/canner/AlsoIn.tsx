import { useState } from "react";
import * as v from "valibot";
import { api, Refused, take, type AlsoIn as Also, type JarSize, type LoadView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { number, useFields, useRefusal } from "../../parts/fields";
import { NumberOf, PickOf, TextOf } from "../../parts/FormFields";
import { capital, jarText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { sentence } from "../../parts/sentence";
import { Touch } from "../../parts/Touch";
import { plain } from "../../writing/units";

const SIZES = Object.keys(WORDS.JarSize) as JarSize[];
const schema = v.object({
  size: v.picklist(SIZES),
  count: number("AlsoIn.count"),
  minutes: number("AlsoIn.minutes"),
  name: v.pipe(v.string(), v.trim(), v.maxLength(80, "A name has at most 80 letters")),
});
const EMPTY = { size: "pint", count: "", minutes: "", name: "" } as const;

type How = keyof typeof WORDS.AlsoHow;

/** Whether the clock counts, so that it has to be said how there come to be other jars. */
const asksHow = (error: Error | null) => error instanceof Refused && error.problem.code === "say_how";

const jarsIn = (also: readonly Also[]) => also.reduce((sum, { count }) => sum + count, 0);

/** One kind of jars that ride along: what became of them, and their minutes, put right. */
function Beside({
  also,
  place,
  error,
  onSay,
  onOut,
}: {
  also: Also;
  place: number;
  error: Error | null;
  onSay: (also: Also) => void;
  onOut: () => void;
}) {
  const [open, setOpen] = useState(false);
  const form = useFields(v.object({ minutes: number("AlsoIn.minutes") }), { minutes: String(also.minutes) });
  useRefusal(form, open ? error : null, { [`also[${place}].minutes`]: "minutes" });
  const broken = also.broken ?? 0;
  return (
    <div className="grid gap-2">
      <p>
        {also.count} {jarText(also.size, also.count)} of {also.name ?? "something else"}, {also.minutes} min
        {broken > 0 && `, ${broken} broken`}
      </p>
      <div className="flex flex-wrap gap-2">
        {broken < also.count && (
          <Touch onPress={() => onSay({ ...also, broken: broken + 1 })}>One broke</Touch>
        )}
        {broken > 0 && <Touch onPress={() => onSay({ ...also, broken: broken - 1 })}>It did not break</Touch>}
        <Touch onPress={() => setOpen(!open)}>Other minutes</Touch>
        <Touch onPress={onOut}>Not in it</Touch>
      </div>
      {open && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) =>
            void form.handleSubmit(({ minutes }) => {
              onSay({ ...also, minutes });
              setOpen(false);
            })(event)
          }
        >
          <NumberOf
            control={form.control}
            name="minutes"
            label="They need"
            bound="AlsoIn.minutes"
            scale={plain("min")}
          />
          <Touch submit look="main">
            Set the minutes
          </Touch>
        </form>
      )}
    </div>
  );
}

/** Jars of something else that ride along: said before they go in, taken out again when they do not. */
export function AlsoIn({ load }: { load: LoadView }) {
  const [open, setOpen] = useState(false);
  const form = useFields(schema, { ...EMPTY });
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
      reset({ ...EMPTY });
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
    [`also[${place}].name`]: "name",
  });
  return (
    <div className="grid gap-2">
      {load.also.map((also, index) => (
        <Beside
          key={index}
          also={also}
          place={index}
          error={save.error}
          onSay={(next) => say(load.also.map((other, at) => (at === index ? next : other)))}
          onOut={() => say(load.also.filter((_, other) => other !== index))}
        />
      ))}
      {!open && <Touch onPress={() => setOpen(true)}>Also in this canner: something else</Touch>}
      {open && (
        <form
          className="grid gap-2 rounded-xl border-2 border-line p-3"
          onSubmit={(event) =>
            void handleSubmit(({ name, ...also }) =>
              say([...load.also, { ...also, name: name === "" ? null : name, broken: 0 }]),
            )(event)
          }
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
            <TextOf control={control} name="name" label="What is in them" />
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
