//! What may wait until tomorrow when the day does not hold it, and how long.
//!
//! Fruit keeps a day in the cold or longer in the freezer; milled juice keeps a day in the refrigerator and is boiled
//! anew before it is packed hot. Jars that are filled wait for nothing. Common practice, no source.

use bodega_model::ledger::keep::{COOKED_KEEPS, JUICE_KEEPS};
use bodega_model::measures::moment::Moment;
use bodega_model::tables::process::{Pack, Product};

/// Whether a product is juice on its way, which can be chilled and heated again before it is packed hot.
#[must_use]
pub const fn waits_as_juice(product: Product, pack: Pack) -> bool {
    matches!(pack, Pack::Hot)
        && matches!(product, Product::Juice | Product::VegetableJuice | Product::Sauce | Product::Paste)
}

/// What is said of juice, or of cooked food, that was chilled at a moment.
#[must_use]
pub fn advice(chilled_at: Moment, is_cooked: bool, now: Moment) -> &'static str {
    let keeps = if is_cooked { COOKED_KEEPS } else { JUICE_KEEPS };
    match (now <= chilled_at.plus(keeps), is_cooked) {
        (true, false) => "heat it to the boil and can it today, or freeze it",
        (true, true) => "heat it to the boil again and can it within two days, or freeze it",
        (false, false) => {
            "it has waited for more than a day: do not can it; freeze or eat what looks and smells right, and ask the local extension office when in doubt"
        }
        (false, true) => {
            "it has waited for more than two days: do not can it; freeze or eat what looks and smells right, and ask the local extension office when in doubt"
        }
    }
}

#[cfg(test)]
mod tests {
    use super::{advice, waits_as_juice};
    use bodega_model::measures::moment::Moment;
    use bodega_model::tables::process::{Pack, Product};

    #[test]
    fn only_milled_fruit_waits_as_juice_and_only_for_a_day() {
        assert!(waits_as_juice(Product::Sauce, Pack::Hot) && waits_as_juice(Product::Juice, Pack::Hot));
        assert!(!waits_as_juice(Product::Whole, Pack::Raw) && !waits_as_juice(Product::Crushed, Pack::Hot));
        let at = Moment(1_790_000_000_000);
        assert!(
            advice(at, false, at.plus_minutes(14 * 60)).starts_with("heat it to the boil and can it today")
        );
        assert!(advice(at, false, at.plus_minutes(24 * 60 + 1)).contains("do not can it"));
        // Cooked food waits a day longer.
        assert!(advice(at, true, at.plus_minutes(47 * 60)).contains("within two days"));
        assert!(advice(at, true, at.plus_minutes(48 * 60 + 1)).contains("do not can it"));
    }
}
