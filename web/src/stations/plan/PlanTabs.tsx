import { Tabs } from "../../parts/Tabs";

const TABS = [
  { to: "/plan", text: "One batch" },
  { to: "/plan/recipes", text: "By a recipe" },
  { to: "/plan/compare", text: "Side by side" },
  { to: "/plan/split", text: "Share it all out" },
  { to: "/plan/day", text: "The day" },
] as const;

/** Ways to look at the waiting fruit, and the day that comes of it. */
export function PlanTabs() {
  return <Tabs label="Ways to plan" tabs={TABS} />;
}
