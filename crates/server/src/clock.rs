//! The only place that reads the time of day; everything else is handed a moment.

use bodega_core::measures::moment::Moment;
use jiff::civil::{Date, date};
use jiff::tz::TimeZone;
use jiff::{Span, Timestamp, ZonedDateTime};

/// The kitchen's clock: wall time, or for a demo a time of its own that starts at a chosen moment and may run faster.
#[derive(Debug, Clone, Copy)]
pub struct Clock {
    /// Wall time, in milliseconds, at which the clock showed `shown`.
    set_at: i64,
    shown: i64,
    pace: u32,
}

impl Clock {
    /// The machine's own time.
    #[must_use]
    pub const fn wall() -> Self {
        Self { set_at: 0, shown: 0, pace: 1 }
    }

    /// A clock that shows `moment` now and runs on `pace` times as fast as the wall.
    #[must_use]
    pub fn starting_at(moment: Moment, pace: u32) -> Self {
        Self { set_at: Timestamp::now().as_millisecond(), shown: moment.0, pace }
    }

    /// How many times as fast as the wall it runs.
    #[must_use]
    pub const fn pace(self) -> u32 {
        self.pace
    }

    /// The moment it shows.
    #[must_use]
    pub fn now(self) -> Moment {
        Moment(self.shown + (Timestamp::now().as_millisecond() - self.set_at) * i64::from(self.pace))
    }

    /// Today's date in the machine's time zone.
    #[must_use]
    pub fn today(self) -> Date {
        day_of(self.now())
    }

    /// The week of today (ISO 8601), `2026-W37`.
    #[must_use]
    pub fn week(self) -> String {
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

/// The first moment of a year, local time.
#[must_use]
pub fn start_of_year(year: i16) -> Option<Moment> {
    let zoned = date(year, 1, 1).to_zoned_datetime(TimeZone::system()).ok()?;
    Some(Moment(zoned.timestamp().as_millisecond()))
}

/// Minutes after midnight of a moment, local time.
#[must_use]
pub fn minute_of_day(moment: Moment) -> u32 {
    let time = zoned(moment).time();
    u32::try_from(i32::from(time.hour()) * 60 + i32::from(time.minute())).unwrap_or(0)
}
