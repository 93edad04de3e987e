import type { Towel } from "../../api/client";
import { clockText, dayText, jarsText, MINUTE, spanText, VERDICT } from "../../parts/format";

type Jar = Towel["jars"][number];

/** How long the jars are still left alone; in words that never say "0 min more". */
export function aloneText(load: Pick<Towel, "check_from" | "lifted_at">, now: number): string {
  const minutes = Math.ceil((load.check_from - now) / MINUTE);
  const more = minutes <= 1 ? "a minute" : spanText(minutes);
  return `Leave them alone for ${more} more. Lifted at ${clockText(load.lifted_at)}.`;
}

/** Until when a failed jar can be done again. */
export function againText(load: Pick<Towel, "check_by">): string {
  return `Ring off, press the middle, lift by the lid's edge. A failed jar can be done again until ${clockText(load.check_by)} on ${dayText(load.check_by)}.`;
}

/** Jars of a load by what is to be done with them; a lid that was judged too early is still to be looked at, and one over
 * food without acid says nothing. */
export function sorted(jars: readonly Jar[]): { open: Jar[]; sealed: Jar[] } {
  const dosed = jars.filter((jar) => jar.dosed);
  return {
    open: dosed.filter((jar) => jar.verdict == null || jar.second_look != null),
    sealed: dosed.filter((jar) => jar.verdict === "holds" && jar.second_look == null),
  };
}

/** What is known of one lid, in words. */
export function lidText(jar: Pick<Jar, "verdict" | "dosed">): string {
  if (!jar.dosed) return "without its acid";
  return jar.verdict == null ? "not checked" : VERDICT[jar.verdict].toLowerCase();
}

/** What a load on the towel says first: that it is not processed, before anything about its lids. */
export function headline(
  load: Pick<Towel, "processed" | "ways_out" | "jars" | "check_from" | "check_by" | "lifted_at">,
  now: number,
): { figure: string; unit?: string; words: string; bad?: boolean } {
  if (!load.processed)
    return {
      figure: "Not processed",
      words: "These jars are not cooling: they are waiting to be boiled again.",
      bad: true,
    };
  const undosed = load.ways_out.find((way) => way.wrong === "undosed")?.jars.length ?? 0;
  if (undosed > 0)
    return {
      figure: "No acid",
      unit: `in ${jarsText(undosed)}`,
      words: "A lid that holds does not make up for it.",
      bad: true,
    };
  const { open, sealed } = sorted(load.jars);
  if (open.length === 0) {
    const unit = `${sealed.length} sealed`;
    return load.ways_out.length > 0
      ? { figure: "Decide", unit, words: "Something has to be done with the jars that did not seal." }
      : { figure: "Wash", unit, words: "Rings off, jars washed and dried, then their labels." };
  }
  if (now < load.check_from) {
    const again = open.every((jar) => jar.second_look != null);
    const words = again
      ? `Judged early: a lid may still let go. Look a second time from ${clockText(load.check_from)}.`
      : aloneText(load, now);
    return { figure: clockText(load.check_from), unit: again ? "look again" : "check the lids", words };
  }
  return { figure: "Check now", words: againText(load) };
}
