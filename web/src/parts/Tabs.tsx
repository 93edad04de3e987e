import { NavLink } from "react-router";

/** Pages of one station. */
export function Tabs({ label, tabs }: { label: string; tabs: readonly { to: string; text: string }[] }) {
  return (
    <nav aria-label={label} className="flex flex-wrap gap-1.5 print:hidden">
      {tabs.map((tab) => (
        <NavLink
          key={tab.to}
          to={tab.to}
          end
          className="grid min-h-[48px] place-items-center rounded-xl border-2 border-edge bg-enamel px-3 font-semibold hover:border-cobalt aria-[current=page]:border-cobalt aria-[current=page]:bg-cobalt aria-[current=page]:text-white sm:px-4"
        >
          {tab.text}
        </NavLink>
      ))}
    </nav>
  );
}
