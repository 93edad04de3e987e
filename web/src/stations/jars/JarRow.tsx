import type { LoadView } from "../../api/client";
import { JarPicture } from "../../parts/JarPicture";
import type { Jar } from "./model";

/** The jars as they stand on the counter; a touch says of one what the hand is set to. */
export function JarRow({
  load,
  mixed,
  onTouch,
}: {
  load: LoadView;
  mixed: boolean;
  onTouch: (jar: Jar) => void;
}) {
  // With several doses on the bench, each jar says its own.
  const doseOf = (jar: Jar) =>
    load.doses.length > 1
      ? load.doses.find((dose) => dose.batch === jar.batch && dose.jar === jar.size)
      : undefined;
  return (
    <ul className="mt-3 grid grid-cols-4 gap-2 sm:flex sm:flex-wrap sm:gap-3">
      {load.jars.map((jar) => {
        const { state } = jar;
        const dose = jar.has_acid ? undefined : doseOf(jar);
        return (
          <li key={jar.id} className="sm:max-w-[158px] sm:min-w-[104px] sm:flex-1">
            <button
              type="button"
              data-jar={jar.number}
              data-state={state}
              onClick={() => onTouch(jar)}
              className="h-full w-full rounded-2xl border-2 border-edge bg-enamel p-1 pb-2 text-center hover:border-cobalt"
            >
              <span className="sr-only">
                Jar {jar.number}
                {mixed && ` of ${jar.code}`}
              </span>
              <span className="mx-auto block h-[104px] w-full sm:h-[128px]">
                <JarPicture
                  size={jar.size}
                  product={jar.product}
                  acid={jar.has_acid}
                  filled={jar.filled}
                  lid={jar.lid}
                  number={jar.number}
                />
              </span>
              <span
                className={`block text-sm font-semibold ${jar.lid ? "text-fine" : jar.has_acid ? "text-ink" : "text-alarm"}`}
              >
                {jar.lid ? "✓ lid on" : state}
              </span>
              {dose?.acid != null && (
                <span className="block leading-tight font-semibold">
                  {dose.to_add ?? dose.acid} {dose.acid_name.replace("bottled ", "")}
                </span>
              )}
              {mixed && (
                <span className="block text-xs text-muted" aria-hidden="true">
                  {jar.code}
                </span>
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
