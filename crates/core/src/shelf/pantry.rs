//! What is eaten, when it runs out, and what to put up next season.

use bodega_model::measures::moment::Moment;
use bodega_model::measures::range::Range;
use bodega_model::shelf::leaving::{History, Leaving};
use statrs::distribution::{DiscreteCDF, NegativeBinomial};

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
/// Jeffreys' prior for a rate: half a jar.
const PRIOR: f64 = 0.5;
/// Least months to count a rate over; a jar eaten on the first day is not thirty a month.
const LEAST_MONTHS: f64 = 1.0;

/// What is to be expected of one product in one size of jar.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Forecast {
    /// Months of the last year in which there was some.
    pub months: f64,
    /// Jars that were eaten in them.
    pub eaten: u32,
    /// Jars that were given away in them.
    pub given: u32,
    /// Jars eaten a month while there were some.
    pub per_month: f64,
    /// When the shelf runs out at that rate; `None` while nothing is eaten.
    pub runs_out: Option<Moment>,
    /// Jars that are eaten from one harvest to the next: eight times in ten between the ends.
    pub next_season: Range<u32>,
}

/// How the number of jars on a shelf changed over a stretch that ends with a moment.
struct Stock {
    /// Milliseconds in which there was at least one: an empty shelf says nothing of what is wanted.
    stocked_ms: i64,
    /// Jars at the end.
    there: i64,
}

/// What the history says of a stretch.
fn stock(history: &History, from: Moment, to: Moment) -> Stock {
    let came = history.came.iter().map(|(at, count)| (*at, i64::from(*count)));
    let left = history.left.iter().map(|(at, _, count)| (*at, -i64::from(*count)));
    let mut turns: Vec<(Moment, i64)> = came.chain(left).filter(|(at, _)| *at <= to).collect();
    turns.sort_unstable_by_key(|(at, _)| *at);
    let mut stock = Stock { stocked_ms: 0, there: 0 };
    let mut since = from;
    for (at, change) in turns {
        if at > since {
            stock.stocked_ms += if stock.there > 0 { at.since_ms(since) } else { 0 };
            since = at;
        }
        stock.there += change;
    }
    stock.stocked_ms += if stock.there > 0 { to.since_ms(since) } else { 0 };
    stock
}

/// From when on a shelf's history is asked for: the beginning of the day before which nothing counts, so that the question
/// is the same all day.
#[must_use]
pub fn asked_from(now: Moment) -> Moment {
    let from = counted_from(now);
    Moment(from.0 - from.0.rem_euclid(24 * 3_600_000))
}

/// From when on what happened says what is to be expected: what left before is of no account.
fn counted_from(now: Moment) -> Moment {
    #[allow(clippy::cast_possible_truncation)] // milliseconds of a year
    let year = (SEASON_MONTHS * MONTH_MS) as i64;
    Moment(now.0 - year)
}

/// What the last year says: jars eaten while there were some, as a rate that nobody knows for sure. The range is that of a
/// negative binomial, which is what a Poisson count with a gamma-distributed rate comes to (Gelman et al., Bayesian Data
/// Analysis, section 2.6, from memory), with Jeffreys' prior.
#[must_use]
pub fn forecast(history: &History, now: Moment) -> Forecast {
    let from = counted_from(now);
    let stock = stock(history, from, now);
    #[allow(clippy::cast_precision_loss)] // milliseconds of a year, below 2^53
    let months = (stock.stocked_ms as f64 / MONTH_MS).clamp(LEAST_MONTHS, SEASON_MONTHS);
    let left = |how: Leaving| {
        let counted = history.left.iter().filter(|(at, why, _)| *why == how && *at > from && *at <= now);
        counted.map(|(.., count)| count).sum::<u32>()
    };
    let (eaten, given) = (left(Leaving::Eaten), left(Leaving::Given));
    let per_month = f64::from(eaten) / months;
    let on_shelf = stock.there.max(0);
    #[allow(clippy::cast_possible_truncation)] // a shelf's months, far below 2^63 ms
    let after = |months: f64| Moment(now.0 + (months * MONTH_MS) as i64);
    #[allow(clippy::cast_precision_loss)] // a household's jars
    let runs_out = (eaten > 0).then(|| after(on_shelf as f64 / per_month));
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // a household's jars
    let expected = (per_month * SEASON_MONTHS - 1e-9).ceil().max(0.0) as u32;
    let edge = |share: f64| {
        let wanted = NegativeBinomial::new(f64::from(eaten) + PRIOR, months / (months + SEASON_MONTHS));
        wanted.map_or(expected, |wanted| u32::try_from(wanted.inverse_cdf(share)).unwrap_or(u32::MAX))
    };
    let next_season = if eaten == 0 {
        Range { low: 0, expected: 0, high: 0 }
    } else {
        Range { low: edge(0.1).min(expected), expected, high: edge(0.9).max(expected) }
    };
    Forecast { months, eaten, given, per_month, runs_out, next_season }
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
    use super::{History, Leaving, MONTH_MS, forecast, plants};
    use bodega_model::measures::moment::Moment;

    #[allow(clippy::cast_possible_truncation)]
    fn month(months: f64) -> Moment {
        Moment(1_790_000_000_000 + (months * MONTH_MS) as i64)
    }

    fn history(came: u32, left: &[f64], how: Leaving) -> History {
        History { came: vec![(month(0.0), came)], left: left.iter().map(|at| (month(*at), how, 1)).collect() }
    }

    #[test]
    fn the_rate_of_the_months_since_they_were_put_up_says_when_they_run_out() {
        // Twelve eaten in six months, ten left: two a month, five months more, twenty-four for a season.
        let eaten: Vec<f64> = (0..12).map(|n| f64::from(n) * 0.5 + 0.01).collect();
        let answer = forecast(&history(22, &eaten, Leaving::Eaten), month(6.0));
        assert!((answer.per_month - 2.0).abs() < 1e-6 && answer.next_season.expected == 24, "{answer:?}");
        assert!((answer.runs_out.unwrap().since_ms(month(11.0))).abs() < 1000, "{answer:?}");
        // Twelve seen are two in three sure: the range is wide, and says so.
        assert!(answer.next_season.low < 18 && answer.next_season.high > 30, "{answer:?}");
        assert_eq!(forecast(&history(10, &[], Leaving::Eaten), month(6.0)).runs_out, None);
        // On the first day a month is counted, so that one jar is not thirty.
        let early = forecast(&history(11, &[0.01], Leaving::Eaten), month(0.1));
        assert_eq!(early.next_season.expected, 12);
    }

    #[test]
    fn an_empty_shelf_does_not_say_that_nobody_wanted_any() {
        // Six jars eaten within three months, then nothing there for nine: two a month, not half a jar.
        let eaten = [0.5, 1.0, 1.5, 2.0, 2.5, 3.0];
        let answer = forecast(&history(6, &eaten, Leaving::Eaten), month(12.0));
        assert!((answer.months - 3.0).abs() < 0.01 && answer.next_season.expected == 24, "{answer:?}");
    }

    #[test]
    fn what_is_given_away_is_counted_apart() {
        let answer = forecast(&history(9, &[1.0, 2.0], Leaving::Given), month(6.0));
        assert_eq!((answer.eaten, answer.given, answer.next_season.expected), (0, 2, 0));
    }

    #[test]
    fn what_was_eaten_more_than_a_year_ago_says_nothing() {
        let answer = forecast(&history(7, &[0.1, 20.0], Leaving::Eaten), month(24.0));
        assert_eq!((answer.eaten, answer.next_season.expected), (1, 1));
    }

    #[test]
    fn plants_are_rounded_up() {
        assert_eq!((plants(0.0, 10.0), plants(100.0, 10.0), plants(101.0, 10.0)), (0, 10, 11));
    }
}
