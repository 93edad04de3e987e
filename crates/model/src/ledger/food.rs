//! Food in whatever form, wherever it is: what it is called, what it weighs, and how sure that is.

use serde::{Deserialize, Serialize};
use uom::si::mass::gram;

use crate::crates::fruit::Kind;
use crate::kettle::contents::density;
use crate::measures::units::{Mass, MassDensity, Volume, kilograms, litres, pounds, quarts};
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::short;
use crate::tables::process::Product;

vocabulary! {
    /// Food in some form.
    "food", Food {
        /// Tomatoes as they came, fresh or frozen.
        Fruit = "fruit", "tomatoes";
        /// Bits and juice of trimming whole fruit, to be made into something of their own.
        Bits = "bits", "bits and juice";
        /// Milled juice with its pulp.
        Juice = "juice", "juice";
        /// Thin juice, ladled or drained off: the pulp stayed behind.
        ThinJuice = "thin_juice", "thin juice";
        /// On its way: soft, crushed or boiled down, not packed yet.
        Cooked = "cooked", "cooked tomatoes";
        /// What was meant for jars.
        Product = "product", "finished food";
        /// Clear water of thawed fruit.
        Water = "water", "water poured off";
        /// Bits of trimming, skins, seeds.
        Trimmings = "trimmings", "trimmings and skins";
    }
}

/// Why food cannot wait on the line for other jars.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NotForTheLine {
    /// Water and skins.
    #[error("{0} fills no jar; choose another place")]
    FillsNoJar(Food),
    /// There is more in it than tomatoes.
    #[error(
        "what was made by a recipe has more in it than tomatoes, and no other jars are tested for it; choose the refrigerator or the freezer"
    )]
    OfARecipe,
}

impl Food {
    /// Whether it may wait on the line to become something else; `of` is what its batch became, when it comes from one. Source: USDA
    /// Guide 3, from memory: a recipe is canned by its own process.
    ///
    /// # Errors
    /// [`NotForTheLine`].
    pub fn can_wait(self, of: Option<Product>) -> Result<(), NotForTheLine> {
        match self {
            Self::Water | Self::Trimmings => Err(NotForTheLine::FillsNoJar(self)),
            // Fruit and what is trimmed off it were never in the bowls.
            Self::Fruit | Self::Bits => Ok(()),
            _ if of == Some(Product::Recipe) => Err(NotForTheLine::OfARecipe),
            _ => Ok(()),
        }
    }

    /// Whether it may go to a place; the line takes only what may become something else.
    ///
    /// # Errors
    /// [`NotForTheLine`].
    pub fn may_go(self, place: FoodPlace, of: Option<Product>) -> Result<(), NotForTheLine> {
        if place == FoodPlace::Line { self.can_wait(of) } else { Ok(()) }
    }

    /// What is to be known of it before it is canned.
    #[must_use]
    pub const fn note(self) -> Option<&'static str> {
        match self {
            Self::ThinJuice => {
                Some("No published process names thin juice: the time and the acid of tomato juice are used.")
            }
            _ => None,
        }
    }

    /// Whether it was heated or milled, so that it keeps for a day or two in the cold and not at all out of it.
    #[must_use]
    pub const fn spoils_soon(self) -> bool {
        !matches!(self, Self::Fruit)
    }
}

vocabulary! {
    /// Where food goes that does not go into jars.
    "place", FoodPlace {
        /// Back on the line, to become something.
        Line = "line", "for other jars";
        /// Eaten, or heated again and canned, within days.
        Refrigerator = "refrigerator", "refrigerator";
        /// Frozen, with headspace.
        Freezer = "freezer", "freezer";
        /// Eaten at once.
        Table = "table", "dinner";
        /// Given away.
        Neighbour = "neighbour", "a neighbour";
        /// Dried: skins for powder.
        Dried = "dried", "dried";
        /// Compost, drain, hens.
        Discarded = "discarded", "thrown away";
    }
}

impl FoodPlace {
    /// Whether it is still there afterwards, to be taken out again.
    #[must_use]
    pub const fn keeps(self) -> bool {
        matches!(self, Self::Refrigerator | Self::Freezer)
    }
}

vocabulary! {
    /// A measure that somebody tells an amount in.
    "measure", FoodMeasure {
        /// Pounds.
        Pound = "lb", "lb";
        /// Kilograms.
        Kilogram = "kg", "kg";
        /// US cups.
        Cup = "cup", "cups";
        /// US pints.
        Pint = "pint", "pints";
        /// US quarts.
        Quart = "quart", "quarts";
        /// US gallons.
        Gallon = "gallon", "gallons";
        /// Litres.
        Litre = "litre", "litres";
    }
}

/// A mass and how far off it may be either way, eight times in ten.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Figure {
    /// The mass.
    pub mass: Mass,
    /// Its doubt.
    pub doubt: Mass,
}

impl Figure {
    /// A mass that is known to a share of itself.
    #[must_use]
    pub fn to_share(mass: Mass, share: f64) -> Self {
        Self { mass, doubt: mass * share }
    }

    /// Nothing, for certain.
    #[must_use]
    pub fn none() -> Self {
        Self::to_share(kilograms(0.0), 0.0)
    }

    /// A mass whose independent doubts add as the sides of a right angle do.
    #[must_use]
    pub fn with_doubt_of(doubts: impl IntoIterator<Item = Mass>, mass: Mass) -> Self {
        let squares: f64 = doubts.into_iter().map(|doubt| doubt.get::<gram>().powi(2)).sum();
        Self { mass, doubt: kilograms(squares.sqrt() / 1000.0) }
    }
}

/// Doubt of a weighing: the crate's own weight and the scale (common practice, no source).
const OF_SCALE: f64 = 0.02;
/// Doubt of a volume that somebody tells (common practice, no source).
const OF_WORD: f64 = 0.1;

/// Solids of thin juice, of clear water off thawed fruit, and of anything whose product nobody named, in °Brix (common
/// practice, no source).
pub const THIN_BRIX: f64 = 4.5;
/// Of clear water off thawed fruit.
pub const WATER_BRIX: f64 = 1.0;
/// Of juice, trimmings and food that is not boiled down.
const PLAIN_BRIX: f64 = 5.0;

/// What raw cut fruit weighs by the quart: 1.6 lb, there is air between (common practice, no source).
fn loose_fruit() -> MassDensity {
    pounds(1.6) / quarts(1.0)
}

/// What a food weighs by volume; `product_brix` is how thick the finished food is.
#[must_use]
pub fn weight_by_volume(food: Food, product_brix: f64) -> MassDensity {
    match food {
        Food::Fruit => loose_fruit(),
        Food::Product => density(product_brix),
        Food::ThinJuice => density(THIN_BRIX),
        Food::Water => density(WATER_BRIX),
        Food::Bits | Food::Juice | Food::Cooked | Food::Trimmings => density(PLAIN_BRIX),
    }
}

/// An amount as somebody told it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Told {
    /// How much, 0.01 to 5,000.
    pub amount: f64,
    /// Of what measure.
    pub measure: FoodMeasure,
}

impl Told {
    /// What it fills, when it was told by volume.
    #[must_use]
    pub fn volume(&self) -> Option<Volume> {
        match self.measure {
            FoodMeasure::Pound | FoodMeasure::Kilogram => None,
            FoodMeasure::Cup => Some(quarts(self.amount / 4.0)),
            FoodMeasure::Pint => Some(quarts(self.amount / 2.0)),
            FoodMeasure::Quart => Some(quarts(self.amount)),
            FoodMeasure::Gallon => Some(quarts(self.amount * 4.0)),
            FoodMeasure::Litre => Some(litres(self.amount)),
        }
    }

    /// What it weighs, as that food; `product_brix` is how thick finished food of its batch is.
    #[must_use]
    pub fn mass(&self, food: Food, product_brix: f64) -> Mass {
        match (self.volume(), self.measure) {
            (Some(volume), _) => volume * weight_by_volume(food, product_brix),
            (None, FoodMeasure::Pound) => pounds(self.amount),
            (None, _) => kilograms(self.amount),
        }
    }

    /// As a person reads it: "2.5 quarts".
    #[must_use]
    pub fn words(&self) -> String {
        format!("{} {}", short(self.amount), self.measure.label())
    }
}

impl FoodMeasure {
    /// How sure an amount in it is.
    #[must_use]
    pub const fn doubt(self) -> f64 {
        match self {
            Self::Pound | Self::Kilogram => OF_SCALE,
            _ => OF_WORD,
        }
    }
}

impl Figure {
    /// Fruit as it was weighed in.
    #[must_use]
    pub fn weighed(mass: Mass) -> Self {
        Self::to_share(mass, OF_SCALE)
    }

    /// What somebody measured or told in a measure.
    #[must_use]
    pub fn measured(mass: Mass, measure: FoodMeasure) -> Self {
        Self::to_share(mass, measure.doubt())
    }
}

/// Food that waits on the line, as a plan counts it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stuff {
    /// In what form.
    pub food: Food,
    /// Of which kind of tomato.
    pub kind: Kind,
    /// What there is of it.
    pub mass: Mass,
    /// Clear water that was poured off when it thawed; not in the mass any more.
    pub poured_off: Mass,
    /// Whether it was frozen: its pieces do not hold together.
    pub frozen: bool,
}

impl Stuff {
    /// Fresh fruit.
    #[must_use]
    pub fn fruit(kind: Kind, mass: Mass) -> Self {
        Self { food: Food::Fruit, kind, mass, poured_off: kilograms(0.0), frozen: false }
    }
}
