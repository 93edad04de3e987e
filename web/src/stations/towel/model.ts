import type { Towel } from "../../api/client";
import { clockText, dayText, MINUTE, spanText } from "../../parts/format";

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

/** Jars of a load by what is to be done with them. */
export function sorted(jars: readonly Jar[]): { open: Jar[]; sealed: Jar[]; toDecide: Jar[] } {
  return {
    open: jars.filter((jar) => jar.verdict == null),
    sealed: jars.filter((jar) => jar.verdict === "holds"),
    toDecide: jars.filter(
      (jar) => (jar.verdict === "failed" || jar.verdict === "doubtful") && jar.rescue == null,
    ),
  };
}
