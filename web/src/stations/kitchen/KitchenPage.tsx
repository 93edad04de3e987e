import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Kitchen } from "../../api/client";
import { ask } from "../../queries/queries";
import { BrokenRecords } from "../../parts/BrokenRecords";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Tabs } from "../../parts/Tabs";

const TABS = [
  { to: "/kitchen", text: "Altitude and units" },
  { to: "/kitchen/canners", text: "Canners" },
  { to: "/kitchen/kettles", text: "Kettles" },
  { to: "/kitchen/cupboard", text: "Cupboard" },
  { to: "/kitchen/devices", text: "Devices and people" },
  { to: "/kitchen/safe", text: "Safe keeping" },
] as const;

/** One page of the kitchen, with the ways to the others. */
export function KitchenPage({
  broken = [],
  error = null,
  children,
}: {
  /** Kinds of records that stand on this page when they cannot be read. */
  broken?: readonly string[];
  error?: Error | null;
  children: (kitchen: Kitchen) => ReactNode;
}) {
  const { data: counter } = useQuery(ask.counter());
  return (
    <div className="grid gap-3">
      <Tabs label="Pages of the kitchen" tabs={TABS} />
      <BrokenRecords of={counter === undefined ? [] : broken} />
      <Trouble error={error} />
      {counter === undefined ? <Pending of={[ask.counter()]} /> : children(counter.kitchen)}
    </div>
  );
}
