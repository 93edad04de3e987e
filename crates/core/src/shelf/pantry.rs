//! What is eaten, when it runs out, and what to put up next season.

use crate::measures::moment::Moment;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// How a jar leaves the shelf.
    "how", Leaving {
        /// Opened and eaten.
        Eaten = "eaten", "eaten";
        /// Given away.
        Given = "given", "given away";
        /// Thrown away, with a reason.
        Discarded = "discarded", "discarded";
    }
}

vocabulary! {
    /// Why a jar was thrown away.
    "why", Discard {
        /// It leaked.
        Leak = "leak", "it leaked";
        /// Its lid bulged.
        Bulge = "bulge", "lid bulged";
        /// The seal was broken.
        Unsealed = "unsealed", "seal broken";
        /// It spurted when it was opened.
        Spurt = "spurt", "it spurted";
        /// It smelled off.
        Smell = "smell", "smelled off";
        /// There was mould.
        Mould = "mould", "mould";
        /// Too old for anybody's liking.
        Old = "old", "too old";
        /// It was dropped.
        Dropped = "dropped", "dropped";
        /// It did not seal or was not processed, and nobody put it right in time.
        TooLate = "too_late", "not put right in time";
    }
}

impl Discard {
    /// Whether the contents spoiled, so that its sisters of the same batch are looked at.
    #[must_use]
    pub const fn is_spoilage(self) -> bool {
        !matches!(self, Self::Old | Self::Dropped | Self::TooLate)
    }
}

/// What to look at before a jar is opened. Never taste to find out. Source: USDA Guide 1, from memory.
pub const BEFORE_OPENING: [&str; 6] = [
    "The lid is drawn in and does not move; nothing has leaked or dried on the outside.",
    "The lid does not bulge.",
    "Nothing spurts when it is opened.",
    "It smells of tomato and of nothing else.",
    "No mould, under the lid either; no odd bubbles.",
    "In doubt: do not taste. Discard it where nobody and no animal can eat it, and wash what it touched.",
];

/// Milliseconds of a mean month.
const MONTH_MS: f64 = 365.25 / 12.0 * 24.0 * 3_600_000.0;
/// Months of a season: from one harvest to the next.
const SEASON_MONTHS: f64 = 12.0;
/// Least months to count a rate over; a jar eaten on the first day is not thirty a month.
const LEAST_MONTHS: f64 = 1.0;

/// What is to be expected of one product in one size of jar.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Forecast {
    /// Months that were counted over.
    pub months: f64,
    /// Jars that left in them to be eaten.
    pub eaten: u32,
    /// Jars a month.
    pub per_month: f64,
    /// When the shelf runs out at that rate; `None` while nothing is eaten.
    pub runs_out: Option<Moment>,
    /// Jars that last from one harvest to the next.
    pub next_season: u32,
}

/// What the last year says: jars eaten since they were first on the shelf, at most a year back.
#[must_use]
pub fn forecast(on_shelf: u32, eaten_at: &[Moment], first_on: Moment, now: Moment) -> Forecast {
    #[allow(clippy::cast_precision_loss)] // milliseconds of some years, below 2^53
    let span = |from: Moment| now.since_ms(from) as f64 / MONTH_MS;
    let months = span(first_on).clamp(LEAST_MONTHS, SEASON_MONTHS);
    let counted = eaten_at.iter().filter(|at| span(**at) <= months && **at <= now).count();
    let eaten = u32::try_from(counted).unwrap_or(u32::MAX);
    let per_month = f64::from(eaten) / months;
    #[allow(clippy::cast_possible_truncation)] // a shelf's months, far below 2^63 ms
    let after = |months: f64| Moment(now.0 + (months * MONTH_MS) as i64);
    let runs_out = (eaten > 0).then(|| after(f64::from(on_shelf) / per_month));
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // a household's jars
    let next_season = (per_month * SEASON_MONTHS - 1e-9).ceil().max(0.0) as u32;
    Forecast { months, eaten, per_month, runs_out, next_season }
}

/// Plants that give so many pounds.
#[must_use]
pub fn plants(pounds: f64, pounds_per_plant: f64) -> u32 {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // clamped to a field
    let whole = (pounds / pounds_per_plant - 1e-9).ceil().clamp(0.0, 1e6) as u32;
    whole
}

#[cfg(test)]
mod tests {
    use super::{MONTH_MS, forecast, plants};
    use crate::measures::moment::Moment;

    #[allow(clippy::cast_possible_truncation)]
    fn month(months: f64) -> Moment {
        Moment(1_790_000_000_000 + (months * MONTH_MS) as i64)
    }

    #[test]
    fn the_rate_of_the_months_since_they_were_put_up_says_when_they_run_out() {
        // Twelve eaten in six months, ten left: two a month, five months more, twenty-four for a season.
        let eaten: Vec<Moment> = (0..12).map(|n| month(f64::from(n) * 0.5)).collect();
        let answer = forecast(10, &eaten, month(0.0), month(6.0));
        assert!((answer.per_month - 2.0).abs() < 1e-6 && answer.next_season == 24, "{answer:?}");
        assert!((answer.runs_out.unwrap().since_ms(month(11.0))).abs() < 1000, "{answer:?}");
        assert_eq!(forecast(10, &[], month(0.0), month(6.0)).runs_out, None);
        // On the first day a month is counted, so that one jar is not thirty.
        assert_eq!(forecast(10, &[month(0.0)], month(0.0), month(0.1)).next_season, 12);
    }

    #[test]
    fn what_was_eaten_more_than_a_year_ago_says_nothing() {
        let answer = forecast(5, &[month(0.0), month(20.0)], month(0.0), month(24.0));
        assert_eq!((answer.eaten, answer.next_season), (1, 1));
    }

    #[test]
    fn plants_are_rounded_up() {
        assert_eq!((plants(0.0, 10.0), plants(100.0, 10.0), plants(101.0, 10.0)), (0, 10, 11));
    }
}
