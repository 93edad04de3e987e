//! Measures as recipes have them: cups, pounds, pieces, packets, kept exactly as they are written.
//!
//! US measures by their definitions: the gallon of 231 cubic inches, the avoirdupois pound of 453.59237 g. Source: NIST
//! Handbook 44, Appendix C, from memory.

use num_rational::BigRational;
use num_traits::{Signed, ToPrimitive, Zero};

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// A measure of a recipe.
    "unit", Unit {
        /// US teaspoon, 1/768 gallon.
        Teaspoon = "tsp", "teaspoon";
        /// US tablespoon, 3 teaspoons.
        Tablespoon = "Tbsp", "tablespoon";
        /// US fluid ounce, 6 teaspoons.
        FluidOunce = "fl_oz", "fluid ounce";
        /// US cup, 48 teaspoons.
        Cup = "cup", "cup";
        /// US liquid pint, 2 cups.
        Pint = "pint", "pint";
        /// US liquid quart, 4 cups.
        Quart = "quart", "quart";
        /// US gallon, 16 cups.
        Gallon = "gallon", "gallon";
        /// Millilitre.
        Millilitre = "mL", "mL";
        /// Litre.
        Litre = "L", "litre";
        /// Avoirdupois ounce.
        Ounce = "oz", "oz";
        /// Avoirdupois pound.
        Pound = "lb", "lb";
        /// Gram.
        Gram = "g", "g";
        /// Kilogram.
        Kilogram = "kg", "kg";
        /// Counted: an onion, a clove, a tin.
        Piece = "piece", "piece";
        /// A bought packet.
        Packet = "packet", "packet";
    }
}

/// What a measure measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Dimension {
    /// Room.
    Volume,
    /// Weight.
    Mass,
    /// Pieces.
    Pieces,
    /// Packets.
    Packets,
}

/// `numer/denom`, exact.
#[must_use]
pub fn ratio(numer: i64, denom: i64) -> BigRational {
    BigRational::new(numer.into(), denom.into())
}

impl Unit {
    /// What it measures.
    #[must_use]
    pub const fn dimension(self) -> Dimension {
        match self {
            Self::Teaspoon
            | Self::Tablespoon
            | Self::FluidOunce
            | Self::Cup
            | Self::Pint
            | Self::Quart
            | Self::Gallon
            | Self::Millilitre
            | Self::Litre => Dimension::Volume,
            Self::Ounce | Self::Pound | Self::Gram | Self::Kilogram => Dimension::Mass,
            Self::Piece => Dimension::Pieces,
            Self::Packet => Dimension::Packets,
        }
    }

    /// Whether it is a US measure of room, which spoons and cups give out.
    #[must_use]
    pub fn is_by_spoon(self) -> bool {
        self.dimension() == Dimension::Volume && !matches!(self, Self::Millilitre | Self::Litre)
    }

    /// Millilitres, grams, pieces or packets in one.
    #[must_use]
    pub fn size(self) -> BigRational {
        let teaspoons = |count: i64| ratio(157_725_491 * count, 32_000_000);
        match self {
            Self::Teaspoon => teaspoons(1),
            Self::Tablespoon => teaspoons(3),
            Self::FluidOunce => teaspoons(6),
            Self::Cup => teaspoons(48),
            Self::Pint => teaspoons(96),
            Self::Quart => teaspoons(192),
            Self::Gallon => teaspoons(768),
            Self::Litre | Self::Kilogram => ratio(1000, 1),
            Self::Ounce => ratio(45_359_237, 1_600_000),
            Self::Pound => ratio(45_359_237, 100_000),
            Self::Millilitre | Self::Gram | Self::Piece | Self::Packet => ratio(1, 1),
        }
    }

    /// The least step in which a person measures it out.
    #[must_use]
    pub fn step(self) -> BigRational {
        match self {
            Self::Teaspoon | Self::Cup | Self::Quart | Self::Pound => ratio(1, 4),
            Self::Tablespoon | Self::FluidOunce | Self::Pint | Self::Ounce => ratio(1, 2),
            Self::Gallon => ratio(1, 16),
            Self::Litre | Self::Kilogram => ratio(1, 20),
            Self::Millilitre | Self::Gram => ratio(5, 1),
            Self::Piece | Self::Packet => ratio(1, 1),
        }
    }

    /// The word behind an amount: "2 cups", "1 ½ lb"; nothing behind pieces.
    #[must_use]
    pub fn behind(self, amount: &BigRational) -> String {
        let word = match self {
            Self::Piece => return String::new(),
            Self::Ounce | Self::Pound | Self::Gram | Self::Kilogram | Self::Millilitre => {
                return format!(" {}", self.label());
            }
            _ => self.label(),
        };
        if *amount > ratio(1, 1) { format!(" {word}s") } else { format!(" {word}") }
    }
}

/// Denominators up to which a decimal number is taken for a fraction that somebody meant.
const FRACTIONS: i64 = 64;
/// How near it has to lie.
const NEAR: f64 = 1e-6;
/// Other numbers are kept to so many parts of one.
const DECIMALS: f64 = 1e6;

/// A decimal number as the fraction that it stands for: 0.333333 is a third.
///
/// ```
/// use bodega_model::measures::amounts::{exact, ratio};
/// assert_eq!(exact(0.333_333), ratio(1, 3));
/// assert_eq!(exact(1.27), ratio(127, 100));
/// ```
#[must_use]
pub fn exact(value: f64) -> BigRational {
    // Amounts are bounded far below the whole numbers that a double holds.
    #[allow(clippy::cast_possible_truncation, clippy::cast_precision_loss)]
    let fraction = (1..=FRACTIONS).find_map(|denom| {
        let numer = (value * denom as f64).round();
        ((value - numer / denom as f64).abs() < NEAR).then(|| ratio(numer as i64, denom))
    });
    #[allow(clippy::cast_possible_truncation)]
    fraction.unwrap_or_else(|| ratio((value * DECIMALS).round() as i64, 1_000_000))
}

/// The nearest decimal number.
#[must_use]
pub fn decimal(value: &BigRational) -> f64 {
    value.to_f64().unwrap_or(f64::NAN)
}

/// As people write it: "1 ½", "⅔", "12.4".
#[must_use]
pub fn in_words(amount: &BigRational) -> String {
    const GLYPHS: [(i64, i64, &str); 9] = [
        (1, 8, "⅛"),
        (1, 4, "¼"),
        (1, 3, "⅓"),
        (3, 8, "⅜"),
        (1, 2, "½"),
        (5, 8, "⅝"),
        (2, 3, "⅔"),
        (3, 4, "¾"),
        (7, 8, "⅞"),
    ];
    let size = amount.abs();
    let (whole, rest) = (size.trunc(), size.fract());
    let glyph = GLYPHS.iter().find(|(numer, denom, _)| ratio(*numer, *denom) == rest);
    match (whole.is_zero(), glyph) {
        _ if rest.is_zero() => whole.to_integer().to_string(),
        (true, Some((_, _, glyph))) => (*glyph).to_owned(),
        (false, Some((_, _, glyph))) => format!("{} {glyph}", whole.to_integer()),
        (_, None) => format!("{}", (decimal(&size) * 100.0).round() / 100.0),
    }
}
