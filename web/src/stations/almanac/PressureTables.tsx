import type { Almanac } from "../../api/client";
import { MEDIUM, PRODUCT } from "../../parts/format";

type Table = Almanac["pressure"][number];

const GAUGE: Record<string, string> = { dial: "Dial gauge", weighted: "Weighted gauge" };

function nameOf(row: Table["rows"][number]): string {
  const products = row.products.map((product) => PRODUCT[product].toLowerCase()).join(", ");
  return row.medium ? `${products} ${MEDIUM[row.medium]}` : products;
}

/** For one gauge: each process with its options beside each other, at the kitchen's column. */
function Options({ table }: { table: Table }) {
  const here = Math.max(
    table.bands.findIndex((band) => band.here),
    0,
  );
  const names = [...new Set(table.rows.map(nameOf))];
  return (
    <section>
      <h3 className="mb-1 text-base">
        {GAUGE[table.gauge] ?? table.gauge}{" "}
        <span className="font-plain text-sm font-semibold text-muted">{table.bands[here]?.label}</span>
      </h3>
      <ul>
        {names.map((name) => (
          <li key={name} className="border-t-2 border-line py-1.5 leading-snug">
            <span className="font-semibold">{name.charAt(0).toUpperCase() + name.slice(1)}</span>
            <span className="block">
              {table.rows
                .filter((row) => nameOf(row) === name && row.psi[here] != null)
                .map((row) => `${row.minutes}\u00a0min at ${row.psi[here]}\u00a0lb`)
                .join(", or ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function PressureTables({ tables }: { tables: Almanac["pressure"] }) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      {tables.map((table) => (
        <Options key={table.gauge} table={table} />
      ))}
    </div>
  );
}
