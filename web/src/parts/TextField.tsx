/** A name or a few words as they are typed. */
export function TextField({
  label,
  typed,
  example,
  onType,
}: {
  label: string;
  typed: string;
  example?: string;
  onType: (typed: string) => void;
}) {
  return (
    <label className="grow">
      <span className="mb-1 block text-sm font-semibold text-muted">{label}</span>
      <input
        value={typed}
        placeholder={example}
        onChange={(event) => onType(event.target.value)}
        className="min-h-[52px] w-full rounded-xl border-2 border-line bg-white px-3 font-semibold"
      />
    </label>
  );
}
