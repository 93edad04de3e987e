import type { Part, ReadLine, RecipeLine, RecipeText } from "../../api/client";

/** A recipe that nobody has written anything of yet. */
export const EMPTY: RecipeText = {
  name: "",
  lines: [],
  makes: null,
  process: null,
  process_ticked: false,
  kind: null,
  is_all_its_acid: false,
  title: "",
  edition: "",
  page: "",
  note: "",
};

/** A line that was read, and what was answered of its packet. */
export type Answered = ReadLine & Pick<Part, "packet">;

/** What is still to be said of a line before it can be written down; of salt and spices no amount is needed. */
export function isOpen(line: Answered): boolean {
  if (line.name.trim() === "" || line.role == null || line.per == null) return true;
  if (line.role === "free" || line.role === "sugar") return false;
  return line.amount == null || line.unit == null || line.up_to != null;
}

/** A line as it is written down. */
export function written(line: Answered): RecipeLine {
  const part: Part = {
    name: line.name,
    amount: line.amount ?? null,
    unit: line.unit ?? null,
    role: line.role ?? "not_allowed",
    group: line.group ?? null,
    ...(line.per == null ? {} : { per: line.per }),
    ...(line.packet == null ? {} : { packet: line.packet }),
  };
  return { part, preparation: line.preparation ?? null, ticked: false };
}

/** A line of which nobody knows how much it is, kept so: it is asked for at the bowls. */
export const unmeasured = (line: Answered): Answered => ({ ...line, amount: null, unit: null, up_to: null });

/** A number to two decimals, without those that say nothing. */
export const short = (value: number) => String(Math.round(value * 100) / 100);

/**
 * Where the mark of a proportion stands between 0 and 1: the recipe is the middle, none of it the left end, twice as much and
 * more the right end.
 */
export function place(change: number | null | undefined): number | null {
  if (change == null) return null;
  return Math.min(Math.max((change + 1) / 2, 0), 1);
}

/** Millimetres that a card has on A4 beside its margins, its title and its frame. */
const CARD = { width: 165, height: 225 };

/**
 * Size of a card's letters in millimetres, at which its lines fill the page and do not leave it: a letter is about half as wide as
 * high, a line half as high again, with a rule under it.
 */
export function cardSize(lines: readonly string[]): number {
  const fits = (size: number) => {
    const rows = lines
      .filter((line) => line !== "")
      .reduce((sum, line) => sum + Math.ceil((line.length * size * 0.52 + size * 1.6) / CARD.width), 0);
    return rows * size * 1.85 <= CARD.height;
  };
  let size = 12;
  while (size > 3 && !fits(size)) size -= 0.25;
  return size;
}
