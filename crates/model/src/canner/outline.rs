//! What a canner and its jars are from outside and from above.

use std::collections::BTreeMap;

use crate::jars::size::JarSize;
use crate::measures::units::{Area, Length, millimetres};

/// Outside of a jar with its lid and ring.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct JarOutside {
    /// Widest part.
    pub diameter: Length,
    /// From the base to the top of the lid.
    pub height: Length,
}

/// Usual outer sizes of preserving jars in millimetres; common practice, no source. Makers differ by a few millimetres.
#[must_use]
pub fn usual_outside(jar: JarSize) -> JarOutside {
    let (diameter, height) = match jar {
        JarSize::QuarterPint => (73.0, 62.0),
        JarSize::HalfPint => (73.0, 98.0),
        JarSize::Ml250 => (74.0, 100.0),
        JarSize::ThreeQuarterPint => (78.0, 133.0),
        JarSize::Ml370 => (78.0, 136.0),
        JarSize::Pint => (83.0, 130.0),
        JarSize::HalfLitre => (88.0, 137.0),
        JarSize::PintAndHalf => (89.0, 176.0),
        JarSize::Ml720 => (90.0, 176.0),
        JarSize::Quart => (95.0, 178.0),
        JarSize::Litre => (100.0, 190.0),
        JarSize::HalfGallon => (117.0, 230.0),
        JarSize::TwoLitre => (120.0, 235.0),
        JarSize::Gallon => (155.0, 260.0),
    };
    JarOutside { diameter: millimetres(diameter), height: millimetres(height) }
}

/// Outer sizes of a household's jars: measured ones, and the usual ones for the rest.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Outsides(pub BTreeMap<JarSize, JarOutside>);

impl Outsides {
    /// Outside of one size.
    #[must_use]
    pub fn of(&self, jar: JarSize) -> JarOutside {
        self.0.get(&jar).copied().unwrap_or_else(|| usual_outside(jar))
    }
}

/// A pot's inside from above: round, or oblong with rounded ends.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outline {
    /// Longest inner measure.
    pub length: Length,
    /// Inner width across it; the same in a round pot.
    pub width: Length,
}

impl Outline {
    /// A round pot.
    #[must_use]
    pub const fn round(inner_diameter: Length) -> Self {
        Self { length: inner_diameter, width: inner_diameter }
    }

    /// Floor of the pot.
    #[must_use]
    pub fn floor(self) -> Area {
        let ends = self.width * self.width * (std::f64::consts::PI / 4.0);
        ends + self.width * (self.length - self.width)
    }

    /// Length over width: 1 for a round pot.
    #[must_use]
    pub fn stretch(self) -> f64 {
        (self.length / self.width).get::<uom::si::ratio::ratio>()
    }

    /// Whether it is as long as it is wide, so that jars are counted by packings of a circle.
    #[must_use]
    pub fn is_round(self) -> bool {
        self.length <= self.width
    }
}

/// The pot, from inside.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pot {
    /// From above.
    pub outline: Outline,
    /// Inner height.
    pub inner_height: Length,
    /// Top of the rack over the bottom.
    pub rack_height: Length,
}
