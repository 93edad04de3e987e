import { take, api, type JarSize, type LoadView, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import { capital, contentText, headspaceText, jarText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Answer } from "../../parts/Plate";
import { CountField } from "../../parts/CountField";
import { foodText, intoEach, jarsText, toAdd } from "./model";

type Dose = LoadView["doses"][number];

function Count({ dose, onSet }: { dose: Dose; onSet: (count: number) => void }) {
  return (
    <CountField
      label={`${capital(jarText(dose.jar, 2))} from the pot`}
      count={dose.count}
      bound="RecountRequest.count"
      onSet={onSet}
    />
  );
}

/** What goes into one kind of jar, when there are several kinds on the bench. */
function DoseCard({
  dose,
  load,
  units,
  onSet,
}: {
  dose: Dose;
  load: LoadView;
  units: Units;
  onSet: (count: number) => void;
}) {
  const numbers = load.jars
    .filter((jar) => jar.batch === dose.batch && jar.size === dose.jar)
    .map((jar) => jar.number);
  return (
    <li className="rounded-2xl border-2 border-edge bg-enamel px-4 py-3">
      <p className="flex flex-wrap items-baseline gap-x-3 leading-none">
        <span className="font-slab text-[3.4rem] font-bold tracking-tight" data-testid="answer">
          {toAdd(dose)}
        </span>
        <span className="text-xl font-semibold text-muted">{intoEach(dose)}</span>
      </p>
      <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-2 sm:flex-nowrap">
        <p className="mt-1 text-lg">
          <strong>
            {jarsText(numbers)} of {dose.code}
          </strong>
          , {contentText(dose)}
          <span className="block text-muted">
            Food to {headspaceText(dose.headspace_in, units)} under the rim
            {dose.salt != null && `, salt ${dose.salt}`}
          </span>
        </p>
        <Count dose={dose} onSet={onSet} />
      </div>
    </li>
  );
}

/** The acid of every jar on the bench in figures that read from two metres, and what the pot gave. */
export function Doses({ load, units }: { load: LoadView; units: Units }) {
  const recount = useChange((body: { batch: number; jar: JarSize; count: number }) =>
    take(api.PUT("/api/loads/{id}/jars", { params: { path: { id: load.id } }, body })),
  );
  const set = (dose: Dose) => (count: number) => recount.mutate({ batch: dose.batch, jar: dose.jar, count });
  const [first, ...others] = load.doses;
  if (first === undefined) return null;
  return (
    <>
      {others.length === 0 ? (
        <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
          <div className="max-w-[820px]">
            <Answer value={toAdd(first)} unit={intoEach(first)}>
              {first.salt != null && `Salt ${first.salt}. `}
              {first.acid == null ? "Fill with" : "Acid first, then"} {foodText(load, first.batch)} to{" "}
              {headspaceText(first.headspace_in, units)} under the rim, bubbles out, rim wiped, lid on.
            </Answer>
          </div>
          <Count dose={first} onSet={set(first)} />
        </div>
      ) : (
        <>
          <ul className="grid gap-2 lg:grid-cols-2">
            {load.doses.map((dose) => (
              <DoseCard
                key={`${dose.batch} ${dose.jar}`}
                dose={dose}
                load={load}
                units={units}
                onSet={set(dose)}
              />
            ))}
          </ul>
          <p className="mt-2 text-lg text-muted">
            {load.doses.every((dose) => dose.acid == null)
              ? "Food to its headspace, hot packs boiling hot, bubbles out, rim wiped, lid on."
              : "Acid first, then food, hot packs boiling hot, bubbles out, rim wiped, lid on. Each jar says its own dose."}
          </p>
        </>
      )}
      <Trouble error={recount.error} />
    </>
  );
}
