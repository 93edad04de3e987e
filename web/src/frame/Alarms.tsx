import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useLocation } from "react-router";
import { ask } from "../queries/queries";
import { WORDS } from "../api/words.generated";
import { quietly } from "../base/quietly";
import { useAlarm } from "../parts/useAlarm";
import { useAtMoment } from "../base/clock";
import { callsNow, placesOf, titleOf } from "./line";

/** Banners that are shown at once; the others come up when these are answered. */
const SHOWN = 2;

function Once({ text }: { text: string }) {
  useAlarm(text, true);
  return null;
}

/** What calls, and the way to where it is answered; the whole of it is the touch. */
function Banner({ text, urgent, to, where }: { text: string; urgent: boolean; to: string; where: string }) {
  const { pathname } = useLocation();
  const look = `flex min-h-[52px] items-center justify-between gap-x-4 rounded-2xl border-[3px] py-1.5 pr-2 pl-4 text-lg leading-tight font-semibold ${
    urgent ? "border-tomato-deep bg-tomato text-white" : "border-brass bg-brass-wash text-ink"
  }`;
  const words = (
    <span>
      <span aria-hidden="true">{urgent ? "● " : "! "}</span>
      {text}
    </span>
  );
  if (pathname === to) return <p className={look}>{words}</p>;
  return (
    <Link to={to} className={look}>
      {words}
      <span
        className={`rounded-xl px-4 py-1.5 text-base whitespace-nowrap ${urgent ? "bg-[#fff] text-tomato-deep" : "bg-ink text-porcelain"}`}
      >
        <span className="max-sm:sr-only">{where} </span>→
      </span>
    </Link>
  );
}

/** What the browser's tab says, with the clock of the station it shows. */
function Title({ ringing }: { ringing: string | null }) {
  const { data: counter } = useQuery(ask.counter());
  const { pathname } = useLocation();
  const title = useAtMoment((now) =>
    counter === undefined ? "Bodega" : titleOf(placesOf(counter, now), pathname),
  );
  useEffect(() => {
    document.title = ringing === null ? title : `● ${ringing}`;
  }, [ringing, title]);
  return null;
}

/** What calls somebody back, whichever page is open: heard, shown with the way to where it is answered, and in the title. */
export function Alarms() {
  const { data: counter } = useQuery(ask.counter());
  const { data: day } = useQuery(ask.day());
  const { due, ringing, once } = useAtMoment((now) => callsNow(counter?.calls ?? [], now));
  useAlarm(ringing);
  const reminder = day?.reminders[0];
  const said = [...once, ...(reminder === undefined ? [] : [reminder])];
  const count = due.length;
  useEffect(() => {
    quietly(() => (count > 0 ? navigator.setAppBadge(count) : navigator.clearAppBadge()));
  }, [count]);
  const shown = due.slice(0, SHOWN);
  const banner = (call: (typeof due)[number]) => (
    <Banner
      key={call.text}
      text={call.text}
      urgent={!call.once}
      to={`/${call.station}`}
      where={`To the ${WORDS.Station[call.station]}`}
    />
  );
  return (
    <>
      <Title ringing={ringing} />
      {said.map((text) => (
        <Once key={text} text={text} />
      ))}
      {/* Spoken at once, over whatever is being read. */}
      <div role="alert" className="grid gap-2 not-empty:mt-3">
        {shown.filter((call) => !call.once).map(banner)}
      </div>
      <div role="status" className="grid gap-2 not-empty:mt-3">
        {shown.filter((call) => call.once).map(banner)}
        {reminder !== undefined && shown.length < SHOWN && (
          <Banner text={reminder} urgent={false} to="/plan/day" where="To the day" />
        )}
      </div>
    </>
  );
}
