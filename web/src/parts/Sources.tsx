import { useQuery } from "@tanstack/react-query";
import { ask } from "../queries/queries";
import type { Figure } from "../api/client";
import { WORDS } from "../api/words.generated";
import { capital } from "../writing/format";
import { SourceText, Why } from "./Why";

/** Where the figures beside it come from and how sure they are, behind one touch. */
export function Sources({ of, label = "Where from?" }: { of: readonly Figure[]; label?: string }) {
  return (
    <Why label={label}>
      <Known of={of} />
    </Why>
  );
}

/** Asked for when it is opened, and never again: it is the same on every day. */
function Known({ of }: { of: readonly Figure[] }) {
  const { data } = useQuery(ask.figures());
  return (
    <dl className="grid max-h-[60vh] gap-3 overflow-y-auto">
      {data
        ?.filter((one) => of.includes(one.figure))
        .map((one) => (
          <div key={one.figure}>
            <dt className="font-semibold">{capital(WORDS.FigureName[one.figure])}</dt>
            <dd>
              {one.says}
              <SourceText source={one.source} />
              <p className="text-sm text-muted">{one.sure}</p>
            </dd>
          </div>
        ))}
    </dl>
  );
}
