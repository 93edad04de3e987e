import { useQuery } from "@tanstack/react-query";
import type { Almanac } from "../../api/client";
import { ask } from "../../queries/queries";
import { AGENT, altitudeText, headspaceText, jarText, PRODUCT } from "../../writing/format";
import { Note } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { Sources } from "../../parts/Sources";
import { Touch } from "../../parts/Touch";
import { AltitudePicture } from "./AltitudePicture";
import { PressureTables } from "./PressureTables";
import { numberText, waysNow } from "../../writing/ways";
import { WaterTable } from "./WaterTable";
import { WhyPictures } from "./WhyPictures";
import { AltitudeHere } from "../../parts/AltitudeHere";

function AcidTable({ almanac }: { almanac: Almanac }) {
  const jars = almanac.acid[0]?.doses.map((dose) => dose.jar) ?? [];
  return (
    <table className="w-full border-collapse">
      <thead>
        <tr className="text-left text-sm text-muted">
          <th className="py-1 font-semibold">In every jar</th>
          {jars.map((jar) => (
            <th key={jar} className="py-1 text-right font-semibold">
              {jarText(jar)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {almanac.acid.map((row) => (
          <tr key={row.agent} className="border-t-2 border-line">
            <th className="py-1.5 text-left font-semibold">{AGENT[row.agent]}</th>
            {row.doses.map((dose) => (
              <td key={dose.jar} className="py-1.5 text-right font-slab text-lg font-bold whitespace-nowrap">
                {dose.label}
                <span className="block font-plain text-xs font-normal whitespace-normal text-muted">
                  {dose.volume}
                </span>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The rule book: the kitchen's own column lit, why it is so, and where it comes from. */
export function AlmanacStation() {
  const { data: almanac } = useQuery(ask.almanac());
  const { data: counter } = useQuery(ask.counter());
  if (almanac === undefined || counter === undefined) return <Pending of={[ask.almanac(), ask.counter()]} />;
  const units = counter.kitchen.units;
  const isHot = waysNow().heat === "fahrenheit";
  const boils = isHot ? almanac.boils_at_f : almanac.boils_at_c;
  return (
    <div className="grid gap-3 print:gap-2">
      <Plate
        title={almanac.altitude_ft == null ? "Altitude not known" : `At ${altitudeText(almanac.altitude_ft)}`}
        aside={
          <span className="print:hidden">
            <Touch onPress={() => window.print()}>Print for the wall</Touch>
          </span>
        }
      >
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[19rem_1fr] print:grid-cols-[17rem_1fr]">
          <div className="grid content-start gap-4">
            <Answer
              value={boils == null ? "?" : numberText(boils, 1)}
              unit={`${isHot ? "°F" : "°C"}, water boils`}
            >
              {almanac.boils_beside_the_sea}
            </Answer>
            {almanac.altitude_ft != null && (
              <div className="max-sm:hidden">
                <AltitudePicture feet={almanac.altitude_ft} />
              </div>
            )}
            {almanac.bands[0]?.here === true && (
              <p className="font-semibold">In this column nothing is added for the height.</p>
            )}
            <p className="leading-snug text-muted">
              Minutes count from the full rolling boil. If the boil is lost, the whole time starts again. Then
              heat off, lid off, 5 minutes of rest.
            </p>
          </div>
          <div className="grid min-w-0 content-start gap-3 overflow-x-auto">
            {almanac.no_column != null && <Note tone="stop">{almanac.no_column}</Note>}
            <AltitudeHere />
            <WaterTable almanac={almanac} />
          </div>
        </div>
      </Plate>
      <div className="grid gap-3 lg:grid-cols-2 print:grid-cols-2 print:gap-2">
        <Plate title="Acid, always, under pressure too">
          <AcidTable almanac={almanac} />
          <p className="mt-3 text-muted">
            Headspace:{" "}
            {almanac.headspace
              .map((row) => `${PRODUCT[row.product].toLowerCase()} ${headspaceText(row.inches, units)}`)
              .join(", ")}
            .
          </p>
        </Plate>
        <Plate title="Under pressure">
          <PressureTables tables={almanac.pressure} />
        </Plate>
      </div>
      <Plate title="Why">
        <WhyPictures />
        <div className="mt-3">
          <Sources
            of={[
              "sterilising",
              "simmering",
              "dose",
              "headspace",
              "minutes",
              "recipe_minutes",
              "pressure",
              "venting",
              "rest",
              "lids",
              "paste",
            ]}
          />
        </div>
        <div className="mt-4 grid gap-3">
          <Note tone="stop">
            Botulism is rare and can kill; it cannot be seen, smelled or tasted. Use tested processes only:
            change the pack, the jar or the acid and the time no longer holds. No tested process for
            half-gallons. Steam and boiling water burn: open lids away from you. Selling home-canned food is
            regulated.
          </Note>
          <p className="text-sm leading-snug text-muted">
            Your local extension office or food authority comes before this page. Steam without pressure: the
            boiling-water time, only while it is 45 minutes or less. Sources:{" "}
            {almanac.sources
              .map((source) => source.title + (source.from_memory ? ", from memory" : ""))
              .join("; ")}
            .
          </p>
        </div>
      </Plate>
    </div>
  );
}
