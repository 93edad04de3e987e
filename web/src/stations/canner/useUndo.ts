import { api, take, type LoadView } from "../../api/client";
import { useChange } from "../../queries/queries";

/** The moment of what was said last of a load, which names what is to be taken back. */
export const lastOf = (load: Pick<LoadView, "events">): number =>
  load.events.findLast((item) => item.event !== "clock_set")?.at ?? 0;

/** Takes the event of a moment back; pressed twice, or by two people, it takes back one thing. */
export const useUndo = (load: number) =>
  useChange((at: number) =>
    take(api.DELETE("/api/loads/{id}/events/{at}", { params: { path: { id: load, at } } })),
  );
