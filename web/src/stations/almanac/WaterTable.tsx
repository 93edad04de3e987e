import { Fragment } from "react";
import type { Almanac } from "../../api/client";
import { jarText, MEDIUM, PRODUCT } from "../../writing/format";

type Line = Almanac["water"][number];

interface Row {
  key: string;
  name: string;
  jars: Line[];
}

const order = (lines: Line[]) =>
  lines[0] === undefined ? 0 : Object.keys(PRODUCT).indexOf(lines[0].product);

/** Packs with the same times share a row: "Whole in water, hot or raw". */
function rowsOf(lines: Line[]): Row[] {
  const rows = new Map<string, { lines: Line[]; packs: Set<string> }>();
  for (const line of lines) {
    const key = `${line.product}${line.medium ?? ""}`;
    const row = rows.get(key) ?? { lines: [], packs: new Set() };
    if (!row.lines.some((known) => known.jar === line.jar)) row.lines.push(line);
    row.packs.add(line.pack);
    rows.set(key, row);
  }
  return [...rows]
    .sort(([, a], [, b]) => order(a.lines) - order(b.lines))
    .map(([key, { lines: jars, packs }]) => {
      const line = jars[0];
      const medium = line?.medium ? `, ${MEDIUM[line.medium]}` : "";
      const name = line === undefined ? key : PRODUCT[line.product] + medium;
      return { key, name: `${name}, ${[...packs].sort().join(" or ")} pack`, jars };
    });
}

/** Boiling-water minutes by altitude, one line per jar, the kitchen's column lit. */
export function WaterTable({ almanac }: { almanac: Almanac }) {
  // A phone shows the kitchen's own column; with no altitude known, all of them.
  const known = almanac.bands.some((band) => band.here);
  const aside = (column: number) => (known && almanac.bands[column]?.here !== true ? "max-sm:hidden" : "");
  return (
    <table className="w-full border-collapse" data-testid="water-table">
      <thead>
        <tr className="text-sm text-muted">
          <th className="pb-1 text-left font-semibold">Minutes in boiling water</th>
          <th />
          {almanac.bands.map((band, column) => (
            <th
              key={band.label}
              className={`w-[7.7rem] rounded-t-xl px-1 py-1 text-center font-semibold ${band.here ? "bg-cobalt text-white" : ""} ${aside(column)}`}
            >
              {band.label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rowsOf(almanac.water).map((row) => (
          <Fragment key={row.key}>
            {row.jars.map((line, place) => (
              <tr key={line.jar} className={place === 0 ? "border-t-2 border-line" : ""}>
                {place === 0 && (
                  <th
                    rowSpan={row.jars.length}
                    className="py-0.5 pr-2 text-left align-middle leading-tight font-semibold"
                  >
                    {row.name}
                  </th>
                )}
                <td className="pr-2 text-right text-sm whitespace-nowrap text-muted">
                  {jarText(line.jar)}
                  {line.timed_alike != null && `, ${jarText(line.timed_alike)}`}
                </td>
                {line.minutes.map((minutes, column) => (
                  <td
                    key={almanac.bands[column]?.label}
                    className={`text-center font-slab leading-tight ${almanac.bands[column]?.here === true ? "bg-brass-wash text-xl font-bold" : "text-muted"} ${aside(column)}`}
                  >
                    {minutes}
                  </td>
                ))}
              </tr>
            ))}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}
