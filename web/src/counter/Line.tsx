import { useQuery } from "@tanstack/react-query";
import { memo } from "react";
import { NavLink } from "react-router";
import { ask } from "../queries/queries";
import { useAtMoment } from "../base/clock";
import { placesOf, type Place } from "../frame/line";
import { StationPicture } from "../frame/StationPicture";

/** One station on the line; drawn anew only when what it says changes. */
const PlaceLink = memo(function PlaceLink(place: Place) {
  return (
    <NavLink
      to={`/${place.station}`}
      data-station={place.station}
      className="group relative min-w-0 border-l border-line px-0.5 pt-2.5 pb-3 text-center first:border-l-0 hover:bg-cobalt-wash focus-visible:outline-offset-[-6px] aria-[current=page]:bg-cobalt-wash"
    >
      {/* A phone on its side has no height for pictures. */}
      <div className="[@media(height<30rem)]:hidden">
        <StationPicture station={place.station} hot={place.hot ?? false} />
      </div>
      {/* On a phone a word such as "Heat off" takes two short lines, for which there is always room. */}
      <p className="mt-1 flex min-h-8 items-center justify-center text-sm text-muted sm:block sm:min-h-0 sm:truncate sm:text-[0.95rem]">
        <strong className="font-slab text-[0.95rem] leading-none text-ink sm:text-[1.55rem] sm:leading-[inherit]">
          {place.figure}
        </strong>
        <span className="hidden lg:inline"> {place.words}</span>
      </p>
      <p className="truncate text-xs font-semibold text-muted group-aria-[current=page]:text-link sm:text-[0.95rem]">
        {place.name}
      </p>
      <span className="absolute inset-x-0 bottom-0 h-1.5 bg-cobalt opacity-0 group-aria-[current=page]:opacity-100" />
    </NavLink>
  );
});

/** The line on top of every screen: where the tomatoes are, and the way to move about. */
export function Line() {
  const { data } = useQuery(ask.counter());
  const places = useAtMoment((now) => (data === undefined ? [] : placesOf(data, now)));
  if (data === undefined) return <div className="h-[132px]" />;
  return (
    <nav
      aria-label="The counter"
      className="grid grid-cols-7 overflow-hidden rounded-[26px] border-[3px] border-cobalt bg-porcelain shadow-[0_2px_0_rgb(20_44_96/0.18)]"
    >
      {places.map((place) => (
        <PlaceLink key={place.station} {...place} />
      ))}
    </nav>
  );
}
