import type { Canner, KettleView, Units } from "../../api/client";
import { depthText } from "../../writing/format";

/** What is known of a canner's burner. */
export function burnerText(canner: Pick<Canner, "power_w" | "burner_mm">, units: Units): string {
  const has = [
    canner.power_w == null ? null : `${Math.round(canner.power_w)} W`,
    canner.burner_mm == null ? null : `${depthText(canner.burner_mm, units)} wide`,
  ].filter((part) => part !== null);
  return has.length === 0
    ? "Its burner: with its power, Bodega says when it will boil."
    : `Its burner: ${has.join(", ")}.`;
}

/** A kettle in one line: how wide, how deep, how its walls are known, where it stands. */
export function kettleText(kettle: KettleView, units: Units): string {
  const marks = kettle.pour_depths_mm.length;
  const walls = marks > 0 ? `${marks} poured ${marks === 1 ? "mark" : "marks"}` : "straight walls";
  const wide = depthText(kettle.inner_diameter_mm, units);
  const deep = depthText(kettle.depth_mm, units);
  return `${wide} wide, ${deep} deep, ${walls}, ${kettle.heat === "oven" ? "in the oven" : "on a burner"}`;
}

/** What is left of something that was counted; `null` when it never was. */
export function leftOf(counted: number | null | undefined, used: number): number | null {
  return counted == null ? null : Math.max(0, Math.round(counted - used));
}
