import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JarSize, type LoadView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { useUndosed } from "../../parts/useUndosed";
import { batchesOf } from "../../parts/batches";
import { jarText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Sheet } from "../../parts/Sheet";
import { Touch } from "../../parts/Touch";
import { lastOf, useUndo } from "./useUndo";

type Event = "jar_broken" | "jar_out" | "jar_added";
type What = Event | "undosed";

const WHAT: Record<What, { text: string; asks: string; explains: string }> = {
  jar_broken: {
    text: "A jar broke",
    asks: "Which one?",
    explains: "Leave it in until the others are out; the boil goes on, and so does the clock.",
  },
  jar_out: {
    text: "A jar was taken out",
    asks: "Which one?",
    explains:
      "Opening the lid stops the boil: the others start their full time again. The jar itself counts only if it had its own full time.",
  },
  jar_added: {
    text: "A jar was put in",
    asks: "Its acid is in, its lid is on. Which size?",
    explains: "A late jar needs the full time, so all of them start it again when it boils.",
  },
  undosed: {
    text: "A jar has no acid in it",
    asks: "Which one?",
    explains:
      "Acid after the lid is not acid. It boils on with the others; once they are on the towel it is opened for its dose and boiled again, within the day.",
  },
};
const WHATS = Object.keys(WHAT) as What[];

/** What happens to single jars while the canner boils, judged and explained before it is said. */
export function JarTrouble({ load, closed }: { load: LoadView; closed: boolean }) {
  const [what, setWhat] = useState<What | null>(null);
  const say = useSay();
  const path = { params: { path: { id: load.id } } };
  const undo = useUndo(load.id);
  const tell = useChange(
    (body: { event: Event; jar?: number; size?: JarSize }) =>
      take(api.POST("/api/loads/{id}/events", { ...path, body })),
    (changed, { event }) => {
      setWhat(null);
      say(WHAT[event].text, () => undo.mutate(lastOf(changed)));
    },
  );
  const undosed = useUndosed(() => setWhat(null));
  const sizes = [...new Set(load.jars.map((jar) => jar.size))];
  const batches = batchesOf(load.jars);
  const letterOf = (batch: number) => batches.find((one) => one.batch === batch)?.letter ?? "";
  const there = load.jars.filter((jar) => !load.gone.some((gone) => gone.jar === jar.id));
  return (
    <Dialog.Root
      open={what !== null}
      onOpenChange={(open) => {
        if (!open) setWhat(null);
      }}
    >
      <div className="flex flex-wrap gap-2">
        {WHATS.filter((item) => item === "jar_broken" || item === "undosed" || !closed).map((item) => (
          <Touch
            key={item}
            onPress={() => {
              tell.reset();
              undosed.reset();
              setWhat(item);
            }}
          >
            {WHAT[item].text}
          </Touch>
        ))}
      </div>
      {what !== null && (
        <Sheet title={`${WHAT[what].text}. ${WHAT[what].asks}`}>
          <Note tone="warn">{WHAT[what].explains}</Note>
          <div className="flex flex-wrap gap-2">
            {what === "jar_added"
              ? sizes.map((size) => (
                  <Touch key={size} big onPress={() => tell.mutate({ event: what, size })}>
                    {jarText(size)}
                  </Touch>
                ))
              : there.map((jar) => (
                  <Touch
                    key={jar.id}
                    big
                    label={`Jar ${jar.number}${letterOf(jar.batch) === "" ? "" : ` of ${jar.code}`}`}
                    onPress={() =>
                      what === "undosed"
                        ? undosed.mutate({ jars: [jar.id], undosed: true })
                        : tell.mutate({ event: what, jar: jar.id })
                    }
                  >
                    {letterOf(jar.batch)}
                    {jar.number}
                  </Touch>
                ))}
          </div>
          <Trouble error={tell.error ?? undosed.error} />
          <Dialog.Close asChild>
            <button type="button" className="min-h-[48px] justify-self-start font-semibold text-link">
              Nothing happened
            </button>
          </Dialog.Close>
        </Sheet>
      )}
    </Dialog.Root>
  );
}
