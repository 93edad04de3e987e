import { useQuery } from "@tanstack/react-query";
import { NavLink } from "react-router";
import type { Counter } from "../api/client";
import { ask } from "../api/queries";
import { clockText, countdown, weight } from "../parts/format";
import { useKitchenNow } from "./clock";
import { StationPicture, type StationName } from "./StationPicture";

interface Place {
  station: StationName;
  name: string;
  figure: string;
  words: string;
  hot?: boolean;
}

function cannerPlace(counter: Counter, now: number): Place {
  const place = { station: "canner", name: "Canner" } as const;
  const [load, ...others] = counter.canners;
  if (load === undefined) return { ...place, figure: "–", words: "empty" };
  const phase = load.now;
  switch (phase.phase) {
    case "waiting":
    case "heating":
      return { ...place, figure: String(load.jars), words: "heating up" };
    case "venting":
      return phase.ends > now
        ? { ...place, figure: countdown(phase.ends - now), words: "vents" }
        : { ...place, figure: "Close", words: "the vent" };
    case "vented":
      return { ...place, figure: "Close", words: "the vent" };
    case "dropping":
      return { ...place, figure: String(load.jars), words: "pressure drops" };
    case "counting":
      return phase.ends > now
        ? {
            ...place,
            figure: countdown(phase.ends - now),
            words: others.length > 0 ? `first of ${others.length + 1}` : "boiling",
            hot: true,
          }
        : { ...place, figure: "Heat off", words: "" };
    case "boil_lost":
      return { ...place, figure: "Lost", words: "no boil" };
    case "time_up":
      return { ...place, figure: "Heat off", words: "" };
    case "resting":
      return phase.ends > now
        ? { ...place, figure: countdown(phase.ends - now), words: "rest" }
        : { ...place, figure: "Lift", words: "" };
    case "rested":
      return { ...place, figure: "Lift", words: "" };
    case "lifted":
      return { ...place, figure: "–", words: "empty" };
  }
}

function places(counter: Counter, now: number): Place[] {
  const waiting = weight(counter.waiting_g, counter.kitchen.units);
  const bench = counter.bench;
  const due = counter.next_check;
  return [
    { station: "crates", name: "Crates", figure: waiting.value, words: `${waiting.unit} waiting` },
    {
      station: "plan",
      name: "Plan",
      figure: String(counter.batches),
      words: counter.batches === 1 ? "batch" : "batches",
    },
    counter.kettle == null
      ? { station: "kettle", name: "Kettle", figure: "–", words: "stove clear" }
      : {
          station: "kettle",
          name: "Kettle",
          figure: counter.kettle.finish > now ? `${Math.round(counter.kettle.done * 100)} %` : "Off",
          words: counter.kettle.finish > now ? `done ${clockText(counter.kettle.finish)}` : "mark reached",
          hot: counter.kettle.finish > now,
        },
    bench
      ? { station: "jars", name: "Jars", figure: String(bench.acid), words: `of ${bench.jars} acid in` }
      : { station: "jars", name: "Jars", figure: "–", words: "bench clear" },
    cannerPlace(counter, now),
    {
      station: "towel",
      name: "Towel",
      figure: String(counter.cooling),
      words: due == null ? "cooling" : due > now ? `check ${clockText(due)}` : "check now",
    },
    { station: "shelf", name: "Shelf", figure: String(counter.shelved), words: "jars" },
  ];
}

/** The line on top of every screen: where the tomatoes are, and the way to move about. */
export function Line() {
  const { data } = useQuery(ask.counter());
  const now = useKitchenNow();
  if (data === undefined) return <div className="h-[132px]" />;
  return (
    <nav
      aria-label="The counter"
      className="grid grid-cols-7 overflow-hidden rounded-[26px] border-[3px] border-cobalt bg-porcelain shadow-[0_2px_0_rgb(20_44_96/0.18)]"
    >
      {places(data, now).map((place) => (
        <NavLink
          key={place.station}
          to={`/${place.station}`}
          data-station={place.station}
          className="group relative min-w-0 border-l border-line px-0.5 pt-2.5 pb-3 text-center first:border-l-0 hover:bg-cobalt-wash focus-visible:outline-offset-[-6px] aria-[current=page]:bg-cobalt-wash"
        >
          <StationPicture station={place.station} hot={place.hot ?? false} />
          {/* On a phone a word such as "Heat off" takes two short lines, for which there is always room. */}
          <p className="mt-1 flex min-h-8 items-center justify-center text-sm text-muted sm:block sm:min-h-0 sm:truncate sm:text-[0.95rem]">
            <strong className="font-slab text-[0.95rem] leading-none text-ink sm:text-[1.55rem] sm:leading-[inherit]">
              {place.figure}
            </strong>
            <span className="hidden lg:inline"> {place.words}</span>
          </p>
          <p className="truncate text-xs font-semibold text-muted group-aria-[current=page]:text-cobalt sm:text-[0.95rem]">
            {place.name}
          </p>
          <span className="absolute inset-x-0 bottom-0 h-1.5 bg-cobalt opacity-0 group-aria-[current=page]:opacity-100" />
        </NavLink>
      ))}
    </nav>
  );
}
