import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Towel } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { useKitchenNow } from "../../counter/clock";
import { useSay } from "../../counter/notices";
import { Choice } from "../../parts/Choice";
import { clockText, dayText, jarText, PRODUCT, spanText } from "../../parts/format";
import { Findings } from "../../parts/Findings";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

type Verdict = "holds" | "failed";

function LidPicture({ holds, number }: { holds: boolean | null | undefined; number: number }) {
  const rim = holds === true ? "#2f7140" : holds === false ? "#97220f" : "#16213f";
  return (
    <svg viewBox="0 0 64 64" className="size-14" aria-hidden="true">
      <circle cx="32" cy="32" r="28" fill="#bd9138" stroke={rim} strokeWidth="4" />
      <circle cx="32" cy="32" r="20" fill="#ecd08a" stroke="#a87d2a" strokeWidth="1.5" />
      <text x="32" y="39" textAnchor="middle" fontSize="19" fontWeight="700" fill="#16213f">
        {holds === true ? "✓" : holds === false ? "✕" : number}
      </text>
    </svg>
  );
}

function CoolingLoad({ load, now }: { load: Towel; now: number }) {
  const [verdict, setVerdict] = useState<Verdict>("holds");
  const say = useSay();
  const judge = useChange(
    (body: { jars: number[]; holds: boolean | null }) => take(api.PUT("/api/seals", { body })),
    (_, { jars, holds }) => {
      if (holds === true && jars.length > 1) {
        say(`${jars.length} lids hold`, () => judge.mutate({ jars, holds: null }));
      }
    },
  );
  const early = now < load.check_from;
  const failed = load.jars.filter((jar) => jar.holds === false).length;
  const open = load.jars.filter((jar) => jar.holds == null);
  const minutes = Math.ceil((load.check_from - now) / 60_000);
  const size = load.jars[0]?.size ?? "quart";
  return (
    <Plate
      title={`${PRODUCT[load.product]}, ${load.jars.length} ${jarText(size, load.jars.length)}`}
      aside={<span className="text-muted">Batch {load.code}</span>}
    >
      <Answer
        value={early ? clockText(load.check_from) : "Check now"}
        unit={early ? "check the lids" : undefined}
      >
        {early
          ? `Leave them alone for ${spanText(minutes)} more. Lifted at ${clockText(load.lifted_at)}.`
          : `Ring off, press the middle, lift by the lid's edge. A failed jar can be done again until ${clockText(load.check_by)} on ${dayText(load.check_by)}.`}
      </Answer>
      <div className="mt-4">
        <Choice
          label="A touch on a jar says"
          value={verdict}
          options={[
            { value: "holds", text: "Lid holds" },
            { value: "failed", text: "Lid failed" },
          ]}
          onChoose={setVerdict}
        />
      </div>
      <ul className="mt-3 flex flex-wrap gap-2">
        {load.jars.map((jar) => (
          <li key={jar.id}>
            <button
              type="button"
              data-lid={jar.number}
              aria-label={`Jar ${jar.number}, ${jar.holds == null ? "not checked" : jar.holds ? "lid holds" : "lid failed"}`}
              onClick={() => {
                const wanted = verdict === "holds";
                judge.mutate({ jars: [jar.id], holds: jar.holds === wanted ? null : wanted });
              }}
              className="rounded-2xl border-2 border-line bg-white p-1.5 hover:border-cobalt"
            >
              <LidPicture holds={jar.holds} number={jar.number} />
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-4 grid gap-3">
        <Findings items={load.findings} />
        {failed > 0 && (
          <Note tone="stop">
            {failed === 1 ? "One lid failed" : `${failed} lids failed`}. Before {clockText(load.check_by)}:
            check the rim, new lid, full time again. Or refrigerate and eat within days, or freeze with 1½ in
            headspace.
          </Note>
        )}
        <Trouble error={judge.error} />
        {open.length > 0 && load.processed && (
          <Touch
            big
            look={early ? "plain" : "done"}
            disabled={judge.isPending}
            onPress={() => judge.mutate({ jars: open.map((jar) => jar.id), holds: true })}
          >
            All {open.length} hold
          </Touch>
        )}
      </div>
    </Plate>
  );
}

export function TowelStation() {
  const { data: towel } = useQuery(ask.towel());
  const now = useKitchenNow();
  if (towel === undefined) return null;
  if (towel.length === 0) {
    return (
      <Plate title="The towel is clear">
        <p className="text-lg text-muted">No jars are cooling.</p>
      </Plate>
    );
  }
  return (
    <div className="grid gap-3 lg:grid-cols-2">
      {towel.map((load) => (
        <CoolingLoad key={load.load_id} load={load} now={now} />
      ))}
    </div>
  );
}
