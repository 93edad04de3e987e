//! Jar sizes: what they hold, and which of them a tested process stands for.

use num_rational::Ratio;

use crate::measures::units::{Volume, quarts};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Size of a jar, from smallest to largest.
    "jar", JarSize {
        /// A quarter of a US pint, 4 fl oz.
        QuarterPint = "quarter_pint", "quarter-pint";
        /// US half-pint, 8 fl oz.
        HalfPint = "half_pint", "half-pint";
        /// Three quarters of a US pint, 12 fl oz.
        ThreeQuarterPint = "three_quarter_pint", "¾ pint";
        /// US pint, 16 fl oz.
        Pint = "pint", "pint";
        /// Half a litre, 500 mL.
        HalfLitre = "half_litre", "half-litre";
        /// US pint and a half, 24 fl oz.
        PintAndHalf = "pint_and_half", "1½ pint";
        /// US quart, 32 fl oz.
        Quart = "quart", "quart";
        /// One litre, 1000 mL.
        Litre = "litre", "litre";
        /// US half-gallon, 64 fl oz.
        HalfGallon = "half_gallon", "half-gallon";
    }
}

vocabulary! {
    /// Width of a jar's mouth; it decides which lids fit.
    "mouth", Mouth {
        /// The narrower one.
        Regular = "regular", "regular mouth";
        /// The wider one.
        Wide = "wide", "wide mouth";
    }
}

/// Nanolitres in a US pint: 16 fl oz of 29.5735295625 mL, exact.
pub(crate) const PINT_NL: i64 = 473_176_473;
/// Nanolitres in a litre.
const LITRE_NL: i64 = 1_000_000_000;

/// Which row of a process table a jar is read from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TableJar {
    /// The jar has its own row, or the published rule that the next larger size covers it.
    Published(JarSize),
    /// Smaller than the row's jar and in no published row of its own; people use the next tested size up.
    NextSizeUp(JarSize),
    /// Larger than the row's jar; people use the row by habit and nothing published supports it.
    CommonPractice(JarSize),
    /// No process was ever tested in this jar.
    Untested,
}

impl JarSize {
    /// What the jar holds when full, as an exact share of a US pint.
    #[must_use]
    pub fn pints(self) -> Ratio<i64> {
        match self {
            Self::QuarterPint => Ratio::new(1, 4),
            Self::HalfPint => Ratio::new(1, 2),
            Self::ThreeQuarterPint => Ratio::new(3, 4),
            Self::Pint => Ratio::new(1, 1),
            Self::PintAndHalf => Ratio::new(3, 2),
            Self::Quart => Ratio::new(2, 1),
            Self::HalfGallon => Ratio::new(4, 1),
            Self::HalfLitre => Ratio::new(LITRE_NL, 2 * PINT_NL),
            Self::Litre => Ratio::new(LITRE_NL, PINT_NL),
        }
    }

    /// What the jar holds when full.
    #[must_use]
    pub fn volume(self) -> Volume {
        let pints = self.pints();
        #[allow(clippy::cast_precision_loss)] // both parts stay far below 2^53
        let value = *pints.numer() as f64 / *pints.denom() as f64;
        quarts(value / 2.0)
    }

    /// The mouth these jars usually have, until the household says otherwise. Common practice, no source.
    #[must_use]
    pub const fn usual_mouth(self) -> Mouth {
        match self {
            Self::PintAndHalf | Self::HalfGallon => Mouth::Wide,
            Self::QuarterPint
            | Self::HalfPint
            | Self::ThreeQuarterPint
            | Self::Pint
            | Self::HalfLitre
            | Self::Quart
            | Self::Litre => Mouth::Regular,
        }
    }

    /// The jar whose tested time applies.
    ///
    /// Half-pints use the pint time and 1½ pints the quart time (USDA Guide 3, from memory). Quarter-pints and ¾ pints are
    /// timed as the next tested size up: common practice, no source. A litre holds 6 % more
    /// than a quart and a half-litre 6 % more than a pint: common practice uses those times, no published process does.
    /// Half-gallons have no tested process for tomatoes (USDA Guide 3, from memory).
    #[must_use]
    pub const fn table_jar(self) -> TableJar {
        match self {
            Self::QuarterPint | Self::ThreeQuarterPint => TableJar::NextSizeUp(Self::Pint),
            Self::HalfPint | Self::Pint => TableJar::Published(Self::Pint),
            Self::PintAndHalf | Self::Quart => TableJar::Published(Self::Quart),
            Self::HalfLitre => TableJar::CommonPractice(Self::Pint),
            Self::Litre => TableJar::CommonPractice(Self::Quart),
            Self::HalfGallon => TableJar::Untested,
        }
    }

    /// The metric jar that is timed like this one, by common practice.
    #[must_use]
    pub fn metric_like(self) -> Option<Self> {
        Self::ALL.iter().copied().find(|jar| jar.table_jar() == TableJar::CommonPractice(self))
    }

    /// The plural a person reads: `quarts`, `half-pints`.
    #[must_use]
    pub fn plural(self) -> String {
        format!("{}s", self.label())
    }
}

#[cfg(test)]
mod tests {
    use super::JarSize;
    use uom::si::volume::milliliter;

    #[test]
    fn jars_hold_what_their_names_say() {
        // US fluid ounce 29.5735295625 mL (NIST Handbook 44, Appendix C).
        for (jar, ml) in [
            (JarSize::QuarterPint, 118.294),
            (JarSize::HalfPint, 236.588),
            (JarSize::ThreeQuarterPint, 354.882),
            (JarSize::Pint, 473.176),
            (JarSize::PintAndHalf, 709.765),
            (JarSize::Quart, 946.353),
            (JarSize::HalfLitre, 500.0),
            (JarSize::Litre, 1000.0),
            (JarSize::HalfGallon, 1892.706),
        ] {
            let held = jar.volume().get::<milliliter>();
            assert!((held - ml).abs() < 0.01, "{jar} holds {held} mL, not {ml}");
        }
    }

    #[test]
    fn words_round_trip_and_strangers_are_refused() {
        for jar in JarSize::ALL {
            assert_eq!(jar.word().parse(), Ok(*jar));
            let json = serde_json::to_string(jar).unwrap();
            assert_eq!(serde_json::from_str::<JarSize>(&json).unwrap(), *jar);
        }
        let error = "bucket".parse::<JarSize>().unwrap_err();
        assert_eq!(
            error.to_string(),
            "unknown jar \"bucket\"; use one of: quarter_pint, half_pint, three_quarter_pint, pint, half_litre, pint_and_half, quart, litre, half_gallon"
        );
    }
}
