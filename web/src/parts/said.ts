import type { LoadView } from "../api/client";
import { clockText, countdown, MINUTE } from "../writing/format";

type Said = LoadView["says"];

/** What a load says at this second: what the server said, or what that turns into once its time is over. */
export function saidNow(load: Pick<LoadView, "says" | "then">, now: number): Said {
  const { says, then } = load;
  return says.figure.shows === "left" && says.figure.ends <= now && then != null ? then : says;
}

/** The big figure. */
export function figureText(figure: Said["figure"], now: number): string {
  switch (figure.shows) {
    case "minutes":
      return `${figure.minutes}:00`;
    case "left":
      return countdown(figure.ends - now);
    case "word":
      return figure.word;
  }
}

/** The words, with the clock time they speak of. */
export function wordsText(said: { words: string; at?: number | null }): string {
  return said.at == null ? said.words : said.words.replace("{at}", clockText(said.at));
}

/** The words on a touch, and how much of the time it would leave out. */
export function touchText(touch: Said["touches"][number], now: number): string {
  const { says, lacks } = touch;
  if (lacks == null) return says;
  const minutes = lacks.lacks === "all" ? lacks.minutes : Math.ceil((lacks.ends - now) / MINUTE);
  return minutes > 0 ? `${says}: ${minutes} min missing` : says;
}

/** How much of a running time is over, 0 to 1; nothing while none runs. */
export function shareOver(figure: Said["figure"], now: number): number | null {
  if (figure.shows !== "left") return null;
  return Math.min(1, Math.max(0, (now - figure.since) / (figure.ends - figure.since)));
}
