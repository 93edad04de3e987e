import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Compared, Units } from "../../api/client";
import { ask } from "../../queries/queries";
import { jarText, loadsText, spanText, volumeText, weightText } from "../../writing/format";
import { JarPicture } from "../../parts/JarPicture";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { LotPicker } from "./LotPicker";
import { PlanTabs } from "./PlanTabs";
import { nameOf, planPath } from "./model";
import { useWaiting } from "./useWaiting";
import { AltitudeHere } from "../../parts/AltitudeHere";

function Bar({ share, tone, of, text }: { share: number; tone: string; of: string; text: string }) {
  return (
    <div>
      <p className="leading-tight font-semibold">
        <span className="text-sm font-normal text-muted">{of}</span> {text}
      </p>
      <div className="mt-0.5 h-2 rounded-full bg-cloth">
        <div className={`h-full rounded-full ${tone}`} style={{ width: `${Math.min(1, share) * 100}%` }} />
      </div>
    </div>
  );
}

function Row({
  row,
  most,
  units,
  onOpen,
}: {
  row: Compared;
  most: { stove: number; hands: number; canner: number };
  units: Units;
  onOpen: () => void;
}) {
  return (
    <li className="grid grid-cols-2 items-center gap-x-4 gap-y-1 border-t-2 border-line py-0.5 lg:grid-cols-[2.2rem_12.8rem_8.4rem_1.3fr_0.8fr_1fr]">
      <span className="hidden h-11 w-9 lg:block">
        <JarPicture size={row.jar} product={row.product} acid filled lid />
      </span>
      <p className="leading-tight">
        <Link
          to={planPath(row)}
          onClick={onOpen}
          className="inline-flex min-h-[44px] items-center font-semibold text-link underline underline-offset-4"
        >
          {nameOf(row)}
        </Link>
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
        of="stove"
        text={
          row.boiled_away_l > 0
            ? `${spanText(Math.round(row.stove_hours * 60))}, ${volumeText(row.boiled_away_l, units)} boil away`
            : spanText(Math.round(row.stove_hours * 60))
        }
      />
      <Bar
        share={row.hands_minutes / most.hands}
        tone="bg-brass"
        of="hands"
        text={spanText(row.hands_minutes)}
      />
      <div>
        <Bar
          share={row.canner_minutes / most.canner}
          tone="bg-cobalt"
          of="canner"
          text={`${loadsText(row.loads)}, ${spanText(row.canner_minutes)}`}
        />
        {row.refused != null && <p className="mt-0.5 text-sm font-semibold text-alarm">✕ {row.refused}</p>}
        {row.missing.length > 0 && (
          <p className="mt-0.5 text-sm font-semibold text-alarm">✕ {row.missing.join(", ")} missing</p>
        )}
      </div>
    </li>
  );
}

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
      <Plate title="The same fruit, every way">
        <Trouble error={chosen.length > 0 ? compared.error : null} />
        <AltitudeHere />
        <ul>
          {rows.map((row) => (
            <Row key={nameOf(row)} row={row} most={most} units={units} onOpen={() => setChosen(chosen)} />
          ))}
        </ul>
      </Plate>
    </div>
  );
}
