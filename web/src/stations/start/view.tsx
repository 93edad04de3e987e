import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type FirstLine, type Product, type Units } from "../../api/client";
import { ask } from "../../queries/queries";
import { AltitudeFinder } from "../../parts/AltitudeFinder";
import { Choice, optionsOf } from "../../parts/Choice";
import { boundsOf } from "../../parts/fields";
import { Fold } from "../../parts/Fold";
import { altitudeText, PRODUCT } from "../../writing/format";
import { JarPicture } from "../../parts/JarPicture";
import { NumberField } from "../../parts/NumberField";
import { parseNumber, typedOf } from "../../writing/number";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";
import { useKitchenChange } from "../../parts/useKitchenChange";
import { heightScale, massScale } from "../../writing/units";
import { numberText } from "../../writing/ways";
import { nameOf } from "../plan/model";
import { beginPath, figuresOf } from "./model";

const WANTED = ["all", "whole", "crushed", "juice", "sauce", "paste"] as const;
const WANTED_WORDS = { ...PRODUCT, all: "Show me" };

/** One thing the tomatoes could be. */
function Line({ line, onBegin }: { line: FirstLine; onBegin: () => void }) {
  const said = figuresOf(line);
  return (
    <li className="grid grid-cols-[2.2rem_1fr_auto] items-center gap-x-4 gap-y-1 border-t-2 border-line py-2 first:border-t-0 lg:grid-cols-[2.2rem_13rem_9rem_1fr_auto]">
      <span className="h-11 w-9">
        <JarPicture size={line.jar} product={line.product} acid filled lid />
      </span>
      <p className="leading-tight font-semibold max-lg:col-span-2">{nameOf(line)}</p>
      <p className="leading-tight max-lg:col-start-2">
        <strong className="font-slab text-2xl">{said.jars}</strong> {said.unit}
        <span className="block text-sm text-muted">{said.range}</span>
      </p>
      <p className="leading-tight max-lg:col-span-3 max-lg:row-start-3">
        <strong>{said.time}</strong>
        <span className="block text-sm text-muted">{said.work}</span>
      </p>
      <Touch onPress={onBegin} className="max-lg:col-start-3 max-lg:row-start-2">
        Begin<span className="sr-only"> with {nameOf(line)}</span>
      </Touch>
    </li>
  );
}

/** The first page of an empty kitchen: three things, asked in one go, and the answer at once. */
export function StartStation() {
  const { data: counter } = useQuery(ask.counter());
  if (counter === undefined) return <Pending of={[ask.counter()]} />;
  return (
    <Asked
      key={counter.kitchen.units}
      units={counter.kitchen.units}
      known={counter.kitchen.altitude_ft ?? null}
    />
  );
}

function Asked({ units, known }: { units: Units; known: number | null }) {
  const go = useNavigate();
  const [height, setHeight] = useState(known === null ? "" : typedOf(heightScale().fromApi(known)));
  const [amount, setAmount] = useState("");
  const [want, setWant] = useState<Product | "all">("all");
  const [up, mass] = [heightScale(), massScale(units)];
  const typedHeight = parseNumber(height, up.unit);
  const bound = boundsOf("FirstRequest.altitude_ft", up);
  const isHeight = typedHeight !== null && typedHeight >= bound.least && typedHeight <= bound.most;
  const altitude = isHeight ? up.toApi(typedHeight) : null;
  const typedAmount = parseNumber(amount, mass.unit);
  const weights = boundsOf("FirstRequest.weight_kg", mass);
  const isWeight = typedAmount !== null && typedAmount >= weights.least && typedAmount <= weights.most;
  const first = useQuery(
    ask.first(
      isWeight
        ? {
            altitude_ft: altitude,
            weight_kg: mass.toApi(typedAmount),
            product: want === "all" ? null : want,
            agent: "bottled_lemon_juice",
          }
        : null,
    ),
  );
  const change = useKitchenChange();
  const begin = (line: FirstLine) => {
    const on = () => void go(beginPath(line, amount.trim()));
    if (altitude === null || altitude === known) on();
    else change.mutate({ altitude_ft: altitude }, { onSuccess: on });
  };
  return (
    <div className="grid gap-3">
      <Plate title="What could they be?">
        <div className="flex flex-wrap items-start gap-x-6 gap-y-3">
          <NumberField
            label="How high you live"
            typed={height}
            unit={up.unit}
            error={
              height.trim() === "" || isHeight
                ? undefined
                : `Give ${numberText(bound.least, 0)} to ${numberText(bound.most, 0)} ${up.unit}`
            }
            onType={setHeight}
          />
          <NumberField
            label="Tomatoes in hand"
            typed={amount}
            unit={mass.unit}
            error={
              amount.trim() === "" || isWeight
                ? undefined
                : `Give ${numberText(weights.least, 2)} to ${numberText(weights.most, 0)} ${mass.unit}`
            }
            onType={setAmount}
          />
          <Choice
            label="You want"
            value={want}
            options={optionsOf(WANTED, WANTED_WORDS)}
            onChoose={setWant}
          />
        </div>
        <div className="mt-3 flex flex-wrap gap-2">
          <Fold words="By place or boil">
            <AltitudeFinder
              units={units}
              start="place"
              onUse={(feet) => setHeight(typedOf(up.fromApi(feet)))}
            />
          </Fold>
          <Touch onPress={() => change.mutate({ units: units === "us" ? "metric" : "us" })}>
            {units === "us" ? "In kg, m" : "In lb, ft"}
          </Touch>
        </div>
        <Trouble error={first.error ?? change.error} />
      </Plate>
      <Plate
        title={altitude === null ? "At any height that was tested" : `At ${altitudeText(altitude)}`}
        aside={
          <span className="text-sm text-muted max-sm:hidden">
            The usual jar of each, in a boiling-water canner; bottled lemon juice in every jar
          </span>
        }
      >
        {first.data === undefined || !isWeight ? (
          <p className="text-lg text-muted">
            Say what you have in hand, and here stand jars, acid, minutes, loads and hours.
          </p>
        ) : (
          <ul>
            {first.data.lines.map((line) => (
              <Line key={nameOf(line)} line={line} onBegin={() => begin(line)} />
            ))}
          </ul>
        )}
      </Plate>
    </div>
  );
}
