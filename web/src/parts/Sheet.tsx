import { Dialog } from "radix-ui";
import { useRef, type ReactNode } from "react";

/** A question laid over the counter, inside a `Dialog.Root`. */
export function Sheet({ title, children }: { title: string; children: ReactNode }) {
  // What had the focus before gets it back, whether a touch opened this or a key.
  const from = useRef<Element | null>(null);
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/40" />
      <Dialog.Content
        aria-describedby={undefined}
        onOpenAutoFocus={() => {
          from.current = document.activeElement;
        }}
        onCloseAutoFocus={(event) => {
          if (!(from.current instanceof HTMLElement) || from.current === document.body) return;
          event.preventDefault();
          from.current.focus();
        }}
        className="fixed top-1/2 left-1/2 z-30 grid max-h-[92vh] w-[min(640px,94vw)] -translate-x-1/2 -translate-y-1/2 gap-4 overflow-auto rounded-[26px] border-[3px] border-cobalt bg-porcelain p-6"
      >
        <Dialog.Title className="font-slab text-2xl font-bold">{title}</Dialog.Title>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}
