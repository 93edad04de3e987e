//! The only place that reads the time of day; everything else is handed a moment.

use bodega_core::moment::Moment;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// The kitchen's clock: wall time, or wall time moved so that a demo opens at a chosen moment.
#[derive(Debug, Clone, Copy)]
pub struct Clock {
    shift_ms: i64,
}

impl Clock {
    /// The machine's own time.
    #[must_use]
    pub const fn wall() -> Self {
        Self { shift_ms: 0 }
    }

    /// A clock that shows `moment` now and runs on at the usual pace.
    #[must_use]
    pub fn starting_at(moment: Moment) -> Self {
        Self { shift_ms: moment.0 - Timestamp::now().as_millisecond() }
    }

    /// The moment it shows.
    #[must_use]
    pub fn now(self) -> Moment {
        Moment(Timestamp::now().as_millisecond() + self.shift_ms)
    }

    /// Today's date in the machine's time zone, `YYYY-MM-DD`.
    #[must_use]
    pub fn today(self) -> String {
        day_of(self.now())
    }
}

/// The local date of a moment, `YYYY-MM-DD`.
#[must_use]
pub fn day_of(moment: Moment) -> String {
    // Moments come from a clock, far inside the range of timestamps; the epoch stands in for a damaged one.
    let timestamp = Timestamp::from_millisecond(moment.0).unwrap_or(Timestamp::UNIX_EPOCH);
    timestamp.to_zoned_datetime(TimeZone::system()).date().to_string()
}
