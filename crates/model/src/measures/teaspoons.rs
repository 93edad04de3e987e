//! Kitchen measures as exact fractions of a teaspoon, and the labels people read at the jar.
//!
//! Rounding lives here and only ever goes up: a dose of acid is never rounded down.

use num_rational::Ratio;
use serde::{Serialize, Serializer};

/// Teaspoons in a tablespoon (US customary).
const TSP_PER_TBSP: i64 = 3;
/// Teaspoons in a cup (US customary).
const TSP_PER_CUP: i64 = 48;
/// One US teaspoon in millilitres is 4.92892159375 exactly (1/768 of a 231 cubic inch gallon).
pub const ML_PER_TSP: f64 = 4.928_921_593_75;

/// An exact amount in US teaspoons; zero or more.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Teaspoons(Ratio<i64>);

impl Teaspoons {
    /// Nothing.
    pub const ZERO: Self = Self(Ratio::new_raw(0, 1));

    /// `numer/denom` teaspoons.
    ///
    /// # Panics
    /// When `denom` is zero or the amount is negative; both are slips in code, not input.
    #[must_use]
    pub fn new(numer: i64, denom: i64) -> Self {
        let amount = Ratio::new(numer, denom);
        assert!(amount >= Ratio::ZERO, "a measure cannot be negative");
        Self(amount)
    }

    /// Whole tablespoons.
    #[must_use]
    pub fn tablespoons(count: i64) -> Self {
        Self::new(count * TSP_PER_TBSP, 1)
    }

    /// The amount times a count of jars.
    #[must_use]
    pub fn times(self, count: u32) -> Self {
        Self(self.0 * i64::from(count))
    }

    /// The amount times a ratio of volumes, exact.
    #[must_use]
    pub fn in_proportion(self, part: Ratio<i64>) -> Self {
        Self(self.0 * part)
    }

    /// Rounded **up** to the next multiple of `step`.
    ///
    /// ```
    /// use bodega_model::measures::teaspoons::Teaspoons;
    /// let eighth = Teaspoons::new(1, 8);
    /// assert_eq!(Teaspoons::new(26, 100).rounded_up_to(eighth), Teaspoons::new(3, 8));
    /// assert_eq!(Teaspoons::new(1, 4).rounded_up_to(eighth), Teaspoons::new(1, 4));
    /// ```
    #[must_use]
    pub fn rounded_up_to(self, step: Self) -> Self {
        Self((self.0 / step.0).ceil() * step.0)
    }

    /// The amount as a decimal number of teaspoons.
    #[must_use]
    pub fn as_f64(self) -> f64 {
        // Kitchen amounts have small numerators and denominators, far inside the 53 bits of a double.
        #[allow(clippy::cast_precision_loss)]
        let value = *self.0.numer() as f64 / *self.0.denom() as f64;
        value
    }

    /// The amount in millilitres.
    #[must_use]
    pub fn millilitres(self) -> f64 {
        self.as_f64() * ML_PER_TSP
    }

    /// As a person measures it out with US spoons.
    const fn in_us_spoons(self) -> Spoonfuls {
        Spoonfuls { tsp: self, to_tbsp: TSP_PER_TBSP, to_cup: TSP_PER_CUP }
    }

    /// What a person measures out for one jar: `"1½ Tbsp"`, `"⅜ tsp"`, `"2 Tbsp + ½ tsp"`.
    #[must_use]
    pub fn label(self) -> String {
        self.in_us_spoons().label()
    }

    /// What a person measures out for a whole batch, in cups from a quarter cup upward: `"1 cup + 2 Tbsp"`.
    #[must_use]
    pub fn total_label(self) -> String {
        self.in_us_spoons().total_label()
    }
}

/// Teaspoons of some household, with what its tablespoon and cup hold of them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Spoonfuls {
    /// How many of its teaspoons.
    pub tsp: Teaspoons,
    /// Of them in a tablespoon.
    pub to_tbsp: i64,
    /// Of them in a cup.
    pub to_cup: i64,
}

impl Spoonfuls {
    /// For one jar.
    pub fn label(self) -> String {
        let amount = self.tsp.0;
        let half_tbsp = Ratio::new(self.to_tbsp, 2);
        let halves = amount / half_tbsp;
        // Where a half tablespoon is whole teaspoons, those are on the spoon set.
        if self.to_tbsp % 2 == 1 && amount >= half_tbsp && halves.is_integer() {
            return format!("{} Tbsp", mixed(halves / 2));
        }
        let (tbsp, tsp) = split(amount, self.to_tbsp);
        join(&[(tbsp, "Tbsp")], tsp)
    }

    /// For many jars, in cups from a quarter cup upward.
    pub fn total_label(self) -> String {
        let quarter_cup = Ratio::new(self.to_cup, 4);
        if self.tsp.0 < quarter_cup {
            return self.label();
        }
        let quarters = (self.tsp.0 / quarter_cup).floor();
        let rest = self.tsp.0 - quarters * quarter_cup;
        let cups = quarters / 4;
        let noun = if cups > Ratio::ONE { "cups" } else { "cup" };
        let (tbsp, tsp) = split(rest, self.to_tbsp);
        join(&[(cups, noun), (tbsp, "Tbsp")], tsp)
    }
}

fn split(tsp: Ratio<i64>, unit: i64) -> (Ratio<i64>, Ratio<i64>) {
    let whole = (tsp / unit).floor();
    (whole, tsp - whole * unit)
}

fn join(parts: &[(Ratio<i64>, &str)], tsp: Ratio<i64>) -> String {
    let mut said = String::new();
    for (amount, unit) in parts.iter().copied().chain([(tsp, "tsp")]) {
        let is_all_there_is = unit == "tsp" && said.is_empty();
        if amount > Ratio::ZERO || is_all_there_is {
            let and = if said.is_empty() { "" } else { " + " };
            said.extend([and, &mixed(amount), " ", unit]);
        }
    }
    said
}

/// A fraction the way a measuring spoon says it: `1½`, `⅜`, `12`; unusual fractions as `5/7`.
#[must_use]
pub fn mixed(amount: Ratio<i64>) -> String {
    let whole = amount.floor();
    let part = amount - whole;
    let glyph = match (*part.numer(), *part.denom()) {
        (0, _) => "",
        (1, 8) => "⅛",
        (1, 4) => "¼",
        (3, 8) => "⅜",
        (1, 2) => "½",
        (5, 8) => "⅝",
        (3, 4) => "¾",
        (7, 8) => "⅞",
        (1, 3) => "⅓",
        (2, 3) => "⅔",
        (numer, denom) if whole == Ratio::ZERO => return format!("{numer}/{denom}"),
        (numer, denom) => return format!("{} {numer}/{denom}", whole.to_integer()),
    };
    if whole == Ratio::ZERO && !glyph.is_empty() {
        glyph.to_owned()
    } else {
        format!("{}{glyph}", whole.to_integer())
    }
}

impl std::ops::Add for Teaspoons {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl std::iter::Sum for Teaspoons {
    fn sum<I: Iterator<Item = Self>>(iter: I) -> Self {
        iter.fold(Self::ZERO, std::ops::Add::add)
    }
}

impl Serialize for Teaspoons {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_f64(self.as_f64())
    }
}

#[cfg(test)]
mod tests {
    use super::Teaspoons;

    #[test]
    fn labels_read_like_measuring_spoons() {
        for (numer, denom, label, total) in [
            (6, 1, "2 Tbsp", "2 Tbsp"),
            (3, 1, "1 Tbsp", "1 Tbsp"),
            (3, 2, "½ Tbsp", "½ Tbsp"),
            (9, 2, "1½ Tbsp", "1½ Tbsp"),
            (1, 8, "⅛ tsp", "⅛ tsp"),
            (3, 8, "⅜ tsp", "⅜ tsp"),
            (13, 2, "2 Tbsp + ½ tsp", "2 Tbsp + ½ tsp"),
            (13, 1, "4 Tbsp + 1 tsp", "¼ cup + 1 tsp"),
            (60, 1, "20 Tbsp", "1¼ cups"),
            (54, 1, "18 Tbsp", "1 cup + 2 Tbsp"),
            (5, 1, "1 Tbsp + 2 tsp", "1 Tbsp + 2 tsp"),
            (0, 1, "0 tsp", "0 tsp"),
        ] {
            let amount = Teaspoons::new(numer, denom);
            assert_eq!(amount.label(), label, "{numer}/{denom}");
            assert_eq!(amount.total_label(), total, "{numer}/{denom} in all");
        }
    }

    #[test]
    fn a_part_that_no_spoon_measures_is_written_out() {
        assert_eq!(super::mixed(num_rational::Ratio::new(1, 16)), "1/16");
        assert_eq!(super::mixed(num_rational::Ratio::new(33, 16)), "2 1/16");
    }
}
