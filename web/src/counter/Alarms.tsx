import { useQuery } from "@tanstack/react-query";
import { ask } from "../api/queries";
import { useAlarm } from "../parts/useAlarm";
import { useKitchenNow } from "./clock";
import { callsNow } from "./model";

function Once({ text }: { text: string }) {
  useAlarm(text, true);
  return null;
}

/** What calls somebody back, whichever station is open. */
export function Alarms() {
  const { data: counter } = useQuery(ask.counter());
  const { data: day } = useQuery(ask.day());
  const now = useKitchenNow();
  const { ringing, once } = callsNow(counter?.calls ?? [], now);
  useAlarm(ringing);
  const said = [...once, ...(day?.reminders.slice(0, 1) ?? [])];
  return said.map((text) => <Once key={text} text={text} />);
}
