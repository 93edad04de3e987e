import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** A figure opens to its source. */
export function Why({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-[48px] min-w-[48px] rounded-lg text-left print:hidden font-semibold text-link underline decoration-2 underline-offset-4">
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={16}
          className="z-20 max-w-sm rounded-2xl border-[3px] border-cobalt bg-porcelain p-5 leading-snug shadow-xl"
        >
          {children}
          <Popover.Close className="mt-3 min-h-[48px] min-w-[48px] text-left font-semibold text-link underline underline-offset-4">
            Close
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A source with the plain word that it was recalled from memory. */
export function SourceText({ source }: { source: { title: string; from_memory: boolean } }) {
  return (
    <p className="text-muted">
      {source.title}
      {source.from_memory && ", from memory"}.
    </p>
  );
}
