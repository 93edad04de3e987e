import { api, take } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { clockText, spanText, MINUTE } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { blockText, type Block } from "./strip";
import { backText, roomText } from "./model";
import { useMark } from "./useMark";

/** Steps by which somebody says that something takes longer. */
const SLIPS = [10, 30, -10];

/** The block that was touched: when it is, how far it may move, and what to say of it. */
export function ChosenBlock({ block }: { block: Block }) {
  const say = useSay();
  const slip = useChange(
    (minutes: number) => take(api.POST("/api/day/slips", { body: { block: block.key, minutes } })),
    (_, minutes, again) => minutes !== 0 && say("The day is laid out again", () => again(block.slip_minutes)),
  );
  const { mark, error } = useMark();
  const length = Math.round((block.ends - block.starts) / MINUTE);
  return (
    <div className="rounded-2xl border-2 border-brass bg-brass-wash p-4" data-testid="chosen">
      <p className="text-lg">
        <strong>{blockText(block)}</strong>
        {block.batch != null && ` of batch ${block.batch}`}: {clockText(block.starts)} to{" "}
        {clockText(block.ends)}, {spanText(length)}. {roomText(block)}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {block.is_said && !block.begun && <Touch onPress={() => mark(block, "begun")}>It begins now</Touch>}
        {block.is_said && (
          <Touch look="done" onPress={() => mark(block, "done")}>
            Done
          </Touch>
        )}
        <span className="font-semibold text-muted">It takes</span>
        {SLIPS.map((minutes) => (
          <Touch key={minutes} onPress={() => slip.mutate(block.slip_minutes + minutes)}>
            {minutes > 0 ? `${minutes} min longer` : `${-minutes} min less`}
          </Touch>
        ))}
        {block.slip_minutes !== 0 && (
          <Touch onPress={() => slip.mutate(0)}>{backText(block.slip_minutes)}</Touch>
        )}
      </div>
      <Trouble error={slip.error ?? error} />
    </div>
  );
}
