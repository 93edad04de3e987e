import type { Towel } from "../../api/client";
import { clockText, dayText, MINUTE, spanText, VERDICT } from "../../writing/format";

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

/** Whether something stands against a jar, so that its lid says nothing. */
export const isStopped = (jar: Pick<Jar, "dosed" | "standing">) =>
  !jar.dosed || jar.standing.against.length > 0;

/** Jars of a load by what is to be done with them; a lid that was judged too early is still to be looked at, and one over
 * food that something stands against says nothing. */
export function sorted(jars: readonly Jar[]): { open: Jar[]; sealed: Jar[] } {
  const good = jars.filter((jar) => !isStopped(jar));
  return {
    open: good.filter((jar) => jar.verdict == null || jar.second_look != null),
    sealed: good.filter((jar) => jar.verdict === "holds" && jar.second_look == null),
  };
}

/** What is known of one lid, in words. */
export function lidText(jar: Pick<Jar, "verdict" | "dosed" | "standing">): string {
  if (!jar.dosed) return "without its acid";
  const stops = jar.standing.against.map((stop) => stop.brief);
  if (stops.length > 0) return `not for the shelf: ${stops.join(", ")}`;
  return jar.verdict == null ? "not checked" : VERDICT[jar.verdict].toLowerCase();
}

/** What a load on the towel says first: what keeps its jars off the shelf, before anything about its lids. */
export function headline(
  load: Pick<Towel, "alarm" | "ways_out" | "jars" | "check_from" | "check_by" | "lifted_at">,
  now: number,
): { figure: string; unit?: string; words: string; bad?: boolean } {
  if (load.alarm != null) return { ...load.alarm, bad: true };
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
