//! What tomatoes can become, and how far each is boiled down.

use crate::crates::fruit::Kind;
use crate::jars::size::JarSize;
use crate::measures::vocabulary::vocabulary;
use crate::tables::process::{Medium, Pack, Product};

/// One thing tomatoes can become: the product with its pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Making {
    /// Product.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
}

impl Making {
    const fn new(product: Product, medium: Option<Medium>, pack: Pack, thickness: Option<Thickness>) -> Self {
        Self { product, medium, pack, thickness }
    }

    /// Everything that plain tomatoes become, in the order people think of it.
    pub const ALL: [Self; 9] = [
        Self::new(Product::Whole, Some(Medium::Water), Pack::Raw, None),
        Self::new(Product::Whole, Some(Medium::Water), Pack::Hot, None),
        Self::new(Product::Whole, Some(Medium::Juice), Pack::Hot, None),
        Self::new(Product::Whole, Some(Medium::None), Pack::Raw, None),
        Self::new(Product::Crushed, None, Pack::Hot, None),
        Self::new(Product::Juice, None, Pack::Hot, None),
        Self::new(Product::Sauce, None, Pack::Hot, Some(Thickness::Thin)),
        Self::new(Product::Sauce, None, Pack::Hot, Some(Thickness::Thick)),
        Self::new(Product::Paste, None, Pack::Hot, None),
    ];
}

/// Soluble solids of fresh juice in °Brix, by kind. Common practice, no source: paste types are mostly wall, slicers
/// mostly water.
#[must_use]
pub const fn juice_brix(kind: Kind) -> f64 {
    match kind {
        Kind::Paste => 5.0,
        Kind::Slicer => 4.2,
        Kind::Cherry => 5.5,
        Kind::Mixed => 4.6,
        Kind::Tomatillo => 4.0,
    }
}

/// Usual solids of what goes into the jars, °Brix: juice of paste types at 5, reduced by a third and by half (USDA Guide 3,
/// from memory); paste at 17, the middle of home paste (common practice, no source).
#[must_use]
pub const fn product_brix(making: &Making) -> f64 {
    match (making.product, making.thickness) {
        (Product::Paste, _) => 17.0,
        (Product::Sauce, Some(Thickness::Thick)) => juice_brix(Kind::Paste) * 2.0,
        (Product::Sauce, _) => juice_brix(Kind::Paste) * 1.5,
        _ => juice_brix(Kind::Paste),
    }
}

/// Share of the juice that is left when fruit of a kind is as thick as the product asks: reduced by a third or by half
/// for paste types, further for fruit with more water.
#[must_use]
pub const fn share_left(making: &Making, kind: Kind) -> f64 {
    match making.product {
        Product::Sauce | Product::Paste => juice_brix(kind) / product_brix(making),
        _ => 1.0,
    }
}

/// The jar a making is usually put into.
#[must_use]
pub const fn usual_jar(making: &Making) -> JarSize {
    match making.product {
        Product::Paste => JarSize::HalfPint,
        Product::Sauce | Product::Recipe => JarSize::Pint,
        Product::Whole | Product::Crushed | Product::Juice | Product::VegetableJuice => JarSize::Quart,
    }
}

vocabulary! {
    /// How far sauce is reduced.
    "thickness", Thickness {
        /// Reduced by about one third.
        Thin = "thin", "thin";
        /// Reduced by about one half.
        Thick = "thick", "thick";
    }
}

vocabulary! {
    /// Where the rest goes that fills no jar; never into a part-filled jar.
    "rest", Rest {
        /// Eaten within days.
        Refrigerator = "refrigerator", "refrigerator";
        /// Frozen, with headspace.
        Freezer = "freezer", "freezer";
    }
}
