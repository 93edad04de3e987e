import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { ask } from "../../queries/queries";
import { FlowPicture } from "../../parts/FlowPicture";
import { dayOf, shortDay, MINUTE } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { useKitchenNow } from "../../base/clock";
import { toneOf } from "./balance";

/** The day before or after one. */
function beside(day: string, by: number): string {
  const date = new Date(`${day}T12:00:00Z`);
  date.setUTCDate(date.getUTCDate() + by);
  return date.toISOString().slice(0, 10);
}

/** Where a day's food went, from what came in to where it is now. */
export function DayBooksStation() {
  const now = useKitchenNow(MINUTE);
  const today = dayOf(now);
  const day = useParams().day ?? today;
  const go = useNavigate();
  const { data: books, error } = useQuery(ask.books(day));
  const { data: counter } = useQuery(ask.counter());
  if (error !== null) return <Trouble error={error} />;
  if (books === undefined || counter === undefined) return <Pending of={[ask.books(day), ask.counter()]} />;
  const units = counter.kitchen.units;
  return (
    <Plate
      title={`Where it all went, ${shortDay(day)}`}
      aside={
        <span className="flex flex-wrap gap-2 print:hidden">
          <Touch onPress={() => void go(`/books/${beside(day, -1)}`)}>The day before</Touch>
          {day < today && <Touch onPress={() => void go(`/books/${beside(day, 1)}`)}>The day after</Touch>}
          <Touch onPress={() => window.print()}>Print</Touch>
        </span>
      }
    >
      {books.links.length === 0 ? (
        <p className="text-lg text-muted">Nothing came in and nothing was made on that day.</p>
      ) : (
        <FlowPicture stops={books.stops.map((stop) => stop.words)} links={books.links} units={units} />
      )}
      <div className="mt-4 grid gap-2">
        {books.batches.map((batch) => (
          <Note key={batch.batch} tone={toneOf(batch.verdict)}>
            <Link
              to={`/batches/${batch.batch}/record`}
              className="font-semibold underline underline-offset-4"
            >
              {batch.name}
            </Link>
            : {batch.text}
          </Note>
        ))}
      </div>
    </Plate>
  );
}
