import { useQuery } from "@tanstack/react-query";
import { Navigate } from "react-router";
import { ask } from "../queries/queries";
import { Pending } from "../parts/Pending";

/** Where a kitchen opens: at its crates, and a new one at the first question. */
export function Home() {
  const { data: counter } = useQuery(ask.counter());
  if (counter === undefined) return <Pending of={[ask.counter()]} />;
  return <Navigate to={counter.is_new ? "/start" : "/crates"} replace />;
}
