import { Checkbox } from "radix-ui";
import { useId, type ReactNode } from "react";

/** Yes or no, with a box that a wet thumb hits. */
export function Tick({
  label,
  on,
  onTick,
  className = "",
}: {
  label: ReactNode;
  on: boolean;
  onTick: (on: boolean) => void;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={`flex min-h-[52px] items-center gap-3 font-semibold ${className}`}>
      <Checkbox.Root
        id={id}
        checked={on}
        onCheckedChange={(next) => onTick(next === true)}
        className="grid size-8 shrink-0 place-items-center rounded-lg border-[3px] border-vine bg-enamel text-white data-[state=checked]:bg-vine"
      >
        <Checkbox.Indicator aria-hidden="true">✓</Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="cursor-pointer py-2">
        {label}
      </label>
    </div>
  );
}
