import { api, take, type Mark } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { blockText, type Block } from "./strip";

/** Says that work at the sink begins or is done, with one touch to take it back. */
export function useMark() {
  const say = useSay();
  const change = useChange((body: { block: string; mark: Mark }) =>
    take(api.POST("/api/day/marks", { body })),
  );
  const mark = (block: Block, next: Mark) =>
    change.mutate(
      { block: block.key, mark: next },
      {
        onSuccess: () =>
          say(`${blockText(block)}: ${next === "done" ? "done" : "begun"}`, () =>
            change.mutate({ block: block.key, mark: block.begun ? "begun" : "waits" }),
          ),
      },
    );
  return { mark, error: change.error };
}
