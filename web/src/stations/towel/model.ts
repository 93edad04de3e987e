import type { Towel } from "../../api/client";
import { wordsText } from "../../parts/said";
import { clockText, dayText, MINUTE, spanText } from "../../writing/format";

type Said = Towel["says"][number];

/** What a load says at this minute: the last saying whose moment has come. */
export function saidNow(says: readonly Said[], now: number): Said | undefined {
  return says.findLast((said) => said.from <= now) ?? says[0];
}

/** The figure, as the household writes an hour. */
export function figureText(figure: Said["figure"]): string {
  return figure.shows === "clock" ? clockText(figure.at) : figure.word;
}

/** The words, with the hour and the day they speak of and what is left until the next saying; never "0 min". */
export function sayingText(says: readonly Said[], said: Said, now: number): string {
  const next = says[says.indexOf(said) + 1];
  const minutes = next === undefined ? 0 : Math.ceil((next.from - now) / MINUTE);
  const words = wordsText(said).replace("{left}", minutes <= 1 ? "a minute" : spanText(minutes));
  return said.at == null ? words : words.replace("{day}", dayText(said.at));
}
