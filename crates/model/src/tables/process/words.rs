//! What a process is asked for: product, liquid, pack, method, jar and height.

use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Minutes;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// What the tomatoes become.
    "product", Product {
        /// Whole or halved, peeled.
        Whole = "whole", "whole";
        /// Crushed, no water added.
        Crushed = "crushed", "crushed";
        /// Plain juice.
        Juice = "juice", "juice";
        /// Juice with at most 3 cups of vegetables to 22 lb of tomatoes.
        VegetableJuice = "vegetable_juice", "vegetable juice";
        /// Plain sauce, reduced juice.
        Sauce = "sauce", "sauce";
        /// Paste, reduced until it mounds on a spoon.
        Paste = "paste", "paste";
        /// A recipe with a process of its own; no table of plain tomatoes is ever read for it.
        Recipe = "recipe", "recipe";
    }
}

impl Product {
    /// What plain tomatoes become: everything that the tables of this module have.
    pub const PLAIN: [Self; 6] =
        [Self::Whole, Self::Crushed, Self::Juice, Self::VegetableJuice, Self::Sauce, Self::Paste];

    /// What it is called, by itself or with the name that a batch has: "sauce", "sauce, the yellow ones", "Chile salsa".
    #[must_use]
    pub fn called(self, named: Option<&str>) -> String {
        match named {
            Some(name) if self == Self::Recipe => name.to_owned(),
            Some(name) => format!("{self}, {name}"),
            None => self.label().to_owned(),
        }
    }

    /// Whether its acid is a part of it, so that no dose goes into the jar.
    #[must_use]
    pub const fn brings_its_acid(self) -> bool {
        matches!(self, Self::Recipe)
    }
}

vocabulary! {
    /// What whole tomatoes are packed in.
    "medium", Medium {
        /// Boiling water.
        Water = "water", "in water";
        /// Hot tomato juice.
        Juice = "juice", "in juice";
        /// No liquid added.
        None = "none", "no liquid";
    }
}

vocabulary! {
    /// Whether the fruit is heated before it goes into the jar.
    "pack", Pack {
        /// Boiled first, packed hot.
        Hot = "hot", "hot pack";
        /// Packed raw.
        Raw = "raw", "raw pack";
    }
}

vocabulary! {
    /// How the filled jars are heated.
    "method", Method {
        /// Jars under boiling water.
        BoilingWater = "boiling_water", "boiling water";
        /// Jars in steam without pressure.
        AtmosphericSteam = "atmospheric_steam", "steam, no pressure";
        /// Pressure canner with a dial gauge.
        PressureDial = "pressure_dial", "pressure, dial gauge";
        /// Pressure canner with a weighted gauge.
        PressureWeighted = "pressure_weighted", "pressure, weighted gauge";
    }
}

impl Method {
    /// Whether the jars stand under pressure.
    #[must_use]
    pub const fn is_pressure(self) -> bool {
        matches!(self, Self::PressureDial | Self::PressureWeighted)
    }
}

/// Longest process an atmospheric steam canner may run, after the altitude adjustment; its water cannot be topped up.
/// Source: university extension guidance, 2015, from memory.
pub const STEAM_LIMIT: Minutes = Minutes(45);

/// What is asked of the tables.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Query {
    /// What the tomatoes became.
    pub product: Product,
    /// What whole tomatoes are packed in; `None` for every other product.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// How the jars are heated.
    pub method: Method,
    /// Size of the jar.
    pub jar: JarSize,
    /// Height of the kitchen.
    pub altitude: Altitude,
}

/// The packing liquid is missing for whole tomatoes, or was given for something else.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum MediumError {
    /// Whole tomatoes without a medium.
    #[error("whole tomatoes need a medium, because the time depends on it; use one of: water, juice, none")]
    Missing,
    /// A medium for a product that has none.
    #[error("a medium goes with whole tomatoes only; leave it out for this product")]
    NotForProduct,
}

/// Checks that a packing liquid is given for whole tomatoes and for nothing else.
///
/// # Errors
/// [`MediumError`] says which way round it is wrong.
pub fn check_medium(product: Product, medium: Option<Medium>) -> Result<(), MediumError> {
    match (product, medium) {
        (Product::Whole, None) => Err(MediumError::Missing),
        (Product::Whole, Some(_)) | (_, None) => Ok(()),
        (_, Some(_)) => Err(MediumError::NotForProduct),
    }
}
