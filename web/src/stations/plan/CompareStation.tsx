import { useQuery } from "@tanstack/react-query";
import type { Compared, Units } from "../../api/client";
import { ask } from "../../api/queries";
import { batchText, jarText, spanText, volumeText, weightText } from "../../parts/format";
import { JarPicture } from "../../parts/JarPicture";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { LotPicker } from "./LotPicker";
import { PlanTabs } from "./PlanTabs";
import { useWaiting } from "./useWaiting";

function Bar({ share, tone, text }: { share: number; tone: string; text: string }) {
  return (
    <div>
      <p className="leading-tight font-semibold">{text}</p>
      <div className="mt-0.5 h-2 rounded-full bg-cloth">
        <div className={`h-full rounded-full ${tone}`} style={{ width: `${Math.min(1, share) * 100}%` }} />
      </div>
    </div>
  );
}

function nameOf(row: Compared): string {
  const name = batchText(row);
  const thick = row.thickness ? `${row.thickness} ` : "";
  return thick === ""
    ? name.charAt(0).toUpperCase() + name.slice(1)
    : thick.charAt(0).toUpperCase() + thick.slice(1) + name;
}

function Row({
  row,
  most,
  units,
}: {
  row: Compared;
  most: { stove: number; hands: number; canner: number };
  units: Units;
}) {
  return (
    <li className="grid grid-cols-2 items-center gap-x-4 gap-y-1 border-t-2 border-line py-0.5 sm:grid-cols-[2.2rem_12.8rem_8.4rem_1.3fr_0.8fr_1fr]">
      <span className="hidden h-11 w-9 sm:block">
        <JarPicture size={row.jar} product={row.product} acid filled lid />
      </span>
      <p className="leading-tight">
        <strong>{nameOf(row)}</strong>
        <span className="block text-sm text-muted">
          {weightText(row.weight_per_jar_g, units)} a jar, acid {row.acid}
        </span>
      </p>
      <p className="leading-tight">
        <strong className="font-slab text-2xl">{row.jars.expected}</strong>{" "}
        {jarText(row.jar, row.jars.expected)}
        <span className="block text-sm text-muted">
          {row.jars.low} to {row.jars.high}
        </span>
      </p>
      <Bar
        share={row.stove_hours / most.stove}
        tone="bg-tomato"
        text={
          row.boiled_away_l > 0
            ? `${spanText(Math.round(row.stove_hours * 60))}, ${volumeText(row.boiled_away_l, units)} boil away`
            : spanText(Math.round(row.stove_hours * 60))
        }
      />
      <Bar share={row.hands_minutes / most.hands} tone="bg-brass" text={spanText(row.hands_minutes)} />
      <div>
        <Bar
          share={row.canner_minutes / most.canner}
          tone="bg-cobalt"
          text={`${row.loads} ${row.loads === 1 ? "load" : "loads"}, ${spanText(row.canner_minutes)}`}
        />
        {row.missing.length > 0 && (
          <p className="mt-0.5 text-sm font-semibold text-alarm">✕ {row.missing.join(", ")} missing</p>
        )}
      </div>
    </li>
  );
}

const LEGEND = [
  { tone: "bg-tomato", text: "one burner" },
  { tone: "bg-brass", text: "hands" },
  { tone: "bg-cobalt", text: "canner" },
] as const;

/** Every product of the same fruit at once. */
export function CompareStation() {
  const { ready, chosen, setChosen } = useWaiting();
  const { data: counter } = useQuery(ask.counter());
  const compared = useQuery(ask.compare(chosen ?? []));
  if (ready === undefined || chosen === undefined || counter === undefined)
    return <Pending of={[ask.lots(), ask.counter()]} />;
  const units = counter.kitchen.units;
  const rows = chosen.length > 0 ? (compared.data ?? []) : [];
  const most = {
    stove: Math.max(0.1, ...rows.map((row) => row.stove_hours)),
    hands: Math.max(1, ...rows.map((row) => row.hands_minutes)),
    canner: Math.max(1, ...rows.map((row) => row.canner_minutes)),
  };
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <PlanTabs />
        <LotPicker lots={ready} chosen={chosen} units={units} onChoose={setChosen} />
      </div>
      <Plate
        title="The same fruit, every way"
        aside={
          <span className="flex gap-5 text-sm font-semibold text-muted">
            {LEGEND.map(({ tone, text }) => (
              <span key={text}>
                <b className={`mr-1.5 inline-block size-3 rounded-full ${tone}`} />
                {text}
              </span>
            ))}
          </span>
        }
      >
        <Trouble error={chosen.length > 0 ? compared.error : null} />
        <ul>
          {rows.map((row) => (
            <Row key={nameOf(row)} row={row} most={most} units={units} />
          ))}
        </ul>
      </Plate>
    </div>
  );
}
