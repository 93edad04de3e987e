import { Link } from "react-router";
import { api, take, type BatchChange, type DayView } from "../../api/client";
import { useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { clockText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { useKitchenChange } from "../../parts/useKitchenChange";

type Way = DayView["ways_out"][number];

/** What a way out does to a batch, how it is taken back, and what is said of it. */
const OF_BATCH: Record<"leave" | "freeze" | "chill", { done: BatchChange; back: BatchChange; said: string }> =
  {
    leave: { done: { removed: true }, back: { removed: false }, said: "Its fruit is back in the crates" },
    freeze: {
      done: { removed: true, frozen: true },
      back: { removed: false, frozen: false },
      said: "Its fruit goes into the freezer",
    },
    chill: {
      done: { chilled: true },
      back: { chilled: false },
      said: "Its juice waits overnight in the refrigerator",
    },
  };

/** Takes a way out at a touch; a canner has to be found first. */
function TakeWay({ way }: { way: Way }) {
  const say = useSay();
  const kitchen = useKitchenChange();
  const batch = useChange(({ id, body }: { id: number; body: BatchChange }) =>
    take(api.PATCH("/api/batches/{id}", { params: { path: { id } }, body })),
  );
  const { step } = way;
  switch (step.way) {
    case "later":
      return <Touch onPress={() => kitchen.mutate({ day_ends: step.day_ends })}>Do that</Touch>;
    case "hands":
      return <Touch onPress={() => kitchen.mutate({ people: step.people })}>Do that</Touch>;
    case "canner":
      return (
        <Link
          to="/kitchen/canners"
          className="inline-flex min-h-[50px] items-center font-semibold text-link underline underline-offset-4"
        >
          Add it to the kitchen
        </Link>
      );
    case "two_days":
      return (
        <span className="grid gap-1">
          <Touch onPress={() => step.batches.forEach((id) => batch.mutate({ id, body: { removed: true } }))}>
            Do that
          </Touch>
          <Trouble error={batch.error} />
        </span>
      );
    case "leave":
    case "freeze":
    case "chill": {
      const { done, back, said } = OF_BATCH[step.way];
      const go = () =>
        batch.mutate(
          { id: step.batch, body: done },
          { onSuccess: () => say(said, () => batch.mutate({ id: step.batch, body: back })) },
        );
      return (
        <span className="grid gap-1">
          <Touch onPress={go}>Do that</Touch>
          <Trouble error={batch.error} />
        </span>
      );
    }
  }
}

/** What would make a full day fit, each of them worked out. */
export function WaysOut({ ways }: { ways: Way[] }) {
  return (
    <Note tone="note">
      <p className="font-semibold">What would make it fit:</p>
      <ul className="mt-1 grid gap-1">
        {ways.map((way) => (
          <li key={way.text} className="flex flex-wrap items-center justify-between gap-2">
            <span>
              {way.text}: done by <strong>{clockText(way.finish)}</strong>.
            </span>
            <TakeWay way={way} />
          </li>
        ))}
      </ul>
    </Note>
  );
}
