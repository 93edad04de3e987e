import { useQueries, type UseQueryOptions } from "@tanstack/react-query";
import { BrokenRecords } from "./BrokenRecords";
import { Trouble } from "./Note";
import { Plate } from "./Plate";
import { Touch } from "./Touch";

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers and keys differ from question to question
type Question = UseQueryOptions<any, Error, any, any>;

/** What a station shows while its questions have no answer yet: that it asks, or what went wrong and a way on. */
export function Pending({ of }: { of: readonly Question[] }) {
  const asked = useQueries({ queries: [...of] });
  const failed = asked.find((one) => one.data === undefined && one.error !== null);
  if (failed === undefined) {
    return (
      <p role="status" className="p-6 text-lg text-muted">
        One moment…
      </p>
    );
  }
  return (
    <div className="grid gap-3">
      {/* Nothing is planned or timed for a kitchen whose only canner cannot be read; every station says so. */}
      <BrokenRecords of={["canner"]} />
      <Plate title="This could not be loaded">
        <Trouble error={failed.error instanceof Error ? failed.error : null} />
        <Touch className="mt-3" onPress={() => asked.forEach((one) => void one.refetch())}>
          Ask again
        </Touch>
      </Plate>
    </div>
  );
}
