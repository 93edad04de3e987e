import { NavLink } from "react-router";

const TABS = [
  { to: "/plan", text: "One batch" },
  { to: "/plan/recipes", text: "By a recipe" },
  { to: "/plan/compare", text: "Side by side" },
  { to: "/plan/split", text: "Share it all out" },
  { to: "/plan/day", text: "The day" },
] as const;

/** Ways to look at the waiting fruit, and the day that comes of it. */
export function PlanTabs() {
  return (
    <nav aria-label="Ways to plan" className="flex flex-wrap gap-1.5 print:hidden">
      {TABS.map((tab) => (
        <NavLink
          key={tab.to}
          to={tab.to}
          end
          className="grid min-h-[48px] place-items-center rounded-xl border-2 border-line bg-white px-4 font-semibold hover:border-cobalt aria-[current=page]:border-cobalt aria-[current=page]:bg-cobalt aria-[current=page]:text-white"
        >
          {tab.text}
        </NavLink>
      ))}
    </nav>
  );
}
