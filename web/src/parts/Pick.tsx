import { Select } from "radix-ui";
import { useId } from "react";

/** The page under an open list is out of reach for keys as well. */
function shutPage(isOpen: boolean) {
  document.getElementById("root")?.toggleAttribute("inert", isOpen);
}

/** One of many, in a list that opens. */
export function Pick<T extends string>({
  label,
  value,
  options,
  onChoose,
  placeholder,
}: {
  label: string;
  value: T;
  options: readonly { value: T; text: string }[];
  onChoose: (value: T) => void;
  placeholder?: string;
}) {
  const id = useId();
  return (
    <div className="grow">
      <p id={id} className="mb-1 text-sm font-semibold text-muted">
        {label}
      </p>
      <Select.Root value={value} onValueChange={(next) => onChoose(next as T)} onOpenChange={shutPage}>
        <Select.Trigger
          aria-labelledby={id}
          className="flex min-h-[52px] w-full items-center justify-between gap-2 rounded-xl border-2 border-edge bg-enamel px-3 text-left font-semibold hover:border-cobalt"
        >
          <Select.Value placeholder={placeholder} />
          <Select.Icon aria-hidden="true">▾</Select.Icon>
        </Select.Trigger>
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={4}
            className="z-40 max-h-[60vh] min-w-[var(--radix-select-trigger-width)] overflow-auto rounded-xl border-[3px] border-cobalt bg-enamel p-1 shadow-xl"
          >
            <Select.Viewport>
              {options.map((option) => (
                <Select.Item
                  key={option.value}
                  value={option.value}
                  className="flex min-h-[48px] cursor-pointer items-center rounded-lg px-3 font-semibold outline-none data-[highlighted]:bg-cobalt-wash data-[state=checked]:text-link"
                >
                  <Select.ItemText>{option.text}</Select.ItemText>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      </Select.Root>
    </div>
  );
}
