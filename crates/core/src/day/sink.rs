//! Hands at the sink, before the fruit is cooked or packed: washing, coring, blanching in rounds, peeling, milling.
//!
//! Minutes for a pound are ours: a place to start from, until the household's own are learned.

use bodega_model::tables::process::Product;

use super::work::Work;

/// Fruit that goes into the boiling water at a time: eight or nine. Common practice, no source: more of them cool it.
const FRUIT_IN_A_ROUND: f64 = 8.5;
/// Fruit in a pound, of middling size. Common practice, no source.
const FRUIT_IN_A_POUND: f64 = 3.0;
/// Minutes of a round: half a minute to a minute in the water (USDA Guide 3, from memory), then into the ice, and the
/// water comes back to the boil.
const ROUND_MINUTES: f64 = 1.5;

/// Minutes of one pair of hands to peel, seed and chop a pound of onions, peppers and the like. Ours.
const CHOP_MINUTES_A_LB: f64 = 4.0;

/// Minutes to cool juice in the sink and put it away, however much it is. Ours.
const CHILL_MINUTES: f64 = 10.0;

/// Rounds that fruit goes through the boiling water in; at least one.
#[must_use]
pub fn rounds(pounds: f64) -> u32 {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // a few tonnes at most
    let rounds = (pounds * FRUIT_IN_A_POUND / FRUIT_IN_A_ROUND).ceil().clamp(1.0, 10_000.0) as u32;
    rounds
}

/// What the fruit of a product goes through at the sink, in order.
#[must_use]
pub const fn parts(product: Product) -> &'static [Work] {
    match product {
        Product::Whole | Product::Crushed => &[Work::Wash, Work::Core, Work::Blanch, Work::Peel],
        Product::Recipe => &[Work::Wash, Work::Core, Work::Blanch, Work::Peel, Work::Chop],
        Product::Juice | Product::VegetableJuice | Product::Sauce | Product::Paste => {
            &[Work::Wash, Work::Core, Work::Mill]
        }
    }
}

/// Minutes of one pair of hands at the usual pace, for pounds of fresh and of frozen fruit; nothing when there is nothing
/// to do. Skins of frozen fruit slip without blanching: common practice, no source.
#[must_use]
pub fn minutes(work: Work, fresh: f64, frozen: f64) -> f64 {
    let all = fresh + frozen;
    match work {
        Work::Wash => 0.3 * all,
        Work::Core => 0.4 * all,
        Work::Blanch if fresh > 0.0 => ROUND_MINUTES * f64::from(rounds(fresh)),
        Work::Peel => 0.8 * all,
        Work::Mill => 0.3 * all,
        Work::Chill => CHILL_MINUTES,
        _ => 0.0,
    }
}

/// Minutes of one pair of hands at the usual pace to chop what a recipe asks for beside its tomatoes.
#[must_use]
pub fn chopping(pounds: f64) -> f64 {
    CHOP_MINUTES_A_LB * pounds
}

/// Minutes of hands that a pound of fruit takes on its way through the sink, fresh or thawed.
#[must_use]
pub fn minutes_per_lb(product: Product, frozen: bool) -> f64 {
    /// Enough fruit that the last, half-filled round does not count.
    const MUCH: f64 = 1000.0;
    let (fresh, thawed) = if frozen { (0.0, MUCH) } else { (MUCH, 0.0) };
    parts(product).iter().map(|work| minutes(*work, fresh, thawed)).sum::<f64>() / MUCH
}

#[cfg(test)]
mod tests {
    use super::{minutes, minutes_per_lb, rounds};
    use crate::day::work::Work;
    use bodega_model::tables::process::Product;

    #[test]
    fn eight_or_nine_fruit_go_in_at_a_time_and_frozen_ones_not_at_all() {
        // A bushel of 53 lb (USDA Guide 3, from memory) is about 160 fruit: 18 or 19 rounds.
        assert_eq!((rounds(53.0), rounds(0.5)), (19, 1));
        assert!((minutes(Work::Blanch, 53.0, 0.0) - 28.5).abs() < 1e-9);
        assert!(minutes(Work::Blanch, 0.0, 53.0).abs() < 1e-9);
        assert!((minutes(Work::Peel, 20.0, 33.0) - minutes(Work::Peel, 53.0, 0.0)).abs() < 1e-9);
    }

    #[test]
    fn peeled_fruit_takes_twice_the_hands_of_milled_fruit() {
        // Common practice, no source: a mill saves the blanching and the peeling.
        let fresh = |product| minutes_per_lb(product, false);
        assert!(fresh(Product::Whole) > 1.9 * fresh(Product::Sauce));
        assert!((fresh(Product::Whole) - 2.0).abs() < 0.1, "two minutes a pound");
        assert!(minutes_per_lb(Product::Crushed, true) < fresh(Product::Crushed), "no blanching");
    }
}
