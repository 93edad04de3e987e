import { ToggleGroup } from "radix-ui";
import { useId } from "react";

/** One of a few, all in sight. */
export function Choice<T extends string>({
  label,
  value,
  options,
  error,
  onChoose,
}: {
  label: string;
  /** Empty while nobody has said. */
  value: T | "";
  options: readonly { value: T; text: string }[];
  error?: string | undefined;
  onChoose: (value: T) => void;
}) {
  const id = useId();
  return (
    <div>
      <p id={id} className="mb-1 text-sm font-semibold text-muted">
        {label}
      </p>
      <ToggleGroup.Root
        type="single"
        aria-labelledby={id}
        value={value}
        onValueChange={(next) => next !== "" && onChoose(next as T)}
        className="flex flex-wrap gap-1.5"
      >
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className="min-h-[48px] rounded-xl border-2 border-edge bg-enamel px-3 font-semibold text-ink hover:border-cobalt data-[state=on]:border-cobalt data-[state=on]:bg-cobalt data-[state=on]:text-white"
          >
            {option.text}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {error !== undefined && (
        <p role="alert" className="mt-1 text-sm font-semibold text-alarm">
          {error}
        </p>
      )}
    </div>
  );
}

/** All words of a vocabulary as options, in its order. */
export const allOf = (words: Readonly<Record<string, string>>) =>
  Object.entries(words).map(([value, text]) => ({ value, text }));

/** Options out of a word list, in a chosen order. */
export function optionsOf<T extends string>(words: readonly T[], text: Record<T, string>) {
  return words.map((value) => ({ value, text: text[value] }));
}
