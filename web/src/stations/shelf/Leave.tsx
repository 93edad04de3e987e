import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";
import { api, take, type Discard, type JarSize, type Leaving } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { DISCARD } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Sheet } from "../../parts/Sheet";
import { Touch } from "../../parts/Touch";

const REASONS = Object.keys(DISCARD) as Discard[];

export interface Which {
  jar?: number;
  batch?: number;
  size?: JarSize;
}

/** A jar leaves the shelf: look at it first, then say how. A spoiled one names its sisters. */
export function Leave({ which, title, children }: { which: Which; title: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState<Discard | "">("");
  const say = useSay();
  const back = useChange((id: number) =>
    take(api.DELETE("/api/jars/{id}/departure", { params: { path: { id } } })),
  );
  const leave = useChange(
    ({ how }: { how: Leaving }) =>
      take(
        api.POST("/api/departures", {
          body: { ...which, how, ...(how === "discarded" && why !== "" ? { why } : {}) },
        }),
      ),
    ({ jar, sisters }, { how }) => {
      say(`Jar ${jar.number} of ${jar.code} ${how === "given" ? "given away" : how}`, () =>
        back.mutate(jar.id),
      );
      if (sisters.length === 0) setOpen(false);
    },
  );
  const sisters = leave.data?.sisters ?? [];
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        leave.reset();
      }}
    >
      <Dialog.Trigger asChild>{children}</Dialog.Trigger>
      <Sheet title={title}>
        {sisters.length > 0 ? (
          <div className="grid gap-3">
            <Note tone="stop">
              <strong>This batch is recalled.</strong> Check every other jar of this batch before it is
              opened; do not taste. In doubt, discard them.
            </Note>
            <ul className="grid gap-1 text-lg">
              {sisters.map((jar) => (
                <li key={jar.id}>
                  Jar {jar.number}: {jar.whereabouts}
                </li>
              ))}
            </ul>
          </div>
        ) : (
          <div className="grid gap-4">
            <Note tone="warn">
              Look first: lid drawn in, nothing leaked, nothing spurts, no mould, smells of tomato only. In
              doubt, never taste.
            </Note>
            <div className="grid gap-3 sm:grid-cols-2">
              <Touch big look="done" onPress={() => leave.mutate({ how: "eaten" })}>
                Eat it
              </Touch>
              <Touch big onPress={() => leave.mutate({ how: "given" })}>
                Give it away
              </Touch>
            </div>
            <Choice
              label="Or throw it away, because"
              value={why}
              options={optionsOf(REASONS, DISCARD)}
              onChoose={setWhy}
            />
            <Touch look="heat" disabled={why === ""} onPress={() => leave.mutate({ how: "discarded" })}>
              Discard it where nobody can eat it
            </Touch>
            <Trouble error={leave.error} />
          </div>
        )}
        <Dialog.Close asChild>
          <button type="button" className="mt-3 min-h-[48px] font-semibold text-link">
            Close
          </button>
        </Dialog.Close>
      </Sheet>
    </Dialog.Root>
  );
}
