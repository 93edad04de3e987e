//! Whether a batch's page of the book adds up.
//!
//! What came in is jars, moves that were told, steam that a kettle told, and a remainder: trimmings, skins and seeds, and
//! steam where no kettle told it. The remainder may not be less than nothing, nor more than the way of working leaves;
//! then something was not told.

use bodega_model::jars::size::JarSize;
use bodega_model::kettle::contents::density;
use bodega_model::ledger::food::{Figure, Food, Stuff, weight_by_volume};
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::units::{Mass, Volume, in_pounds, in_quarts, kilograms, quarts};
use bodega_model::plan::making::{Making, Thickness, juice_brix, product_brix};
use bodega_model::tables::process::{Medium, Product};
use serde::Serialize;
use uom::si::ratio::ratio;

use super::book::{Book, Flow, Place, weight};
use crate::plan::stuff::jar_quarts;
use crate::plan::yields::pounds_per_quart;

/// Doubt of what a jar holds: headspace, air between pieces (common practice, no source).
const OF_JAR: f64 = 0.06;
/// Doubt of water that a kettle boiled away (common practice, no source).
const OF_STEAM: f64 = 0.1;
/// Share of a jar that is food below its headspace: ½ in of a quart's neck (from the jar's height, no source).
const FILLED: f64 = 0.96;
/// Share of whole tomatoes in a jar that water was poured into, and its doubt (common practice, no source).
const WHOLE_IN_WATER: (f64, f64) = (0.75, 0.15);
/// Of whole tomatoes packed in juice of the same crate (common practice, no source).
const WHOLE_IN_JUICE: (f64, f64) = (1.0, 0.25);
/// How far households lie outside the published range, as a share of what came in (common practice, no source).
const WIDER: f64 = 0.08;

/// What the jars of a batch hold of its fruit.
#[must_use]
pub fn in_jars(making: &Making, jars: &[(JarSize, u32)]) -> Figure {
    let volume = jars.iter().fold(quarts(0.0), |sum, (size, count)| sum + size.volume() * f64::from(*count));
    let full = volume * FILLED * density(product_brix(making));
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
    Figure::to_share(water * density(0.0), OF_STEAM)
}

/// What a batch's books say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BalanceVerdict {
    /// What is left over is what this way of working leaves.
    AddsUp,
    /// More came out than went in.
    TooMuch,
    /// Food is missing that nobody told of.
    Missing,
    /// It cannot be told.
    CannotTell,
}

/// The books of one batch: what came in is the sum of what went out and of the remainder, always.
#[derive(Debug, Clone, PartialEq)]
pub struct Balance {
    /// What came in, together.
    pub came_in: Figure,
    /// Moves into it.
    pub came: Vec<Flow>,
    /// Moves out of it.
    pub went: Vec<Flow>,
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

/// What a batch was made of, as far as the verdict asks.
#[derive(Debug, Clone, PartialEq)]
pub struct Made {
    /// Which batch.
    pub batch: BatchId,
    /// What it became.
    pub making: Making,
    /// What it drew.
    pub stuff: Vec<Stuff>,
    /// Whether anything but tomatoes is in it.
    pub holds_others: bool,
    /// Whether its jars are out of the canner.
    pub is_over: bool,
}

/// Whether a product is boiled down.
const fn reduces(product: Product) -> bool {
    matches!(product, Product::Sauce | Product::Paste)
}

/// Shares of fruit that are trimmings, skins and seeds, and steam where no kettle told it: what the published pounds for a
/// quart are more than a quart holds.
fn share_of_fruit(making: &Making, is_steam_told: bool) -> (f64, f64) {
    // With the steam told, what is left is what the mill or the knife takes: that of juice, which nothing is boiled off.
    let of: (Product, Option<Thickness>) = if is_steam_told && reduces(making.product) {
        (Product::Juice, None)
    } else {
        (making.product, making.thickness)
    };
    let per_quart = pounds_per_quart(of.0, of.1);
    let as_made = Making { product: of.0, thickness: of.1, ..*making };
    let quart = in_pounds(in_jars(&as_made, &[(JarSize::Quart, 1)]).mass);
    let share = |pounds: f64| 1.0 - quart / pounds;
    ((share(per_quart.low) - WIDER).max(0.0), (share(per_quart.high) + WIDER).min(1.0))
}

/// Shares of food that is through the mill already: nothing is trimmed, and without a kettle's word some is boiled away.
fn share_of_milled(making: &Making, stuff: &Stuff, is_steam_told: bool) -> (f64, f64) {
    let boils = reduces(making.product) && !is_steam_told && stuff.food != Food::ThinJuice;
    let away = if boils { 1.0 - juice_brix(stuff.kind) / product_brix(making) } else { 0.0 };
    // How far cooked food was boiled down before it came is not known.
    let least = if matches!(stuff.food, Food::Cooked | Food::Product) { 0.0 } else { away };
    ((least - WIDER).max(0.0), (away + 2.0 * WIDER).min(1.0))
}

/// The least and the most that is left of everything that came in.
fn usual(made: &Made, is_steam_told: bool) -> (Mass, Mass) {
    // Water that was poured off was never trimmed, and need not be boiled away any more.
    let boils = reduces(made.making.product) && !is_steam_told;
    made.stuff.iter().fold((kilograms(0.0), kilograms(0.0)), |(least, most), stuff| {
        let (mass, (low, high), spared) = match stuff.food {
            Food::Fruit => (
                stuff.mass + stuff.poured_off,
                share_of_fruit(&made.making, is_steam_told),
                if boils { stuff.poured_off } else { kilograms(0.0) },
            ),
            _ => (stuff.mass, share_of_milled(&made.making, stuff, is_steam_told), kilograms(0.0)),
        };
        (least + mass * low - spared, most + mass * high - spared)
    })
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

/// Makes up the books of a batch from its page of the book.
#[must_use]
pub fn balance(made: &Made, book: &Book) -> Balance {
    let here = Place::Batch(made.batch);
    let came: Vec<Flow> = book.into_place(here).cloned().collect();
    let went: Vec<Flow> = book.out_of(here).cloned().collect();
    let came_in = Figure::with_doubt_of(came.iter().map(|flow| flow.figure.doubt), weight(came.iter()));
    let remainder = book.there(here);
    let is_steam_told = went.iter().any(|flow| flow.to == Place::Steam);
    let told_trimmings = weight(went.iter().filter(|flow| matches!(flow.food, Food::Trimmings | Food::Bits)));
    // Fruit that came back out whole was neither trimmed nor boiled.
    let whole = weight(went.iter().filter(|flow| flow.food == Food::Fruit));
    let share = (whole / came_in.mass).get::<ratio>();
    let worked = if share.is_finite() { (1.0 - share).clamp(0.0, 1.0) } else { 1.0 };
    let (least, most) = usual(made, is_steam_told);
    let (least, most) = (least * worked, most * worked);
    let none = kilograms(0.0);
    // Trimmings that were told, and bits that were made of them, are not left to be told.
    let usual = ((least - told_trimmings).max(none), (most - told_trimmings).max(none));
    let product = made.making.product;
    let (verdict, text) = if !made.is_over {
        (BalanceVerdict::CannotTell, "It can be told when the last jar is out of the canner.".to_owned())
    } else if made.holds_others {
        let words = "There is more than tomatoes in it, so that it says nothing of the fruit.";
        (BalanceVerdict::CannotTell, words.to_owned())
    } else if remainder.mass + remainder.doubt < usual.0 {
        let words =
            "This does not add up: more came out than that fruit gives. Did more fruit or juice go in?";
        (BalanceVerdict::TooMuch, words.to_owned())
    } else if remainder.mass - remainder.doubt > usual.1 {
        let words = format!("This does not add up: food is missing; {}", likeliest(product, is_steam_told));
        (BalanceVerdict::Missing, words)
    } else {
        (BalanceVerdict::AddsUp, "It adds up.".to_owned())
    };
    let rest = match (made.is_over, is_steam_told, product) {
        (false, ..) => "still on the line, or not told",
        (true, false, Product::Sauce | Product::Paste) => "steam, skins and seeds",
        (true, ..) => "trimmings, skins and seeds",
    };
    Balance { came_in, came, went, remainder, rest, usual, verdict, text }
}

/// Quarts that came out of a batch as food: full jars and what was measured of the rest, so that a last jar that was not
/// filled is not lost; `None` when nothing did.
#[must_use]
pub fn quarts_out(made: &Made, book: &Book, jars: &[(JarSize, u32)]) -> Option<f64> {
    let of_jars: f64 = jars.iter().map(|(size, count)| jar_quarts(*size) * f64::from(*count)).sum();
    let by_volume = weight_by_volume(Food::Product, product_brix(&made.making));
    let rest: f64 = book
        .out_of(Place::Batch(made.batch))
        .filter(|flow| flow.food == Food::Product && !matches!(flow.to, Place::Jars(_)))
        .map(|flow| in_quarts(flow.figure.mass / by_volume))
        .sum();
    let all = of_jars + rest;
    (all > 0.0).then_some(all)
}
