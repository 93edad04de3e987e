import { useState } from "react";
import { Link } from "react-router";
import { api, take, type Discard, type Rescue, type Towel } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { wordsText } from "../../parts/said";
import { RESCUE } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";

type Way = Towel["ways_out"][number];

/** It never came to the shelf: its sisters there are not looked at because of it. */
const DISCARD_WHY: Discard = "too_late";

/** What to do with jars that are not processed or whose lids failed; one touch decides. */
export function WaysOut({ way, batch }: { way: Way; batch: number }) {
  const say = useSay();
  const [cold, setCold] = useState<boolean | null>(null);
  const rescue = useChange(
    (to: Rescue | null) =>
      take(api.PUT("/api/rescues", { body: { jars: way.jars, rescue: to, kept_cold: cold } })),
    (_, to, again) => to !== null && say(RESCUE[to], () => again(null)),
  );
  const discard = useChange(
    (why: Discard | null) => take(api.PUT("/api/discards", { body: { jars: way.jars, why } })),
    (_, why, again) => why !== null && say("Discarded", () => again(null)),
  );
  const [first, ...others] = way.ways;
  const together = way.wrong !== "lid";
  const mayEat = !way.asks_cold || cold === true;
  return (
    <Note tone="stop">
      <p className={together ? "text-lg font-semibold" : ""}>{wordsText(way)}</p>
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
              {first === "reprocess" ? way.again : RESCUE[first]}
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
          onPress={() => discard.mutate(DISCARD_WHY)}
        >
          Discard, untasted
        </Touch>
        {way.correctable && (
          <Link
            to={`/batches/${batch}/record#said`}
            className="inline-flex min-h-[48px] items-center px-2 font-semibold text-link underline underline-offset-4"
          >
            It was said by mistake
          </Link>
        )}
      </div>
      <Trouble error={rescue.error ?? discard.error} />
    </Note>
  );
}
