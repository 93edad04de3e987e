import { Link } from "react-router";
import { Plate } from "../../parts/Plate";
import { PlanTabs } from "../plan/PlanTabs";
import { PhBench } from "./PhBench";

/** What people hold the meter into when there is no recipe in the bowls. */
const PARTS = ["tomatoes", "peppers", "onion", "bottled lemon juice"];

/** The pH meter without a recipe: everything that was read, and why it does not decide. */
export function PhStation() {
  return (
    <div className="grid gap-3">
      <PlanTabs />
      <Plate
        title="pH bench"
        aside={
          <Link
            to="/plan/recipes"
            className="inline-grid min-h-[48px] place-items-center font-semibold text-link underline underline-offset-4"
          >
            ← The book
          </Link>
        }
      >
        <PhBench bowls={null} parts={PARTS} />
      </Plate>
    </div>
  );
}
