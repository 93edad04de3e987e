import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { setDevice, useDevice } from "../device/device";
import { isTyping, keysNow, type ShortKey } from "../parts/keys";
import { Sheet } from "../parts/Sheet";
import { Tick } from "../parts/Tick";
import { Touch } from "../parts/Touch";

/** The keys of the open page, shown by a "?". */
export function KeySheet() {
  const { keys: areOn } = useDevice();
  const [shown, setShown] = useState<readonly ShortKey[] | null>(null);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key === "?" && !isTyping(event)) setShown(keysNow());
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
  return (
    <Dialog.Root open={shown !== null} onOpenChange={(open) => !open && setShown(null)}>
      <Sheet title="Keys of this page">
        {shown?.length === 0 && <p className="text-lg text-muted">This page is worked by touch alone.</p>}
        <ul className="grid gap-1 text-lg">
          {shown?.map((one) => (
            <li key={one.key + one.text} className="flex items-center gap-3">
              <kbd className="grid min-h-9 min-w-9 place-items-center rounded-lg border-2 border-edge px-2 font-slab font-bold">
                {one.key}
              </kbd>
              {one.text}
            </li>
          ))}
        </ul>
        <Tick label="Letters work the touches" on={areOn} onTick={(keys) => setDevice({ keys })} />
        <Touch onPress={() => setShown(null)}>Close</Touch>
      </Sheet>
    </Dialog.Root>
  );
}
