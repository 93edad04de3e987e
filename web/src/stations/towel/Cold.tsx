import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { clockText, contentText, dayText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

/** Jars that did not seal and wait in the cold to be eaten. */
export function Cold({ now }: { now: number }) {
  const { data: cold } = useQuery(ask.cold());
  const say = useSay();
  const back = useChange((id: number) =>
    take(api.DELETE("/api/jars/{id}/departure", { params: { path: { id } } })),
  );
  const eat = useChange(
    (jar: number) => take(api.POST("/api/departures", { body: { jar, how: "eaten" } })),
    (_, jar) => say("Eaten", () => back.mutate(jar)),
  );
  const again = useChange((jar: number) =>
    take(api.PUT("/api/rescues", { body: { jars: [jar], rescue: "reprocess", kept_cold: true } })),
  );
  if (cold === undefined || cold.jars.length === 0) return null;
  return (
    <Plate title="Kept cold, not sealed">
      <ul className="grid gap-2">
        {cold.jars.map((jar) => (
          <li key={jar.id} className="flex flex-wrap items-center justify-between gap-3">
            <span className="text-lg">
              {contentText(jar)}, jar {jar.number} of {jar.code}:{" "}
              {jar.until == null ? (
                "in the freezer, 1½ in headspace"
              ) : (
                <strong className={jar.until < now ? "text-alarm" : ""}>eat by {dayText(jar.until)}</strong>
              )}
            </span>
            <span className="flex flex-wrap gap-2">
              {jar.again_until != null && (
                <Touch onPress={() => again.mutate(jar.id)}>
                  Process it again, until {clockText(jar.again_until)}
                </Touch>
              )}
              <Touch onPress={() => eat.mutate(jar.id)}>Eaten</Touch>
            </span>
          </li>
        ))}
      </ul>
      <Trouble error={eat.error ?? back.error ?? again.error} />
    </Plate>
  );
}
