//! Where a batch's food went, and whether that adds up.
//!
//! Fruit comes in; jars, juice that was ladled off, steam, and what somebody said of the rest go out. What nobody told is the
//! remainder: trimmings, skins and seeds, and steam where no kettle told it. It may not be less than nothing, nor more
//! than the way of working leaves; then something was not told.

use serde::{Deserialize, Serialize};
use uom::si::mass::gram;

use crate::jars::size::JarSize;
use crate::kettle::density;
use crate::measures::units::{Mass, Volume, in_pounds, kilograms, pounds, quarts};
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::short;
use crate::plan::outlook::Making;
use crate::plan::yields::{Thickness, pounds_per_quart};
use crate::tables::process::{Medium, Product};

vocabulary! {
    /// What left a batch beside its jars.
    "food", Food {
        /// What was meant for jars.
        Product = "product", "finished food";
        /// Thin juice, ladled or drained off.
        ThinJuice = "thin_juice", "thin juice";
        /// Clear water of thawed fruit.
        Water = "water", "water poured off";
        /// Bits and juice of trimming, skins, seeds.
        Trimmings = "trimmings", "trimmings and skins";
    }
}

vocabulary! {
    /// Where it went.
    "place", FoodPlace {
        /// Eaten within days.
        Refrigerator = "refrigerator", "refrigerator";
        /// Frozen, with headspace.
        Freezer = "freezer", "freezer";
        /// Eaten at once.
        Table = "table", "dinner";
        /// Given away.
        Neighbour = "neighbour", "a neighbour";
        /// Compost, drain, hens.
        Discarded = "discarded", "thrown away";
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

    /// Independent doubts add as the sides of a right angle do.
    fn with_doubt_of(doubts: impl IntoIterator<Item = Mass>, mass: Mass) -> Self {
        let squares: f64 = doubts.into_iter().map(|doubt| doubt.get::<gram>().powi(2)).sum();
        Self { mass, doubt: kilograms(squares.sqrt() / 1000.0) }
    }
}

/// Doubt of a weighing of fruit: the crate's own weight and the scale (common practice, no source).
const OF_SCALE: f64 = 0.02;
/// Doubt of a volume that somebody tells (common practice, no source).
const OF_WORD: f64 = 0.1;
/// Doubt of what a jar holds: headspace, air between pieces (common practice, no source).
const OF_JAR: f64 = 0.06;
/// Share of a jar that is food below its headspace: ½ in of a quart's neck (from the jar's height, no source).
const FILLED: f64 = 0.96;
/// Share of whole tomatoes in a jar that water was poured into, and its doubt (common practice, no source).
const WHOLE_IN_WATER: (f64, f64) = (0.75, 0.15);
/// Of whole tomatoes packed in juice of the same crate (common practice, no source).
const WHOLE_IN_JUICE: (f64, f64) = (1.0, 0.25);
/// How far households lie outside the published range, as a share of the fruit (common practice, no source).
const WIDER: f64 = 0.08;

/// Usual solids of what goes into the jars, in °Brix: juice at 5, reduced by a third, by half; paste (common practice, no
/// source).
fn usual_brix(making: &Making) -> f64 {
    match (making.product, making.thickness) {
        (Product::Paste, _) => 17.0,
        (Product::Sauce, Some(Thickness::Thick)) => 10.0,
        (Product::Sauce, _) => 7.5,
        _ => 5.0,
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
    /// What it weighs, as that food of that batch.
    #[must_use]
    pub fn figure(&self, food: Food, making: &Making) -> Figure {
        let brix = match food {
            Food::Product => usual_brix(making),
            Food::ThinJuice => 4.5,
            Food::Water => 1.0,
            Food::Trimmings => 5.0,
        };
        let of = |volume: Volume| Figure::to_share(volume * density(brix), OF_WORD);
        match self.measure {
            FoodMeasure::Pound => Figure::to_share(pounds(self.amount), OF_SCALE),
            FoodMeasure::Kilogram => Figure::to_share(kilograms(self.amount), OF_SCALE),
            FoodMeasure::Cup => of(quarts(self.amount / 4.0)),
            FoodMeasure::Pint => of(quarts(self.amount / 2.0)),
            FoodMeasure::Quart => of(quarts(self.amount)),
            FoodMeasure::Gallon => of(quarts(self.amount * 4.0)),
            FoodMeasure::Litre => of(crate::measures::units::litres(self.amount)),
        }
    }

    /// As a person reads it: "2.5 quarts".
    #[must_use]
    pub fn words(&self) -> String {
        format!("{} {}", short(self.amount), self.measure.label())
    }
}

/// What became of a part of the fruit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Way {
    /// In jars.
    Jars,
    /// Drained or ladled off while it cooked.
    Ladled,
    /// Boiled away, as the kettle told it.
    Steam,
    /// As somebody told it.
    Told(Food, FoodPlace),
}

impl Way {
    /// As a person reads it.
    #[must_use]
    pub fn words(self) -> String {
        match self {
            Self::Jars => "in jars".to_owned(),
            Self::Ladled => "juice ladled off".to_owned(),
            Self::Steam => "boiled away".to_owned(),
            Self::Told(food, place) => format!("{food}, {place}"),
        }
    }
}

/// What the jars of a batch hold of its fruit.
#[must_use]
pub fn in_jars(making: &Making, jars: &[(JarSize, u32)]) -> Figure {
    let volume = jars.iter().fold(quarts(0.0), |sum, (size, count)| sum + size.volume() * f64::from(*count));
    let full = volume * FILLED * density(usual_brix(making));
    let (share, doubt) = match making.medium {
        Some(Medium::Water) => WHOLE_IN_WATER,
        Some(Medium::Juice) => WHOLE_IN_JUICE,
        _ => (1.0, 0.0),
    };
    Figure::with_doubt_of([full * doubt, full * share * OF_JAR], full * share)
}

/// Water that was boiled away.
#[must_use]
pub fn boiled_away(water: Volume) -> Figure {
    Figure::to_share(water * density(0.0), OF_WORD)
}

/// Juice that was drained off a kettle.
#[must_use]
pub fn ladled(volume: Volume) -> Figure {
    Figure::to_share(volume * density(4.5), OF_WORD)
}

/// Fruit as it was weighed in.
#[must_use]
pub fn weighed(fruit: Mass) -> Figure {
    Figure::to_share(fruit, OF_SCALE)
}

/// What a batch's books say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BalanceVerdict {
    /// What is left over is what this way of working leaves.
    AddsUp,
    /// More came out than the fruit gives.
    TooMuch,
    /// Food is missing that nobody told of.
    Missing,
    /// It cannot be told.
    CannotTell,
}

/// The books of one batch. `fruit` is the sum of `parts` and `remainder`, always.
#[derive(Debug, Clone, PartialEq)]
pub struct Balance {
    /// What came in.
    pub fruit: Figure,
    /// What went out, as it was told or measured.
    pub parts: Vec<(Way, Figure)>,
    /// What nobody told; below nothing when more came out than went in.
    pub remainder: Figure,
    /// What it most likely is, in words.
    pub rest: &'static str,
    /// The least and the most that this way of working leaves.
    pub usual: (Mass, Mass),
    /// Whether that fits.
    pub verdict: BalanceVerdict,
    /// The verdict in a sentence, with what to say when something is amiss.
    pub text: String,
}

/// Shares of the fruit that are trimmings, skins and seeds, and steam where no kettle told it: what the published pounds
/// for a quart are more than a quart holds.
fn usual_share(making: &Making, is_steam_told: bool) -> (f64, f64) {
    // With the steam told, what is left is what the mill or the knife takes: that of juice, which nothing is boiled off.
    let reduces = matches!(making.product, Product::Sauce | Product::Paste);
    let of =
        if is_steam_told && reduces { (Product::Juice, None) } else { (making.product, making.thickness) };
    let per_quart = pounds_per_quart(of.0, of.1);
    let as_made = Making { product: of.0, thickness: of.1, ..*making };
    let quart = in_pounds(in_jars(&as_made, &[(JarSize::Quart, 1)]).mass);
    let share = |pounds: f64| 1.0 - quart / pounds;
    ((share(per_quart.low) - WIDER).max(0.0), (share(per_quart.high) + WIDER).min(1.0))
}

/// What is most likely not told, as a question.
const fn likeliest(product: Product, is_steam_told: bool) -> &'static str {
    match product {
        Product::Sauce | Product::Paste if !is_steam_told => {
            "was it boiled down further, ladled off, or is some left over?"
        }
        Product::Whole => "were there bits and juice of trimming, or is some fruit left?",
        _ => "was some ladled off, frozen, eaten, or is it left over?",
    }
}

/// Makes up the books of a batch. `holds_others` is whether anything but tomatoes is in it; `is_over` whether its jars are
/// out of the canner.
#[must_use]
pub fn balance(
    making: &Making,
    fruit: Figure,
    parts: Vec<(Way, Figure)>,
    holds_others: bool,
    is_over: bool,
) -> Balance {
    let out = parts.iter().fold(kilograms(0.0), |sum, (_, part)| sum + part.mass);
    let doubts = parts.iter().map(|(_, part)| part.doubt).chain([fruit.doubt]);
    let remainder = Figure::with_doubt_of(doubts, fruit.mass - out);
    let is_steam_told = parts.iter().any(|(way, _)| *way == Way::Steam);
    let told_trimmings = parts
        .iter()
        .filter(|(way, _)| matches!(way, Way::Told(Food::Trimmings, _)))
        .fold(kilograms(0.0), |sum, (_, part)| sum + part.mass);
    let (least, most) = usual_share(making, is_steam_told);
    let none = kilograms(0.0);
    // Trimmings that were told are not left to be told.
    let usual =
        ((fruit.mass * least - told_trimmings).max(none), (fruit.mass * most - told_trimmings).max(none));
    let (verdict, text) = if !is_over {
        (BalanceVerdict::CannotTell, "It can be told when the last jar is out of the canner.".to_owned())
    } else if holds_others {
        let words = "There is more than tomatoes in it, so that it says nothing of the fruit.";
        (BalanceVerdict::CannotTell, words.to_owned())
    } else if remainder.mass + remainder.doubt < usual.0 {
        let words =
            "This does not add up: more came out than that fruit gives. Did more fruit or juice go in?";
        (BalanceVerdict::TooMuch, words.to_owned())
    } else if remainder.mass - remainder.doubt > usual.1 {
        let words =
            format!("This does not add up: food is missing; {}", likeliest(making.product, is_steam_told));
        (BalanceVerdict::Missing, words)
    } else {
        (BalanceVerdict::AddsUp, "It adds up.".to_owned())
    };
    let rest = match (is_over, is_steam_told, making.product) {
        (false, ..) => "still on the line, or not told",
        (true, false, Product::Sauce | Product::Paste) => "boiled away, skins and seeds, not told one by one",
        (true, ..) => "trimmings, skins and seeds, not told",
    };
    Balance { fruit, parts, remainder, rest, usual, verdict, text }
}
