import type { Added, Ingredient, RecipeUnit } from "../api/client";
import { MEASURED, WORDS } from "../api/words.generated";
import { parseNumber } from "../writing/number";

/** What may go in, by what people think of first. */
export const GROUPS = ["nothing", "herbs", "vegetables", "else"] as const;
export type Group = (typeof GROUPS)[number];

export const ELSE: Record<Exclude<Group, "nothing">, readonly Ingredient[]> = {
  herbs: ["dried_herb", "garlic_powder", "chili_flakes", "basil_leaf", "fresh_herb", "parsley"],
  vegetables: [
    "onion",
    "pepper",
    "carrot",
    "celery",
    "garlic",
    "mushroom",
    "corn",
    "beans",
    "zucchini",
    "spinach",
    "beet",
    "other_vegetable",
  ],
  else: [
    "sugar",
    "firming_salt",
    "water",
    "oil",
    "butter",
    "dairy",
    "pesto",
    "meat",
    "wine",
    "pasta",
    "rice",
    "starch",
    "tinned_paste",
    "baking_soda",
    "aspirin",
    "other",
  ],
};

/** Counted in leaves instead of cups. */
export const LEAVES: Ingredient = "basil_leaf";

/** Called by its name, and not by a word. */
export const NAMED: Ingredient = "other";

/** Whether it has to be measured: of what is free, and of what may not go in at all, nobody has to say how much. */
export const isMeasured = (what: Ingredient) => MEASURED.some((measured) => measured === what);

type Typed = Partial<Record<Ingredient, string>>;
/** What each is measured in; cups, chopped, until somebody says otherwise. */
export type Measures = Partial<Record<Ingredient, RecipeUnit>>;

/** What vegetables come in: chopped into cups, counted, or off the scale. */
export const MEASURES = ["cup", "piece", "lb", "oz", "kg", "g"] as const satisfies readonly RecipeUnit[];

/** What the touches and the numbers say; nothing while an amount is missing or nothing was chosen. */
export function addedOf(typed: Typed, measures: Measures = {}): Added[] | null {
  const lines = Object.entries(typed) as [Ingredient, string][];
  if (lines.length === 0) return null;
  const added: Added[] = [];
  for (const [what, text] of lines) {
    const amount = parseNumber(text, what === LEAVES ? "leaves" : "");
    if (what === NAMED) {
      if (text.trim() === "") return null;
      added.push({ what, name: text.trim() });
    } else if (!isMeasured(what)) added.push({ what });
    else if (text.trim() === "" || amount === null) return null;
    else if (what === LEAVES) added.push({ what, leaves: amount });
    else {
      const unit = measures[what] ?? "cup";
      added.push(unit === "cup" ? { what, cups: amount } : { what, amount, unit });
    }
  }
  return added;
}

/** The same the other way round, to begin with. */
export function typedOf(additions: Added[] | null): Typed {
  return Object.fromEntries(
    (additions ?? []).map((item) => [
      item.what,
      String(item.name ?? item.leaves ?? item.cups ?? item.amount ?? ""),
    ]),
  );
}

/** What each of them was measured in. */
export function measuresOf(additions: Added[] | null): Measures {
  return Object.fromEntries(
    (additions ?? []).flatMap((item) => (item.unit == null ? [] : [[item.what, item.unit]])),
  );
}

/** The group to open with; none while nobody has said. */
export function groupOf(additions: Added[] | null): Group | "" {
  if (additions === null) return "";
  const first = additions[0];
  if (first === undefined) return "nothing";
  return GROUPS.find((group) => group !== "nothing" && ELSE[group].includes(first.what)) ?? "else";
}

/** "2 cups of onion, dried herbs" */
export function contentsText(additions: readonly Added[], words: Record<Ingredient, string>): string {
  const line = ({ what, name, cups, leaves, amount, unit }: Added) => {
    const word = name ?? words[what].toLowerCase();
    if (amount != null && unit != null)
      return unit === "piece" ? `${amount} ${word}` : `${amount} ${WORDS.Unit[unit]} of ${word}`;
    if (leaves != null) return `${leaves} basil ${leaves === 1 ? "leaf" : "leaves"}`;
    return cups == null ? word : `${cups} ${cups === 1 ? "cup" : "cups"} of ${word}`;
  };
  return additions.map(line).join(", ");
}
