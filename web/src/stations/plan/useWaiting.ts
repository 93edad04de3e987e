import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../../api/queries";

/** The lots that can go on to jars, and which of them are chosen: all, until somebody says otherwise. */
export function useWaiting() {
  const { data: lots } = useQuery(ask.lots());
  const [wanted, setChosen] = useState<number[] | null>(null);
  const ready = lots?.filter((lot) => lot.condition === "firm_ripe" || lot.condition === "trim");
  const chosen = ready?.map((lot) => lot.id).filter((id) => wanted === null || wanted.includes(id));
  return { ready, chosen, setChosen };
}
