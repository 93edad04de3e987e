import { useState } from "react";
import { Link } from "react-router";
import { api, take, type LiquidLost, type Towel, type Verdict } from "../../api/client";
import { useChange } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { Choice, optionsOf } from "../../parts/Choice";
import { batchesOf, sizesText } from "../../parts/batches";
import { contentText, VERDICT } from "../../writing/format";
import { Findings } from "../../parts/Findings";
import { Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { Questions } from "../../parts/Questions";
import { useUndosed } from "../../parts/useUndosed";
import { LidPicture } from "./LidPicture";
import { figureText, saidNow, sayingText } from "./model";
import { WaysOut } from "./WaysOut";
import { Dock } from "../../parts/Dock";
import { Sources } from "../../parts/Sources";

type Mark = Verdict | "undosed" | LiquidLost;
const MARKS = {
  ...VERDICT,
  undosed: "Without acid",
  some: `Lost ${WORDS.LiquidLost.some}`,
  half: `Lost ${WORDS.LiquidLost.half}`,
} satisfies Record<Mark, string>;
const ORDER: readonly Mark[] = ["holds", "failed", "broken", "doubtful", "undosed", "some", "half"];

/** One load on the towel: when to look, what was found, what is left to do. */
export function CoolingLoad({ load, now }: { load: Towel; now: number }) {
  const [mark, setMark] = useState<Mark>("holds");
  const say = useSay();
  const judge = useChange(
    (body: { jars: number[]; verdict: Verdict | null }) => take(api.PUT("/api/seals", { body })),
    (_, { jars, verdict: found }, again) => {
      if (found === "holds" && jars.length > 1)
        say(`${jars.length} lids hold`, () => again({ jars, verdict: null }));
    },
  );
  const tidy = useChange(
    (body: { jars: number[]; done: boolean }) => take(api.PUT("/api/rings", { body })),
    (_, { jars, done }, again) => done && say("Washed and dry", () => again({ jars, done: false })),
  );
  const undosed = useUndosed();
  const liquid = useChange(
    (body: { jars: number[]; lost: LiquidLost | null }) => take(api.PUT("/api/liquids", { body })),
    (_, { jars, lost }, again) => lost !== null && say(MARKS[lost], () => again({ jars, lost: null })),
  );
  const early = now < load.check_from;
  const { each, open, sealed, hold } = load.lids;
  const lid = new Map(each.map((one) => [one.jar, one]));
  const batches = batchesOf(load.jars);
  const untidy = load.jars.filter((jar) => sealed.includes(jar.id) && !jar.tidy);
  // No lid is said to hold over what stands against every jar of the load.
  const mayHold = each.some((one) => one.stop == null);
  const offered = mayHold ? ORDER : ORDER.filter((word) => word !== "holds");
  const marking = offered.includes(mark) ? mark : "failed";
  const press = (jar: Towel["jars"][number]) => {
    if (marking === "undosed") undosed.mutate({ jars: [jar.id], undosed: jar.dosed });
    else if (marking === "some" || marking === "half")
      liquid.mutate({ jars: [jar.id], lost: jar.liquid_lost === marking ? null : marking });
    else judge.mutate({ jars: [jar.id], verdict: jar.verdict === marking ? null : marking });
  };
  const said = saidNow(load.says, now);
  return (
    <Plate
      title={
        batches.length > 1
          ? `${batches.length} batches, ${sizesText(load.jars)}`
          : `${contentText({ product: load.product, named: load.jars[0]?.named ?? null })}, ${sizesText(load.jars)}`
      }
      aside={<span className="text-muted">Batch {batches.map((one) => one.name).join("; ")}</span>}
    >
      {said !== undefined && (
        <div className={said.bad ? "text-alarm" : ""}>
          <Answer value={figureText(said.figure)} unit={said.unit ?? undefined}>
            {sayingText(load.says, said, now)}
          </Answer>
        </div>
      )}
      <Sources of={["lids"]} />
      <div className="mt-3 grid gap-3 empty:hidden">
        {load.ways_out.map((way) => (
          <WaysOut
            key={way.jars.join(",")}
            way={way}
            batch={load.jars.find((jar) => jar.id === way.jars[0])?.batch ?? 0}
          />
        ))}
      </div>
      <div className="mt-4">
        <Choice
          label="Mark tapped jars as"
          value={marking}
          options={optionsOf(offered, MARKS)}
          onChoose={setMark}
        />
      </div>
      {batches.map((one) => (
        <section key={one.batch}>
          {batches.length > 1 && (
            <h3 className="mt-3 text-lg">
              {one.letter}: {one.name}, {sizesText(one.jars)}
            </h3>
          )}
          <ul className="mt-3 flex flex-wrap gap-2">
            {one.jars.map((jar) => (
              <li key={jar.id}>
                <button
                  type="button"
                  data-lid={jar.number}
                  aria-label={`Jar ${jar.number}${batches.length > 1 ? ` of ${jar.code}` : ""}, ${lid.get(jar.id)?.words ?? ""}`}
                  onClick={() => press(jar)}
                  className="rounded-2xl border-2 border-edge bg-enamel p-1.5 hover:border-cobalt"
                >
                  <LidPicture
                    verdict={jar.verdict ?? null}
                    stop={lid.get(jar.id)?.stop ?? null}
                    number={`${one.letter}${jar.number}`}
                  />
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
      <div className="mt-4 grid gap-3">
        {/* What stands against the jars is said above, with what can be done about it. */}
        <Findings
          items={load.judged.findings.filter((found) => found.severity !== "stop" || found.cannot_tell)}
        />
        <Questions items={load.judged.questions} load={load.load_id} />
        <Trouble error={judge.error ?? tidy.error ?? undosed.error ?? liquid.error} />
        {open.length === 0 && untidy.length > 0 && (
          <div data-main className="grid gap-3 sm:grid-cols-2">
            <Link
              to={`/labels?jars=${sealed.join(",")}`}
              className="inline-flex min-h-[72px] items-center justify-center rounded-2xl border-[3px] border-cobalt bg-porcelain px-6 text-xl font-semibold hover:bg-cobalt-wash"
            >
              Print {sealed.length} labels
            </Link>
            <Touch
              big
              look="done"
              onPress={() => tidy.mutate({ jars: untidy.map((jar) => jar.id), done: true })}
            >
              Rings off, washed, dry
            </Touch>
          </div>
        )}
      </div>
      {hold != null && (
        <Dock>
          <Touch
            big
            className="w-full"
            look={early ? "plain" : "done"}
            disabled={judge.isPending}
            onPress={() => judge.mutate({ jars: open, verdict: "holds" })}
          >
            {hold}
          </Touch>
        </Dock>
      )}
    </Plate>
  );
}
