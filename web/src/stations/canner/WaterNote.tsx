import type { LoadView, Units } from "../../api/client";
import { depthText, temperatureText, volumeText } from "../../writing/format";
import { Note } from "../../parts/Note";
import { MM_PER_IN } from "../../writing/units";

/** Water before the jars go in, how much to keep boiling beside it, and when it will boil. */
export function WaterNote({ load, units }: { load: LoadView; units: Units }) {
  const { water, topping_up_l: spare, come_up_minutes: comeUp } = load;
  if (water == null) {
    return <Note tone="note">{load.water_says}</Note>;
  }
  return (
    <>
      {water.fits && (
        <Note tone="note">
          <p>
            <strong>Fill to {depthText(water.level_before_mm, units)} before the jars go in</strong>,{" "}
            {volumeText(water.water_l, units)} at about {temperatureText(water.water_c)}. They lift it to{" "}
            {depthText(water.cover_in * MM_PER_IN, units)} over the lids,{" "}
            {depthText(water.headroom_mm, units)} under the rim. {water.at_the_end}
            {spare != null && ` Keep ${volumeText(spare, units)} boiling beside it for topping up.`}
            {comeUp != null && ` It boils about ${Math.round(comeUp)} min after the jars go in.`}
          </p>
        </Note>
      )}
      {water.cautions.map((caution) => (
        <Note key={caution} tone={water.fits ? "warn" : "stop"}>
          {caution}
        </Note>
      ))}
    </>
  );
}
