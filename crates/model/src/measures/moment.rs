//! A point in time that the caller brings; the core never reads a clock.

use serde::{Deserialize, Serialize};
use uom::si::time::millisecond;

use crate::measures::units::Time;

/// Milliseconds since 1970-01-01 00:00 UTC.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(transparent)]
pub struct Moment(pub i64);

impl Moment {
    const MS_PER_SECOND: i64 = 1000;
    const MS_PER_MINUTE: i64 = 60 * Self::MS_PER_SECOND;

    /// This moment moved on by whole minutes.
    #[must_use]
    pub const fn plus_minutes(self, minutes: i64) -> Self {
        Self(self.0 + minutes * Self::MS_PER_MINUTE)
    }

    /// This moment and whole minutes later.
    #[must_use]
    pub const fn plus(self, minutes: Minutes) -> Self {
        Self(self.0 + minutes.ms())
    }

    /// This moment and a span later, to the millisecond.
    #[must_use]
    pub fn plus_time(self, span: Time) -> Self {
        #[allow(clippy::cast_possible_truncation)] // far below 2^53
        Self(self.0 + span.get::<millisecond>().round() as i64)
    }

    /// Time from `earlier` to this moment; negative when it lies before.
    #[must_use]
    pub fn since(self, earlier: Self) -> Time {
        #[allow(clippy::cast_precision_loss)] // a century of milliseconds stays below 2^53
        Time::new::<millisecond>(self.since_ms(earlier) as f64)
    }

    /// Milliseconds from `earlier` to this moment; negative when it lies before.
    #[must_use]
    pub const fn since_ms(self, earlier: Self) -> i64 {
        self.0 - earlier.0
    }
}

/// When something was touched.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Touched {
    /// The moment.
    pub at: Moment,
    /// A page kept it while it found nobody, and it comes after its time: what was said since stands.
    pub late: bool,
}

impl From<Moment> for Touched {
    fn from(at: Moment) -> Self {
        Self { at, late: false }
    }
}

/// A whole number of minutes, the unit of every tested process.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(transparent)]
pub struct Minutes(pub u32);

impl Minutes {
    /// The same span in milliseconds.
    #[must_use]
    pub const fn ms(self) -> i64 {
        self.0 as i64 * Moment::MS_PER_MINUTE
    }
}

impl std::fmt::Display for Minutes {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{} min", self.0)
    }
}
