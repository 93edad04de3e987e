import type { Almanac } from "../../api/client";
import { MEDIUM, PRODUCT } from "../../writing/format";
import { Note } from "../../parts/Note";

type Table = Almanac["pressure"][number];

const GAUGE: Record<string, string> = { dial: "Dial gauge", weighted: "Weighted gauge" };

function nameOf(row: Table["rows"][number]): string {
  const products = row.products.map((product) => PRODUCT[product].toLowerCase()).join(", ");
  return row.medium ? `${products} ${MEDIUM[row.medium]}` : products;
}

/** One process with its options beside each other, in one column. */
function options(rows: Table["rows"], name: string, column: number): string {
  return rows
    .filter((row) => nameOf(row) === name && row.psi[column] != null)
    .map((row) => `${row.minutes}\u00a0min at ${row.psi[column]}\u00a0lb`)
    .join(", or ");
}

/** For one gauge: the kitchen's own column, or why there is none. */
function Options({ table }: { table: Table }) {
  const own = table.bands.findIndex((band) => band.here);
  const names = own === -1 ? [] : [...new Set(table.rows.map(nameOf))];
  return (
    <section data-testid={`${table.gauge}-table`}>
      <h3 className="mb-1 text-base">
        {GAUGE[table.gauge] ?? table.gauge}{" "}
        <span className="font-plain text-sm font-semibold text-muted">
          {own === -1 ? "" : table.bands[own]?.label}
        </span>
      </h3>
      {table.no_column != null && <Note tone="stop">{table.no_column}</Note>}
      <ul>
        {names.map((name) => (
          <li key={name} className="border-t-2 border-line py-1.5 leading-snug">
            <span className="font-semibold">{name.charAt(0).toUpperCase() + name.slice(1)}</span>
            <span className="block">{options(table.rows, name, own)}</span>
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
