import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { LoadView } from "../../api/client";
import { ask } from "../../queries/queries";
import { historyText, jarsText, loadText } from "../../writing/format";
import { Plate } from "../../parts/Plate";

const FATE = {
  stayed: "",
  broken: "broke",
  out_in_time: "lifted early, after its own full time",
  out_too_early: "lifted too early: refrigerate it",
};

function Lifted({ load }: { load: LoadView }) {
  return (
    <li className="border-t-2 border-line py-3 first:border-t-0">
      <p className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className="font-semibold">
          Load {load.position} of {load.of}: {loadText(load)}, {jarsText(load.jars.length)}
        </span>
        <span className={`font-semibold ${load.processed ? "text-fine" : "text-alarm"}`}>
          {load.processed ? "✓ Processed" : "✕ Not processed"}: {load.unbroken_minutes} of {load.minutes} min
          unbroken
        </span>
      </p>
      <p className="text-muted">{historyText(load)}.</p>
      {load.gone.map((gone) => (
        <p key={gone.jar} className="font-semibold text-alarm">
          Jar {gone.number} {FATE[gone.fate]}.
        </p>
      ))}
    </li>
  );
}

/** What was done today against what was required; after the last load, the wash-up list. */
export function After({ more }: { more: boolean }) {
  const { data: after } = useQuery(ask.lifted());
  if (after === undefined || after.lifted.length === 0) return null;
  return (
    <div className={`grid gap-3 ${more ? "" : "lg:grid-cols-2"}`}>
      {!more && (
        <Plate title="The last load is out: washing up">
          <ol className="grid list-decimal gap-2 pl-6 text-lg">
            {after.wash_up.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </Plate>
      )}
      <Plate
        title="Today in the canner"
        aside={
          <Link
            to="/towel"
            className="inline-flex min-h-[48px] items-center font-semibold text-link underline underline-offset-4"
          >
            To the towel
          </Link>
        }
      >
        <ul>
          {after.lifted.map((load) => (
            <Lifted key={load.id} load={load} />
          ))}
        </ul>
      </Plate>
    </div>
  );
}
