import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, take, type LoadView } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { AGENT, batchText, headspaceText, jarText } from "../../parts/format";
import { Findings } from "../../parts/Findings";
import { JarPicture } from "../../parts/JarPicture";
import { useKeys } from "../../parts/keys";
import { Note, Trouble } from "../../parts/Note";
import { Answer, Plate } from "../../parts/Plate";
import { Stepper } from "../../parts/Stepper";
import { Touch } from "../../parts/Touch";

type Step = "acid" | "filled";
type Jar = LoadView["jars"][number];

/** One touch does the next thing; touching a finished jar takes the last thing back. */
function nextStep(jar: Jar): { step: Step; done: boolean } {
  if (!jar.acid) return { step: "acid", done: true };
  return jar.filled ? { step: "filled", done: false } : { step: "filled", done: true };
}

const SAYS = (jar: Jar) => (jar.filled ? "filled" : jar.acid ? "acid in" : "needs acid");

function Bench({ load }: { load: LoadView }) {
  const { data: counter } = useQuery(ask.counter());
  const go = useNavigate();
  const tick = useChange(({ id, step, done }: { id: number; step: Step; done: boolean }) =>
    take(api.POST("/api/jars/{id}/steps", { params: { path: { id } }, body: { step, done } })),
  );
  const all = useChange((step: Step) =>
    take(api.POST("/api/loads/{id}/steps", { params: { path: { id: load.id } }, body: { step } })),
  );
  const recount = useChange(
    ({ jar, count: next }: { jar: LoadView["jars"][number]["size"]; count: number }) =>
      take(
        api.POST("/api/loads/{id}/recount", {
          params: { path: { id: load.id } },
          body: { jar, count: next },
        }),
      ),
  );
  const acid = load.jars.filter((jar) => jar.acid).length;
  const filled = load.jars.filter((jar) => jar.filled).length;
  const count = load.jars.length;
  useKeys({
    a: () => all.mutate("acid"),
    f: () => acid === count && all.mutate("filled"),
    ...Object.fromEntries(
      load.jars
        .slice(0, 9)
        .map((jar, i) => [String(i + 1), () => tick.mutate({ id: jar.id, ...nextStep(jar) })]),
    ),
  });
  const dose = load.doses[0];
  if (dose === undefined || counter === undefined) return null;
  const units = counter.kitchen.units;
  return (
    <div className="grid gap-3">
      <Plate
        title={`Load ${load.position} of ${load.of}: ${batchText(load.batch)}`}
        aside={<span className="text-muted">Batch {load.batch.code}</span>}
      >
        <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
          <Answer value={dose.acid} unit={`${AGENT[load.batch.agent]} in each ${jarText(dose.jar)}`}>
            {load.doses.slice(1).map((other) => `${other.acid} in each ${jarText(other.jar)}. `)}
            {dose.salt != null && `Salt ${dose.salt}. `}
            Acid first, then food to {headspaceText(load.headspace_in, units)} under the rim, bubbles out, rim
            wiped, lid on.
          </Answer>
          <div className="flex flex-wrap gap-4">
            {load.doses.map((line) => {
              const have = load.jars.filter((jar) => jar.size === line.jar).length;
              return (
                <Stepper
                  key={line.jar}
                  label={`The pot gave ${jarText(line.jar, 2)}`}
                  text={String(have)}
                  onLess={have > 1 ? () => recount.mutate({ jar: line.jar, count: have - 1 }) : undefined}
                  onMore={() => recount.mutate({ jar: line.jar, count: have + 1 })}
                />
              );
            })}
          </div>
        </div>
        <ul className="mt-4 grid grid-cols-4 gap-2 sm:flex sm:flex-wrap sm:gap-3">
          {load.jars.map((jar) => (
            <li key={jar.id} className="sm:max-w-[158px] sm:min-w-[104px] sm:flex-1">
              <button
                type="button"
                data-jar={jar.number}
                data-state={SAYS(jar)}
                aria-label={`Jar ${jar.number}, ${SAYS(jar)}`}
                onClick={() => tick.mutate({ id: jar.id, ...nextStep(jar) })}
                className="w-full rounded-2xl border-2 border-line bg-white p-1 pb-2 text-center hover:border-cobalt"
              >
                <span className="mx-auto block h-[112px] w-full sm:h-[150px]">
                  <JarPicture
                    size={jar.size}
                    product={load.batch.product}
                    acid={jar.acid}
                    filled={jar.filled}
                    number={jar.number}
                  />
                </span>
                <span
                  className={`block text-sm font-semibold ${jar.filled ? "text-vine" : jar.acid ? "text-ink" : "text-tomato-deep"}`}
                >
                  {jar.filled ? "✓ filled" : jar.acid ? "acid in" : "needs acid"}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <div className="mt-5 grid gap-3 sm:grid-cols-3">
          <Touch
            big
            look={acid < count ? "main" : "plain"}
            shortcut="A"
            disabled={acid === count}
            onPress={() => all.mutate("acid")}
          >
            {acid === count ? `Acid in all ${count}` : "All acid in"}
          </Touch>
          <Touch
            big
            look={acid === count && filled < count ? "main" : "plain"}
            shortcut="F"
            disabled={acid < count || filled === count}
            onPress={() => all.mutate("filled")}
          >
            {filled === count ? `All ${count} filled` : "All filled"}
          </Touch>
          <Touch
            big
            look={filled === count ? "done" : "plain"}
            disabled={filled < count}
            onPress={() => void go("/canner")}
          >
            To the canner
          </Touch>
        </div>
        <div className="mt-4 grid gap-3">
          <Trouble error={tick.error ?? all.error ?? recount.error} />
          <Findings items={load.findings} />
          {acid < count && (
            <Note tone="warn">
              {acid} of {count} jars have their acid. A jar is filled only after its acid is in.
            </Note>
          )}
        </div>
      </Plate>
    </div>
  );
}

export function JarsStation() {
  const { data: loads } = useQuery(ask.loads());
  if (loads === undefined) return null;
  const load = loads.find((item) => item.now.phase === "waiting");
  if (load === undefined) {
    return (
      <Plate title="The bench is clear">
        <p className="text-lg text-muted">No jars are to be filled. Plan a batch and its jars stand here.</p>
      </Plate>
    );
  }
  return <Bench key={load.id} load={load} />;
}
