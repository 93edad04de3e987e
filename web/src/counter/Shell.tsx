import { useIsFetching, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useRef, type ReactNode } from "react";
import { Link, Outlet, ScrollRestoration, useLocation } from "react-router";
import type { Counter } from "../api/client";
import { ask, useLiveAnswers } from "../queries/queries";
import { Connection } from "../frame/Connection";
import { altitudeText } from "../writing/format";
import { Note } from "../parts/Note";
import { Alarms } from "../frame/Alarms";
import { Awake } from "../frame/Awake";
import { Boundary } from "./Boundary";
import { useAtMoment } from "../base/clock";
import { Line } from "./Line";
import { pageOf, placesOf, stepText } from "../frame/line";
import { NoticePlace } from "../parts/notices";
import { SayIt } from "./SayIt";

/** Loaded after what is looked at. */
const KeySheet = lazy(async () => ({ default: (await import("./KeySheet")).KeySheet }));

function HeaderLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link
      to={to}
      className="flex min-h-[48px] items-center font-semibold text-link underline-offset-4 hover:underline"
    >
      {children}
    </Link>
  );
}

/** The canner's clock, in sight however far the page is scrolled. */
function ClockInSight({ counter }: { counter: Counter }) {
  const canner = useAtMoment((now) => placesOf(counter, now).find((place) => place.station === "canner"));
  if (counter.canners.length === 0 || canner === undefined) return null;
  return (
    <span className="leading-tight whitespace-nowrap text-muted" data-testid="clock-in-sight">
      <strong className="font-slab text-xl text-ink sm:text-2xl">{canner.figure}</strong>{" "}
      <span className="max-sm:sr-only">{canner.words}</span>
    </span>
  );
}

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
    <div className="mx-auto flex min-h-dvh max-w-[1280px] flex-col gap-3 px-3 pb-6 sm:px-5">
      <a
        href="#work"
        className="sr-only rounded-xl bg-ink px-5 py-3 font-semibold text-porcelain focus:not-sr-only focus:absolute focus:z-40"
      >
        To the work
      </a>
      <ScrollRestoration />
      {/* On a phone the first row scrolls away and the second, with the notices and the clock, stays. */}
      <header className="sticky -top-[48px] z-20 -mx-3 -mb-3 flex flex-wrap items-center justify-between gap-x-4 bg-cloth px-3 pb-1 sm:top-0 sm:-mx-5 sm:flex-nowrap sm:gap-x-7 sm:px-5 print:hidden">
        <Link to="/" className="flex min-h-[48px] items-center gap-2 font-slab text-2xl font-bold text-link">
          <img src="/jar.svg" alt="" className="size-7" />
          Bodega
        </Link>
        <div className="order-last flex w-full min-w-0 sm:order-none sm:w-auto sm:grow">
          <NoticePlace>
            <div className="flex w-full items-center gap-x-4">
              <h1
                ref={heading}
                tabIndex={-1}
                className="min-w-0 truncate text-lg outline-offset-0 sm:text-2xl"
              >
                {pageOf(place.pathname)}
              </h1>
              {data !== undefined && <ClockInSight counter={data} />}
              <div className="ml-auto flex shrink-0 items-center gap-2">
                <SayIt />
                <Awake />
              </div>
            </div>
          </NoticePlace>
        </div>
        <nav aria-label="Beside the line" className="flex gap-4 sm:gap-7">
          <HeaderLink to="/almanac">Almanac</HeaderLink>
          {data !== undefined && (
            <HeaderLink to="/kitchen">
              <span className="hidden max-w-[14rem] truncate lg:inline">{data.kitchen.name} ·&nbsp;</span>
              {data.kitchen.altitude_ft == null ? (
                <>
                  altitude<span className="max-sm:sr-only"> not known</span>?
                </>
              ) : (
                altitudeText(data.kitchen.altitude_ft)
              )}
            </HeaderLink>
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
          {/* What is written otherwise from now on is drawn anew. */}
          <Boundary key={`${place.pathname} ${Object.values(data?.kitchen.ways ?? {}).join(" ")}`}>
            <Outlet />
          </Boundary>
        </main>
      )}
      <Suspense>
        <KeySheet />
      </Suspense>
    </div>
  );
}
