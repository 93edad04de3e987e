import { useQuery } from "@tanstack/react-query";
import { ask } from "../../queries/queries";
import { chooseLots, useChosenLots } from "./chosenLots";

/** The lots that can go on to jars, and which of them are chosen: all, until somebody says otherwise. */
export function useWaiting() {
  const { data: lots } = useQuery(ask.lots());
  const wanted = useChosenLots();
  const ready = lots?.filter((lot) => lot.condition === "firm_ripe" || lot.condition === "trim");
  const chosen = ready?.map((lot) => lot.id).filter((id) => wanted === null || wanted.includes(id));
  return { ready, chosen, setChosen: chooseLots };
}
