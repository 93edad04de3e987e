import type { RecipeText } from "../../api/client";
import { WORDS } from "../../api/words.generated";
import { allOf, Choice } from "../../parts/Choice";
import { capitals } from "../../writing/format";
import { TextField } from "../../parts/TextField";

type Kind = NonNullable<RecipeText["kind"]>;

/** Who printed a recipe, and where it stands there. */
export function SourceForm({ text, onChange }: { text: RecipeText; onChange: (text: RecipeText) => void }) {
  const field = (name: "title" | "edition" | "page", label: string, example: string) => (
    <TextField
      label={label}
      typed={text[name] ?? ""}
      example={example}
      onType={(typed) => onChange({ ...text, [name]: typed })}
    />
  );
  return (
    <div className="grid gap-3">
      <Choice<Kind>
        label="Who printed it?"
        value={text.kind ?? ""}
        options={allOf(capitals(WORDS.SourceKind)) as { value: Kind; text: string }[]}
        onChoose={(kind) => onChange({ ...text, kind })}
      />
      <div className="flex flex-wrap gap-3">
        {field("title", "Title of the book, page or packet", "title as it is printed")}
        {field("edition", "Edition or year", "2015")}
        {field("page", "Page, or where it stands on the packet", "12")}
      </div>
    </div>
  );
}
