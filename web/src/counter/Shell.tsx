import { useIsFetching, useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link, Outlet, ScrollRestoration, useLocation } from "react-router";
import { ask, useLiveAnswers } from "../api/queries";
import { altitudeText } from "../parts/format";
import { Note } from "../parts/Note";
import { Connection } from "../connection/Connection";
import { Alarms } from "./Alarms";
import { Awake } from "./Awake";
import { Boundary } from "./Boundary";
import { Line } from "./Line";
import { pageOf, stepText } from "./model";

/** Every screen: the kitchen's name, the line, and the station. */
export function Shell() {
  useLiveAnswers();
  const { data, error } = useQuery(ask.counter());
  const asking = useIsFetching();
  const place = useLocation();
  const heading = useRef<HTMLHeadingElement>(null);
  const arrived = useRef(place.pathname);
  // A new page begins at its heading, for eyes and for whoever hears it.
  useEffect(() => {
    if (arrived.current === place.pathname) return;
    arrived.current = place.pathname;
    heading.current?.focus({ preventScroll: true });
  }, [place.pathname]);
  return (
    <div className="mx-auto flex min-h-dvh max-w-[1280px] flex-col gap-3 px-3 pt-2 pb-6 sm:px-5">
      <a
        href="#work"
        className="sr-only rounded-xl bg-ink px-5 py-3 font-semibold text-white focus:not-sr-only focus:absolute focus:z-40"
      >
        To the work
      </a>
      <ScrollRestoration />
      <header className="flex flex-wrap items-center justify-between gap-x-4 print:hidden">
        <Link
          to="/"
          className="flex min-h-[48px] items-center gap-2 font-slab text-2xl font-bold text-cobalt"
        >
          <img src="/jar.svg" alt="" className="size-7" />
          Bodega
        </Link>
        <div className="order-last w-full sm:order-none sm:w-auto">
          <Awake />
        </div>
        <nav aria-label="Beside the line" className="flex gap-4 sm:gap-7">
          <Link
            to="/almanac"
            className="flex min-h-[48px] items-center font-semibold text-cobalt underline-offset-4 hover:underline"
          >
            Almanac
          </Link>
          {data !== undefined && (
            <Link
              to="/kitchen"
              className="flex min-h-[48px] items-center font-semibold text-cobalt underline-offset-4 hover:underline"
            >
              <span className="hidden sm:inline">{data.kitchen.name} ·&nbsp;</span>
              {data.kitchen.altitude_ft == null
                ? "altitude not known"
                : altitudeText(data.kitchen.altitude_ft, data.kitchen.units)}
            </Link>
          )}
        </nav>
      </header>
      <div className="print:hidden">
        <Line />
        <Alarms />
      </div>
      <Connection />
      {data?.troubles.map((trouble) => (
        <Note key={trouble} tone="stop">
          <strong>{trouble}</strong>
        </Note>
      ))}
      {data?.clock_stepped_minutes != null && (
        <Note tone="warn">
          <strong>This machine&apos;s clock was set {stepText(data.clock_stepped_minutes)}.</strong> The count
          goes on by a clock that nobody can set; the hours shown follow when the jars are out.
        </Note>
      )}
      {error !== null && data === undefined ? (
        <p role="alert" className="p-8 text-xl">
          Bodega does not answer. Is it still running? This page tries again by itself.
        </p>
      ) : (
        <main id="work" tabIndex={-1} className="grow outline-none" aria-busy={asking > 0}>
          <h1 ref={heading} tabIndex={-1} className="sr-only">
            {pageOf(place.pathname)}
          </h1>
          <Boundary key={place.pathname}>
            <Outlet />
          </Boundary>
        </main>
      )}
    </div>
  );
}
