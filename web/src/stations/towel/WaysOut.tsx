import { useState } from "react";
import { api, take, type Discard, type Rescue, type Towel } from "../../api/client";
import { useChange } from "../../api/queries";
import { useSay } from "../../counter/notices";
import { clockText, RESCUE } from "../../parts/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";

type Way = Towel["ways_out"][number];

const AGAIN: Record<Way["wrong"], string> = {
  unprocessed: "Boil them again",
  undosed: "Back to the bench for the dose",
  lid: RESCUE.reprocess,
};

/** It never came to the shelf: its sisters there are not looked at because of it. */
const DISCARD_WHY: Discard = "too_late";

/** What to do with jars that are not processed or whose lids failed; one touch decides. */
export function WaysOut({ way }: { way: Way }) {
  const say = useSay();
  const [cold, setCold] = useState<boolean | null>(null);
  const rescue = useChange(
    (to: Rescue | null) =>
      take(api.PUT("/api/rescues", { body: { jars: way.jars, rescue: to, kept_cold: cold } })),
    (_, to, again) => to !== null && say(RESCUE[to], () => again(null)),
  );
  const discard = useChange(async () => {
    for (const jar of way.jars)
      await take(api.POST("/api/departures", { body: { jar, how: "discarded", why: DISCARD_WHY } }));
  });
  const [first, ...others] = way.ways;
  const together = way.wrong !== "lid";
  const mayEat = !way.asks_cold || cold === true;
  return (
    <Note tone="stop">
      <p className={together ? "text-lg font-semibold" : ""}>
        {way.at == null ? way.words : way.words.replace("{at}", clockText(way.at))}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {way.asks_cold && cold === null && (
          <>
            <Touch onPress={() => setCold(true)}>Yes, kept cold</Touch>
            <Touch onPress={() => setCold(false)}>No, or not sure</Touch>
          </>
        )}
        {mayEat && first !== undefined && (
          <>
            <Touch
              look="main"
              big={together}
              disabled={rescue.isPending}
              onPress={() => rescue.mutate(first)}
            >
              {first === "reprocess" ? AGAIN[way.wrong] : RESCUE[first]}
            </Touch>
            {others.map((to) => (
              <Touch key={to} disabled={rescue.isPending} onPress={() => rescue.mutate(to)}>
                {RESCUE[to]}
              </Touch>
            ))}
          </>
        )}
        <Touch
          look={cold === false ? "main" : "plain"}
          disabled={discard.isPending}
          onPress={() => discard.mutate(undefined)}
        >
          Discard, untasted
        </Touch>
      </div>
      <Trouble error={rescue.error ?? discard.error} />
    </Note>
  );
}
