import type { Added, JarSize, Judged, PlanAnswer as Plan, PlanRequest, Units } from "../../api/client";
import { AGENT, altitudeText, headspaceText, jarText, loadsText, spanText } from "../../writing/format";
import { Findings } from "../../parts/Findings";
import { Note } from "../../parts/Note";
import { Questions } from "../../parts/Questions";
import { Answer } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { SourceText, Why } from "../../parts/Why";
import { yieldText } from "./model";
import { LoadPictures } from "./LoadPictures";
import { MixSteps, Rest } from "./PlanJars";
import { AcidTotals, Methods } from "./PlanWhys";
import { Dock } from "../../parts/Dock";
import { Sources } from "../../parts/Sources";

function Figure({ value, words }: { value: string; words: string }) {
  return (
    <div className="min-w-0">
      <p className="font-slab text-[1.9rem] leading-tight font-bold">{value}</p>
      <p className="text-muted">{words}</p>
    </div>
  );
}

/** A plan that can be carried out: jars, acid, minutes, loads. */
export function Worked({
  plan,
  judged,
  request,
  altitude,
  units,
  accepting,
  onJars,
  onRest,
  onAccept,
  onContents,
}: {
  plan: Plan;
  judged: Judged | null;
  request: PlanRequest;
  altitude: number;
  units: Units;
  accepting: boolean;
  onJars: (jars: { jar: JarSize; count: number }[]) => void;
  onRest: (rest: NonNullable<PlanRequest["rest"]>) => void;
  onAccept: () => void;
  onContents: (additions: Added[]) => void;
}) {
  const first = plan.lines[0];
  const jars = plan.lines.reduce((sum, line) => sum + line.count, 0);
  const longest = plan.loads[0]?.minutes ?? 0;
  const added = first === undefined ? 0 : (first.options[0]?.minutes ?? 0) - first.sea_level_minutes;
  const { low, expected, high } = plan.full_jars;
  const findings = judged?.findings ?? [];
  // A caution that the judge has raised already is said once.
  const cautions = [...new Set(plan.lines.flatMap((line) => line.cautions))].filter(
    (caution) => !findings.some((finding) => finding.message === caution),
  );
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div className="min-w-0 flex-1 basis-60">
          <Answer value={expected} unit={jarText(request.jar, expected)}>
            expect {low} to {high}, {yieldText(plan.yields, units)}
          </Answer>
        </div>
        <LoadPictures loads={plan.loads} />
      </div>
      <div className="grid grid-cols-2 gap-4 border-y-2 border-line py-3 sm:grid-cols-3">
        <Figure
          value={`${longest} min`}
          words={
            added > 0
              ? `at ${altitudeText(altitude)}, ${added} more than at sea level`
              : `at ${altitudeText(altitude)}`
          }
        />
        <Figure
          value={first?.acid ?? ""}
          words={`(${first?.acid_volume ?? ""}) ${AGENT[request.agent]} per ${jarText(request.jar)}, ${plan.acid_total} in all`}
        />
        <Figure
          value={loadsText(plan.loads.length)}
          words={`${spanText(plan.canner_minutes)} of canner, ${headspaceText(plan.headspace_in, units)} headspace`}
        />
      </div>
      {plan.loads.length > 1 && (
        <p className="text-muted">
          {plan.why}
          {plan.shortest && " No grouping takes less."}
        </p>
      )}
      {request.salt === true && (
        <p className="text-muted">
          Salt for taste: {plan.lines.map((line) => `${line.salt} per ${jarText(line.jar)}`).join(", ")}.
        </p>
      )}
      <MixSteps plan={plan} onJars={onJars} />
      <Findings items={findings} />
      <Questions items={judged?.questions ?? []} onContents={onContents} />
      {plan.missing.length > 0 && (
        <Note tone="warn">The cupboard lacks {[...new Set(plan.missing)].join(", ")} for this.</Note>
      )}
      {cautions.map((caution) => (
        <Note key={caution} tone="warn">
          {caution}
        </Note>
      ))}
      <div className="flex flex-wrap items-center gap-4">
        <AcidTotals request={request} plan={plan} />
        <Methods plan={plan} />
        <Sources
          of={[
            "dose",
            "headspace",
            "yields",
            "turnaround",
            ...(request.product === "paste" ? (["paste"] as const) : []),
          ]}
        />
        <Why label={`Why ${longest} minutes`}>
          <p className="mb-2">
            Water boils cooler the higher you are, so the tested time rises with altitude. It also depends on
            the pack, what the fruit lies in, and the jar. Change one and this time no longer holds.
          </p>
          {first !== undefined && <SourceText source={first.source} />}
          <p className="mt-2 text-muted">
            Your local extension office or food authority comes before Bodega.
          </p>
        </Why>
      </div>
      <Rest plan={plan} units={units} rest={request.rest} onRest={onRest} />
      <Dock>
        <Touch big look="main" disabled={jars === 0 || accepting} onPress={onAccept} className="w-full">
          Set out {jars} {jars === 1 ? "jar" : "jars"}
        </Touch>
      </Dock>
    </div>
  );
}
