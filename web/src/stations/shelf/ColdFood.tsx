import { useQuery } from "@tanstack/react-query";
import {
  api,
  take,
  type ColdFood as Food,
  type FoodMove,
  type FoodPlace,
  type Units,
} from "../../api/client";
import { ask, useChange, useUndoMove } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { capital, weightText } from "../../writing/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { waitText } from "../../parts/wait";

/** How food leaves the cold, as a person says it. */
const OUT: readonly { place: FoodPlace; text: string }[] = [
  { place: "table", text: "Eaten" },
  { place: "line", text: "Back on the line" },
  { place: "neighbour", text: "Given away" },
  { place: "discarded", text: "Thrown away" },
];

function Line({ food, units, now }: { food: Food; units: Units; now: number }) {
  const say = useSay();
  const undo = useUndoMove();
  const move = useChange(
    (body: FoodMove) =>
      take(api.POST("/api/cold_food/{id}/moves", { params: { path: { id: food.id } }, body })),
    (moved) => say(`${capital(WORDS.FoodPlace[moved.place])}: written down`, () => undo.mutate(moved.id)),
  );
  // One pack at a time; food that was not packed goes as a whole.
  const packs = food.packs != null && food.packs > 1 ? 1 : null;
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-t-2 border-line py-2 first:border-t-0">
      <span className="text-lg">
        <strong>
          {food.packs == null
            ? weightText(food.left_g, units)
            : `${food.packs} ${food.packs === 1 ? "pack" : "packs"}, ${weightText(food.left_g, units)}`}
        </strong>{" "}
        {food.words}, {WORDS.FoodPlace[food.place]}
        {food.wait != null && (
          <span className={`block text-base ${food.is_late ? "font-semibold text-alarm" : "text-muted"}`}>
            {food.is_late && "Too late: "}
            {waitText(food.wait, now)}
          </span>
        )}
      </span>
      <span className="flex flex-wrap gap-2">
        {OUT.filter(({ place }) => place !== "line" || food.may_wait).map(({ place, text }) => (
          <Touch key={place} onPress={() => move.mutate({ place, packs })}>
            {packs === 1 ? `One ${text.toLowerCase()}` : text}
          </Touch>
        ))}
      </span>
      <Trouble error={move.error ?? undo.error} />
    </li>
  );
}

/** Packs in the freezer and food in the refrigerator, with their dates. */
export function ColdFood({ units, now }: { units: Units; now: number }) {
  const { data: foods } = useQuery(ask.coldFood());
  if (foods === undefined || foods.length === 0) return null;
  return (
    <Plate title="In the refrigerator and the freezer">
      <ul>
        {foods.map((food) => (
          <Line key={food.id} food={food} units={units} now={now} />
        ))}
      </ul>
    </Plate>
  );
}
