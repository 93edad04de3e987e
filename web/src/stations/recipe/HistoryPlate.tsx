import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { RecipeHistory } from "../../api/client";
import { ask } from "../../queries/queries";
import { BatchName } from "../../parts/BatchName";
import { jarText } from "../../writing/format";
import { Liking } from "../../parts/Liking";
import { Plate } from "../../parts/Plate";
import { short } from "./model";

type Made = RecipeHistory["made"][number];

/** What it became: "8 pints; 2 quarts: freezer; pH 4.10." */
function becameText({ jars, went, ph }: Made): string {
  const all = [
    ...jars.map(({ jar, count }) => `${count} ${jarText(jar, count)}`),
    ...went.map(({ words }) => words),
    ...(ph == null ? [] : [`pH ${ph.toFixed(2)}`]),
  ];
  return all.length === 0 ? "Nothing is told of it yet." : `${all.join("; ")}.`;
}

function Line({ made }: { made: Made }) {
  const { batch } = made;
  return (
    <li className="grid gap-2 border-t-2 border-line py-3 first:border-t-0">
      <p className="text-lg">
        <Link
          to={`/batches/${batch.id}/record`}
          className="font-semibold text-link underline underline-offset-4"
        >
          {batch.code}, × {short(made.factor)}
        </Link>
        : {becameText(made)}
        {made.from.length > 0 && ` From ${made.from.join(", ")}.`}
        {made.changed.length > 0 && ` Otherwise than on the card: ${made.changed.join("; ")}.`}
      </p>
      {batch.note != null && <p className="text-lg whitespace-pre-line">“{batch.note}”</p>}
      <div className="flex flex-wrap items-start gap-3">
        <Liking batch={batch} />
        <BatchName batch={batch} />
      </div>
    </li>
  );
}

/** How often it was made, from what, what was changed, what it became, and whether it was liked. */
export function HistoryPlate({ recipe }: { recipe: number }) {
  const { data: history } = useQuery(ask.recipeHistory(recipe));
  if (history === undefined || history.times === 0) return null;
  return (
    <Plate title={history.times === 1 ? "Made once" : `Made ${history.times} times`} className="print:hidden">
      <ul>
        {history.made.map((made) => (
          <Line key={made.batch.id} made={made} />
        ))}
      </ul>
      {history.times > history.made.length && (
        <p className="text-muted">The last {history.made.length} are shown.</p>
      )}
    </Plate>
  );
}
