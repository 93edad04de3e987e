//! What waits on the line as jars: fruit by the household's yields, juice and cooked food by what they hold.

use bodega_model::crates::fruit::Kind;
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::contents::density;
use bodega_model::ledger::food::{Food, Stuff, WATER_BRIX, weight_by_volume};
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{Mass, Volume, in_pounds, in_quarts, pounds, quarts};
use bodega_model::plan::making::{Making, juice_brix, share_left};
use bodega_model::tables::process::Product;
use uom::si::mass::gram;
use uom::si::ratio::ratio;

use crate::crates::unlike::{FROZEN_INSTEAD, FROZEN_WHOLE, TOMATILLOS, TOMATILLOS_INSTEAD};
use crate::plan::yields::learn::Household;
use crate::plan::yields::pounds_per_quart;

/// Share that a volume which somebody told may be off, eight or nine times in ten (common practice, no source).
const TOLD: f64 = 0.1;

/// Whether a food can become a product. Thin juice has left its pulp in the pot and is juice for good; cooked food is
/// packed as it is or boiled further. A recipe takes its tomatoes by its own amounts. Whole tomatoes from frozen fruit have
/// no tested process.
#[must_use]
pub const fn can_become(stuff: &Stuff, product: Product) -> bool {
    if is_refused(stuff, product) {
        return false;
    }
    match stuff.food {
        Food::Fruit => !matches!(product, Product::Recipe),
        Food::Bits | Food::Juice => {
            matches!(
                product,
                Product::Juice | Product::VegetableJuice | Product::Sauce | Product::Paste | Product::Crushed
            )
        }
        Food::ThinJuice => matches!(product, Product::Juice),
        Food::Cooked | Food::Product => {
            matches!(product, Product::Crushed | Product::Sauce | Product::Paste)
        }
        Food::Water | Food::Trimmings => false,
    }
}

/// Whether it is refused in words, and not only of no use: a household may well think that it can be done.
#[must_use]
pub const fn is_refused(stuff: &Stuff, product: Product) -> bool {
    is_frozen_whole(stuff, product) || (is_tomatillo(stuff) && !matches!(product, Product::Recipe))
}

/// Whether it is what has no tested process at all: whole tomatoes from frozen fruit. Source: USDA Guide 3, which has rows for
/// fresh fruit alone, from memory; common practice, no source, for what it becomes instead.
const fn is_frozen_whole(stuff: &Stuff, product: Product) -> bool {
    stuff.frozen && matches!((stuff.food, product), (Food::Fruit, Product::Whole))
}

/// Whether it is no tomato at all: it goes into recipes that have it, and into nothing else.
const fn is_tomatillo(stuff: &Stuff) -> bool {
    matches!(stuff.kind, Kind::Tomatillo)
}

/// Why something cannot become a product, and what would do.
#[must_use]
pub fn cannot_become(named: &str, stuff: &Stuff, product: Product) -> String {
    if is_tomatillo(stuff) {
        return format!("{TOMATILLOS}. {TOMATILLOS_INSTEAD}");
    }
    if is_frozen_whole(stuff, product) {
        return format!("{named}: {FROZEN_WHOLE}. {FROZEN_INSTEAD}");
    }
    format!("{named} does not become {product}; leave it out, or choose another product")
}

/// Quarts of the product that this makes; `None` when it cannot become that.
#[must_use]
pub fn quarts_made(household: &Household, making: &Making, stuff: &Stuff) -> Option<Range<f64>> {
    if !can_become(stuff, making.product) {
        return None;
    }
    if stuff.food == Food::Fruit {
        let per_quart = household.learn(making.product, making.thickness, stuff.kind).pounds_per_quart;
        let raw = in_pounds(stuff.mass + stuff.poured_off);
        let without = without_water(making, stuff);
        let made = |pounds: f64| (raw / pounds * without.0 - without.1).max(0.0);
        return Some(Range {
            low: made(per_quart.high),
            expected: made(per_quart.expected),
            high: made(per_quart.low),
        });
    }
    let held = in_quarts(stuff.mass / weight_by_volume(stuff.food, juice_brix(stuff.kind)));
    let made = held * left_of(making, stuff);
    Some(Range { low: made * (1.0 - TOLD), expected: made, high: made * (1.0 + TOLD) })
}

/// Share of a milled or cooked food that is left when it is as thick as the product asks.
fn left_of(making: &Making, stuff: &Stuff) -> f64 {
    match stuff.food {
        Food::Bits | Food::Juice => share_left(making, stuff.kind),
        _ => 1.0,
    }
}

/// What pouring water off thawed fruit does to what it makes: a factor, and quarts that are missing. What is boiled down
/// loses only the water's little sugar; anything else is short of the water itself.
fn without_water(making: &Making, stuff: &Stuff) -> (f64, f64) {
    let poured = in_quarts(stuff.poured_off / density(WATER_BRIX));
    if share_left(making, stuff.kind) < 1.0 {
        let raw = (stuff.mass + stuff.poured_off).get::<gram>();
        let lost = stuff.poured_off.get::<gram>() * WATER_BRIX / (raw.max(1.0) * juice_brix(stuff.kind));
        (1.0 - lost.min(1.0), 0.0)
    } else {
        (1.0, poured)
    }
}

/// Volume of product from everything that is put together.
///
/// # Errors
/// The place of the first that cannot become it.
pub fn volume(household: &Household, making: &Making, stuff: &[Stuff]) -> Result<Range<Volume>, usize> {
    let mut sum = Range { low: Volume::default(), expected: Volume::default(), high: Volume::default() };
    for (place, part) in stuff.iter().enumerate() {
        let made = quarts_made(household, making, part).ok_or(place)?;
        sum.low += quarts(made.low);
        sum.expected += quarts(made.expected);
        sum.high += quarts(made.high);
    }
    Ok(sum)
}

/// What it fills in a kettle: juice and cooked food as they are, fruit through the mill, less the water that was poured off.
#[must_use]
pub fn in_kettle(stuff: &Stuff) -> Volume {
    match stuff.food {
        Food::Fruit => {
            let raw = in_pounds(stuff.mass + stuff.poured_off);
            let juice = quarts(raw / pounds_per_quart(Product::Juice, None).expected);
            (juice - stuff.poured_off / density(WATER_BRIX)).max(Volume::default())
        }
        _ => stuff.mass / density(juice_brix(stuff.kind)),
    }
}

/// Water that boils away on the way to the product; what was poured off need not.
#[must_use]
pub fn boiled_away(making: &Making, stuff: &Stuff) -> Volume {
    let share = share_left(making, stuff.kind);
    match stuff.food {
        Food::Fruit => {
            // As juice it would stand at, had nothing been poured off.
            let poured = stuff.poured_off / density(WATER_BRIX);
            let juice = in_kettle(&Stuff {
                mass: stuff.mass + stuff.poured_off,
                poured_off: Mass::default(),
                ..*stuff
            });
            (juice * (1.0 - share) - poured).max(Volume::default())
        }
        Food::Bits | Food::Juice | Food::ThinJuice => in_kettle(stuff) * (1.0 - share),
        Food::Cooked | Food::Product | Food::Water | Food::Trimmings => Volume::default(),
    }
}

/// Quarts of product from a pound of it, as a plain number, for models that count in quarts; 0 when it cannot become that.
#[must_use]
pub fn quarts_per_pound(household: &Household, making: &Making, stuff: &Stuff) -> f64 {
    quarts_made(household, making, &part_of(stuff, pounds(1.0))).map_or(0.0, |made| made.expected)
}

/// A part of it, of this mass.
#[must_use]
pub fn part_of(stuff: &Stuff, mass: Mass) -> Stuff {
    let poured = (stuff.poured_off / stuff.mass).get::<ratio>();
    // Of nothing, nothing was poured off.
    Stuff { mass, poured_off: mass * if poured.is_finite() { poured } else { 0.0 }, ..*stuff }
}

/// What a jar holds, in quarts.
#[must_use]
pub fn jar_quarts(jar: JarSize) -> f64 {
    in_quarts(jar.volume())
}

#[cfg(test)]
mod tests {
    use super::{boiled_away, can_become, quarts_made};
    use crate::plan::yields::learn::Household;
    use bodega_model::crates::fruit::Kind;
    use bodega_model::ledger::food::{Food, Stuff};
    use bodega_model::measures::units::{in_quarts, pounds};
    use bodega_model::plan::making::Thickness;
    use bodega_model::plan::making::{Making, share_left};
    use bodega_model::tables::process::Product;

    fn sauce(thickness: Thickness) -> Making {
        *Making::ALL.iter().find(|making| making.thickness == Some(thickness)).unwrap()
    }

    #[test]
    fn paste_fruit_is_reduced_as_published_and_slicers_further() {
        // USDA Guide 3, from memory: thin sauce by about one third, thick by one half.
        assert!((share_left(&sauce(Thickness::Thin), Kind::Paste) - 2.0 / 3.0).abs() < 1e-9);
        assert!((share_left(&sauce(Thickness::Thick), Kind::Paste) - 0.5).abs() < 1e-9);
        assert!(share_left(&sauce(Thickness::Thin), Kind::Slicer) < 0.6);
        // 3¼ lb make a quart of juice, so 39 lb make 12 quarts, and a third of them boils away.
        let away = boiled_away(&sauce(Thickness::Thin), &Stuff::fruit(Kind::Paste, pounds(39.0)));
        assert!((in_quarts(away) - 4.0).abs() < 0.05, "{}", in_quarts(away));
    }

    #[test]
    fn frozen_fruit_becomes_everything_but_whole_tomatoes() {
        let frozen = Stuff { frozen: true, ..Stuff::fruit(Kind::Paste, pounds(10.0)) };
        for product in Product::PLAIN {
            assert_eq!(can_become(&frozen, product), product != Product::Whole, "{product}");
            assert!(can_become(&Stuff { frozen: false, ..frozen }, product), "{product}");
        }
        let words = super::cannot_become("paste tomatoes, frozen", &frozen, Product::Whole);
        for instead in ["no tested process", "crushed", "juice", "sauce", "paste"] {
            assert!(words.contains(instead), "{words}");
        }
    }

    #[test]
    fn only_sauce_and_paste_are_boiled_down() {
        for making in Making::ALL {
            let away = in_quarts(boiled_away(&making, &Stuff::fruit(Kind::Slicer, pounds(10.0))));
            assert_eq!(away > 0.0, matches!(making.product, Product::Sauce | Product::Paste), "{making:?}");
        }
    }

    #[test]
    fn thawed_fruit_that_was_poured_off_boils_that_much_less_and_loses_almost_nothing() {
        let whole = Stuff::fruit(Kind::Paste, pounds(40.0));
        let poured = Stuff { mass: pounds(32.0), poured_off: pounds(8.0), ..whole };
        let household = Household::default();
        let quarts =
            |stuff: &Stuff, making: &Making| quarts_made(&household, making, stuff).unwrap().expected;
        let thick = sauce(Thickness::Thick);
        let spared = in_quarts(boiled_away(&thick, &whole)) - in_quarts(boiled_away(&thick, &poured));
        // Eight pounds of water are 3.8 quarts at 2.09 lb a quart (NIST Handbook 44, from memory).
        assert!((spared - 8.0 / 2.09).abs() < 0.05, "{spared}");
        let lost = 1.0 - quarts(&poured, &thick) / quarts(&whole, &thick);
        assert!((0.02..0.06).contains(&lost), "{lost}");
        // As juice the water itself is missing.
        let juice = Making::ALL[5];
        assert!((quarts(&whole, &juice) - quarts(&poured, &juice) - 8.0 / 2.09).abs() < 0.05);
    }

    #[test]
    fn juice_fills_what_it_measures_and_thin_juice_is_never_sauce() {
        let household = Household::default();
        // A quart of juice weighs about 2.13 lb: water's 2.086, and 5 °Brix.
        let juice = |food| Stuff { food, ..Stuff::fruit(Kind::Paste, pounds(2.13 * 6.0)) };
        let as_juice = |food| quarts_made(&household, &Making::ALL[5], &juice(food)).unwrap().expected;
        assert!((as_juice(Food::Juice) - 6.0).abs() < 0.05 && (as_juice(Food::ThinJuice) - 6.0).abs() < 0.05);
        let thin = quarts_made(&household, &sauce(Thickness::Thin), &juice(Food::Juice)).unwrap().expected;
        assert!((thin - 4.0).abs() < 0.05, "by a third: {thin}");
        assert_eq!(quarts_made(&household, &sauce(Thickness::Thin), &juice(Food::ThinJuice)), None);
        let may = |food, product| can_become(&juice(food), product);
        assert!(!may(Food::Cooked, Product::Juice) && !may(Food::Juice, Product::Whole));
    }
}
