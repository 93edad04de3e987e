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
        /// 250 mL.
        Ml250 = "ml_250", "jar of 250 mL";
        /// Three quarters of a US pint, 12 fl oz.
        ThreeQuarterPint = "three_quarter_pint", "¾ pint";
        /// 370 mL.
        Ml370 = "ml_370", "jar of 370 mL";
        /// US pint, 16 fl oz.
        Pint = "pint", "pint";
        /// Half a litre, 500 mL.
        HalfLitre = "half_litre", "half-litre";
        /// US pint and a half, 24 fl oz.
        PintAndHalf = "pint_and_half", "1½ pint";
        /// 720 mL.
        Ml720 = "ml_720", "jar of 720 mL";
        /// US quart, 32 fl oz.
        Quart = "quart", "quart";
        /// One litre, 1000 mL.
        Litre = "litre", "litre";
        /// US half-gallon, 64 fl oz.
        HalfGallon = "half_gallon", "half-gallon";
        /// Two litres, 2000 mL.
        TwoLitre = "two_litre", "two-litre jar";
        /// US gallon, 128 fl oz.
        Gallon = "gallon", "gallon jar";
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
pub const PINT_NL: i64 = 473_176_473;
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
            Self::Gallon => Ratio::new(8, 1),
            Self::Ml250 => Ratio::new(LITRE_NL, 4 * PINT_NL),
            Self::Ml370 => Ratio::new(LITRE_NL * 37, 100 * PINT_NL),
            Self::HalfLitre => Ratio::new(LITRE_NL, 2 * PINT_NL),
            Self::Ml720 => Ratio::new(LITRE_NL * 72, 100 * PINT_NL),
            Self::Litre => Ratio::new(LITRE_NL, PINT_NL),
            Self::TwoLitre => Ratio::new(LITRE_NL * 2, PINT_NL),
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
            Self::PintAndHalf | Self::HalfGallon | Self::TwoLitre | Self::Gallon => Mouth::Wide,
            Self::QuarterPint
            | Self::HalfPint
            | Self::Ml250
            | Self::ThreeQuarterPint
            | Self::Ml370
            | Self::Pint
            | Self::HalfLitre
            | Self::Ml720
            | Self::Quart
            | Self::Litre => Mouth::Regular,
        }
    }

    /// The jar whose tested time applies.
    ///
    /// Half-pints use the pint time and 1½ pints the quart time (USDA Guide 3, from memory). Quarter-pints, ¾ pints and
    /// metric jars between two US sizes are timed as the next tested size up: common practice, no source. A litre holds 6 % more
    /// than a quart and a half-litre 6 % more than a pint: common practice uses those times, no published process does.
    /// Half-gallons and larger jars have no tested process for tomatoes (USDA Guide 3, from memory).
    #[must_use]
    pub const fn table_jar(self) -> TableJar {
        match self {
            Self::QuarterPint | Self::Ml250 | Self::ThreeQuarterPint | Self::Ml370 => {
                TableJar::NextSizeUp(Self::Pint)
            }
            Self::Ml720 => TableJar::NextSizeUp(Self::Quart),
            Self::HalfPint | Self::Pint => TableJar::Published(Self::Pint),
            Self::PintAndHalf | Self::Quart => TableJar::Published(Self::Quart),
            Self::HalfLitre => TableJar::CommonPractice(Self::Pint),
            Self::Litre => TableJar::CommonPractice(Self::Quart),
            Self::HalfGallon | Self::TwoLitre | Self::Gallon => TableJar::Untested,
        }
    }

    /// The metric jar that is timed like this one, by common practice.
    #[must_use]
    pub fn metric_like(self) -> Option<Self> {
        Self::ALL.iter().copied().find(|jar| jar.table_jar() == TableJar::CommonPractice(self))
    }

    /// Whether tomatoes were ever tested in it, or in a jar that stands for it.
    #[must_use]
    pub fn is_canned(self) -> bool {
        self.table_jar() != TableJar::Untested
    }

    /// The plural a person reads: `quarts`, `half-pints`, `jars of 370 mL`.
    #[must_use]
    pub fn plural(self) -> String {
        match self.label().strip_prefix("jar ") {
            Some(of) => format!("jars {of}"),
            None => format!("{}s", self.label()),
        }
    }

    /// The size that a jar or bottle of unknown size is dosed and timed as: the smallest that holds as much, so that its time
    /// and its acid are never too little. `None` when it holds more than every jar that tomatoes were tested in.
    #[must_use]
    pub fn for_volume(held: Volume) -> Option<Self> {
        let canned = Self::ALL.iter().copied().filter(|jar| jar.is_canned());
        // A name that is the very volume is large enough for it.
        canned.filter(|jar| jar.volume() * (1.0 + 1e-9) >= held).min_by_key(|jar| *jar)
    }
}

#[cfg(test)]
mod tests {
    use super::JarSize;
    use crate::measures::units::Volume;
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
            (JarSize::Gallon, 3785.412),
            (JarSize::Ml250, 250.0),
            (JarSize::Ml370, 370.0),
            (JarSize::Ml720, 720.0),
            (JarSize::TwoLitre, 2000.0),
        ] {
            let held = jar.volume().get::<milliliter>();
            assert!((held - ml).abs() < 0.01, "{jar} holds {held} mL, not {ml}");
        }
    }

    #[test]
    fn the_list_runs_from_small_to_large() {
        assert!(JarSize::ALL.is_sorted_by(|one, next| one.volume() < next.volume()));
    }

    #[test]
    fn a_jar_of_unknown_size_is_the_next_size_that_holds_as_much() {
        for (ml, expected) in [
            (100.0, Some(JarSize::QuarterPint)),
            (236.0, Some(JarSize::HalfPint)),
            (240.0, Some(JarSize::Ml250)),
            (360.0, Some(JarSize::Ml370)),
            (430.0, Some(JarSize::Pint)),
            (725.0, Some(JarSize::Quart)),
            (960.0, Some(JarSize::Litre)),
            (1_001.0, None),
        ] {
            let held = Volume::new::<milliliter>(ml);
            assert_eq!(JarSize::for_volume(held), expected, "{ml} mL");
        }
    }

    #[test]
    fn plurals_are_words() {
        assert_eq!(JarSize::Quart.plural(), "quarts");
        assert_eq!(JarSize::Ml370.plural(), "jars of 370 mL");
        assert_eq!(JarSize::TwoLitre.plural(), "two-litre jars");
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
            "unknown jar \"bucket\"; use one of: quarter_pint, half_pint, ml_250, three_quarter_pint, ml_370, pint, half_litre, \
             pint_and_half, ml_720, quart, litre, half_gallon, two_litre, gallon"
        );
    }
}
