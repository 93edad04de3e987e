//! The only place that reads the time of day; everything else is handed a moment.

use std::sync::atomic::{AtomicI64, Ordering};

use bodega_model::measures::moment::Moment;
use bodega_store::KeptClock;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{Span, Timestamp, ZonedDateTime};
use rustix::time::{ClockId, clock_gettime};

/// What a machine's two clocks show, in milliseconds: the wall clock, which somebody or the network may set, and the one that
/// runs on from when the machine was started, through its sleep too, and is never set.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Reading {
    /// Since 1970 UTC.
    pub wall: i64,
    /// Since the machine was started.
    pub steady: i64,
}

impl Reading {
    /// What they show now.
    #[must_use]
    pub fn now() -> Self {
        #[cfg(target_os = "linux")]
        const STEADY: ClockId = ClockId::Boottime;
        #[cfg(not(target_os = "linux"))]
        const STEADY: ClockId = ClockId::Monotonic;
        let steady = clock_gettime(STEADY);
        Self {
            wall: Timestamp::now().as_millisecond(),
            steady: steady.tv_sec * 1000 + steady.tv_nsec / 1_000_000,
        }
    }
}

/// The kitchen's clock: it begins at the wall's time, or for a demo at a chosen moment, and runs on by the machine's steady
/// clock, so that no step of the wall clock completes or lengthens a boil.
#[derive(Debug)]
pub struct Clock {
    /// What it shows when the steady clock shows nothing, in milliseconds at its pace.
    shown: AtomicI64,
    pace: u32,
    /// Whether it is to show the wall's time; a demo's does not.
    follows: bool,
}

/// Steps of the wall clock that are nothing but its own small corrections.
pub(crate) const SLACK_MS: i64 = 2_000;

impl Clock {
    /// The machine's own time.
    #[must_use]
    pub fn wall() -> Self {
        Self::resumed(None, "", Reading::now())
    }

    /// The clock that was kept, where the machine has run on since; the machine's own time where it was started anew.
    #[must_use]
    pub fn resumed(kept: Option<&KeptClock>, run: &str, reading: Reading) -> Self {
        let shown =
            kept.filter(|kept| kept.run == run).map_or(reading.wall - reading.steady, |kept| kept.offset);
        Self { shown: AtomicI64::new(shown), pace: 1, follows: true }
    }

    /// What is to be kept of it.
    #[must_use]
    pub fn to_keep(&self, run: &str) -> KeptClock {
        KeptClock { run: run.to_owned(), offset: self.shown.load(Ordering::Relaxed), seen: self.now() }
    }

    /// A clock that shows `moment` now and runs on `pace` times as fast as the wall.
    #[must_use]
    pub fn starting_at(moment: Moment, pace: u32) -> Self {
        let since = Reading::now().steady * i64::from(pace);
        Self { shown: AtomicI64::new(moment.0 - since), pace, follows: false }
    }

    /// How many times as fast as the wall it runs.
    #[must_use]
    pub const fn pace(&self) -> u32 {
        self.pace
    }

    /// Whether it is to show the wall's time.
    #[must_use]
    pub const fn follows_the_wall(&self) -> bool {
        self.follows
    }

    /// The moment it shows.
    #[must_use]
    pub fn now(&self) -> Moment {
        self.at(Reading::now())
    }

    fn at(&self, reading: Reading) -> Moment {
        Moment(self.shown.load(Ordering::Relaxed) + reading.steady * i64::from(self.pace))
    }

    /// How far the wall clock was set ahead of this one, or behind it, in milliseconds; `None` when they agree.
    #[must_use]
    pub fn stepped(&self) -> Option<i64> {
        self.stepped_at(Reading::now())
    }

    fn stepped_at(&self, reading: Reading) -> Option<i64> {
        let step = reading.wall - self.at(reading).0;
        (self.follows && step.abs() > SLACK_MS).then_some(step)
    }

    /// Takes a step of the wall clock over. Only while nothing is counted.
    pub fn take_over(&self, step: i64) {
        self.shown.fetch_add(step, Ordering::Relaxed);
    }

    /// Today's date in the machine's time zone.
    #[must_use]
    pub fn today(&self) -> Date {
        day_of(self.now())
    }

    /// The week of today (ISO 8601), `2026-W37`.
    #[must_use]
    pub fn week(&self) -> String {
        let week = zoned(self.now()).date().iso_week_date();
        format!("{:04}-W{:02}", week.year(), week.week())
    }
}

/// A moment as a timestamp of the calendar library.
pub(crate) fn timestamp(moment: Moment) -> Timestamp {
    // Moments come from a clock, far inside the range of timestamps; the epoch stands in for a damaged one.
    Timestamp::from_millisecond(moment.0).unwrap_or(Timestamp::UNIX_EPOCH)
}

fn zoned(moment: Moment) -> ZonedDateTime {
    timestamp(moment).to_zoned_datetime(TimeZone::system())
}

/// The local date of a moment.
#[must_use]
pub fn day_of(moment: Moment) -> Date {
    zoned(moment).date()
}

/// The local date so many months after a moment.
#[must_use]
pub fn day_after_months(moment: Moment, months: i32) -> Date {
    let day = zoned(moment).date();
    day.checked_add(Span::new().months(months)).unwrap_or(day)
}

/// The first moment of a day, local time.
#[must_use]
pub fn start_of(day: Date) -> Moment {
    let zoned = day.to_zoned_datetime(TimeZone::system());
    Moment(zoned.map_or(0, |zoned| zoned.timestamp().as_millisecond()))
}

/// The first moment of a year, local time; `None` for a year that no calendar has.
#[must_use]
pub fn start_of_year(year: i16) -> Option<Moment> {
    Date::new(year, 1, 1).ok().map(start_of)
}

/// The moment of the same local day at so many minutes after midnight as the clock on the wall shows them, on a day when
/// the clocks change too.
#[must_use]
pub fn at_minute(moment: Moment, minutes: u32) -> Moment {
    at_minute_in(&TimeZone::system(), moment, minutes)
}

fn at_minute_in(zone: &TimeZone, moment: Moment, minutes: u32) -> Moment {
    const DAY: u32 = 24 * 60;
    let today = timestamp(moment).to_zoned_datetime(zone.clone()).date();
    let day = today.checked_add(Span::new().days(minutes / DAY)).unwrap_or(today);
    let (hour, minute) = (minutes % DAY / 60, minutes % 60);
    let small = |part: u32| i8::try_from(part).unwrap_or_default();
    let wall = day.at(small(hour), small(minute), 0, 0);
    wall.to_zoned_datetime(zone.clone()).map_or(moment, |zoned| Moment(zoned.timestamp().as_millisecond()))
}

/// The name of the kitchen's time zone, the one of the machine that keeps its records; `None` when it has none.
#[must_use]
pub fn zone() -> Option<String> {
    TimeZone::system().iana_name().map(str::to_owned)
}

#[cfg(test)]
mod tests {
    use super::{Clock, Reading};

    const NINE: i64 = 1_790_000_000_000;
    const MINUTE: i64 = 60_000;

    fn after(minutes: i64, step: i64) -> Reading {
        Reading { wall: NINE + minutes * MINUTE + step, steady: 5_000 + minutes * MINUTE }
    }

    #[test]
    fn a_step_of_the_wall_clock_moves_no_count() {
        let clock = Clock::resumed(None, "", after(0, 0));
        for step in [0, 40 * MINUTE, -40 * MINUTE, 365 * 24 * 60 * MINUTE] {
            assert_eq!(clock.at(after(31, step)).0, NINE + 31 * MINUTE, "{step}");
        }
    }

    #[test]
    fn a_step_is_seen_and_taken_over_when_nothing_counts() {
        let clock = Clock::resumed(None, "", after(0, 0));
        assert_eq!(clock.stepped_at(after(31, 0)), None);
        assert_eq!(clock.stepped_at(after(31, 1_900)), None, "the clock's own corrections are no step");
        assert_eq!(clock.stepped_at(after(31, 40 * MINUTE)), Some(40 * MINUTE));
        assert_eq!(clock.stepped_at(after(31, -MINUTE)), Some(-MINUTE));
        clock.take_over(40 * MINUTE);
        assert_eq!(clock.stepped_at(after(32, 40 * MINUTE)), None);
        assert_eq!(clock.at(after(32, 40 * MINUTE)).0, NINE + 72 * MINUTE);
    }

    #[test]
    fn a_program_that_is_started_again_goes_on_from_where_it_was_and_a_machine_does_not() {
        let clock = Clock::resumed(None, "", after(0, 0));
        let kept = clock.to_keep("monday");
        // The wall was set while the program was off.
        let again = Clock::resumed(Some(&kept), "monday", after(31, 40 * MINUTE));
        assert_eq!(again.at(after(31, 40 * MINUTE)).0, NINE + 31 * MINUTE);
        assert_eq!(again.stepped_at(after(31, 40 * MINUTE)), Some(40 * MINUTE), "and is said to have been");
        let other = Clock::resumed(Some(&kept), "tuesday", after(31, 40 * MINUTE));
        assert_eq!(other.at(after(31, 40 * MINUTE)).0, NINE + 71 * MINUTE);
    }

    #[test]
    fn an_hour_of_the_day_is_that_hour_when_the_clocks_change_too() {
        // Central Europe: an hour forward on the last Sunday of March, back on that of October.
        let zone = jiff::tz::TimeZone::posix("CET-1CEST,M3.5.0,M10.5.0/3").unwrap();
        let at = |text: &str| {
            let stamp: jiff::Timestamp = text.parse().unwrap();
            bodega_model::measures::moment::Moment(stamp.as_millisecond())
        };
        for (now, ends) in [
            ("2026-06-01T06:00:00Z", "2026-06-01T19:00:00Z"),
            ("2026-03-29T00:30:00Z", "2026-03-29T19:00:00Z"),
            ("2026-10-25T00:30:00Z", "2026-10-25T20:00:00Z"),
        ] {
            assert_eq!(super::at_minute_in(&zone, at(now), 21 * 60), at(ends), "{now}");
        }
        let midnight = super::at_minute_in(&zone, at("2026-06-01T06:00:00Z"), 24 * 60);
        assert_eq!(midnight, at("2026-06-01T22:00:00Z"));
    }

    #[test]
    fn a_demo_keeps_its_own_time_and_pace() {
        let clock = Clock::starting_at(bodega_model::measures::moment::Moment(NINE), 60);
        assert_eq!(clock.stepped(), None);
        let (first, pace) = (clock.now().0, clock.pace());
        assert!(pace == 60 && (NINE..NINE + 10 * MINUTE).contains(&first), "{first}");
    }
}
