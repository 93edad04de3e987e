//! Where food went: nothing is made or lost, published yields add up, and what is wrong is noticed.

use bodega_core::jars::size::JarSize;
use bodega_core::ledger::{
    Balance, BalanceVerdict, Figure, Food, FoodMeasure, FoodPlace, Told, Way, balance, boiled_away, in_jars,
    ladled, weighed,
};
use bodega_core::measures::units::{Mass, grams, kilograms, litres, pounds};
use bodega_core::plan::outlook::Making;
use bodega_core::plan::yields::Thickness;
use bodega_core::tables::process::{Medium, Pack, Product};
use proptest::prelude::*;
use uom::si::mass::kilogram;

fn making(product: Product, medium: Option<Medium>, thickness: Option<Thickness>) -> Making {
    let pack = if product == Product::Whole { Pack::Raw } else { Pack::Hot };
    Making { product, medium, pack, thickness }
}

fn quarts_of(making: &Making, fruit: Mass, quarts: u32, more: &[(Way, Figure)]) -> Balance {
    let jars = (Way::Jars, in_jars(making, &[(JarSize::Quart, quarts)]));
    let parts = std::iter::once(jars).chain(more.iter().copied()).collect();
    balance(making, weighed(fruit), parts, false, true)
}

/// Pounds for a load of seven quarts, as published: USDA Complete Guide to Home Canning, Guide 3, from memory.
fn published() -> Vec<(Making, f64)> {
    vec![
        (making(Product::Juice, None, None), 23.0),
        (making(Product::Crushed, None, None), 22.0),
        (making(Product::Whole, Some(Medium::Water), None), 21.0),
        (making(Product::Whole, Some(Medium::None), None), 21.0),
        (making(Product::Sauce, None, Some(Thickness::Thin)), 35.0),
        (making(Product::Sauce, None, Some(Thickness::Thick)), 46.0),
    ]
}

#[test]
fn a_published_load_adds_up_and_half_or_twice_of_it_does_not() {
    for (making, load) in published() {
        let as_published = quarts_of(&making, pounds(load), 7, &[]);
        assert_eq!(as_published.verdict, BalanceVerdict::AddsUp, "{making:?}: {as_published:?}");
        let short = quarts_of(&making, pounds(load * 2.0), 7, &[]);
        assert_eq!(short.verdict, BalanceVerdict::Missing, "{making:?}: {short:?}");
        assert!(short.text.contains("food is missing") && short.text.ends_with('?'), "{}", short.text);
        let much = quarts_of(&making, pounds(load), 14, &[]);
        assert_eq!(much.verdict, BalanceVerdict::TooMuch, "{making:?}: {much:?}");
        assert!(much.text.contains("Did more fruit or juice go in?"), "{}", much.text);
    }
}

#[test]
fn what_was_missing_adds_up_once_it_is_told() {
    let sauce = making(Product::Crushed, None, None);
    let missing = quarts_of(&sauce, pounds(44.0), 7, &[]);
    assert_eq!(missing.verdict, BalanceVerdict::Missing);
    let told = Told { amount: 7.0, measure: FoodMeasure::Quart };
    let frozen = (Way::Told(Food::Product, FoodPlace::Freezer), told.figure(Food::Product, &sauce));
    assert_eq!(quarts_of(&sauce, pounds(44.0), 7, &[frozen]).verdict, BalanceVerdict::AddsUp);
}

#[test]
fn steam_that_the_kettle_told_leaves_only_what_the_mill_takes() {
    // 46 lb of fruit give 14 quarts of juice at 3.25 lb a quart; half of it boils away (the same guide, from memory).
    let thick = making(Product::Sauce, None, Some(Thickness::Thick));
    let steam = (Way::Steam, boiled_away(litres(7.0 * 0.946)));
    let told = quarts_of(&thick, pounds(46.0), 7, &[steam]);
    assert_eq!(told.verdict, BalanceVerdict::AddsUp, "{told:?}");
    let none = quarts_of(&thick, pounds(46.0), 7, &[]);
    assert!(told.usual.1 < none.usual.1, "with the steam told, less may be missing");
    let half = quarts_of(&thick, pounds(60.0), 5, &[steam]);
    assert_eq!(half.verdict, BalanceVerdict::Missing, "{half:?}");
}

#[test]
fn what_cannot_be_told_is_not_fine() {
    let juice = making(Product::Juice, None, None);
    let jars = vec![(Way::Jars, in_jars(&juice, &[(JarSize::Quart, 7)]))];
    let open = balance(&juice, weighed(pounds(23.0)), jars.clone(), false, false);
    let mixed = balance(&juice, weighed(pounds(23.0)), jars, true, true);
    assert_eq!((open.verdict, mixed.verdict), (BalanceVerdict::CannotTell, BalanceVerdict::CannotTell));
    assert!(open.text.contains("last jar") && mixed.text.contains("more than tomatoes"));
}

#[test]
fn an_amount_weighs_what_its_measure_says() {
    let thin = making(Product::Sauce, None, Some(Thickness::Thin));
    let kg = |amount: f64, measure: FoodMeasure, food: Food| {
        Told { amount, measure }.figure(food, &thin).mass.get::<kilogram>()
    };
    // A quart of water is 0.946 kg (NIST Handbook 44, from memory); juice is a little heavier.
    assert!((kg(1.0, FoodMeasure::Quart, Food::Water) - 0.948).abs() < 0.005);
    let juice = kg(1.0, FoodMeasure::Quart, Food::ThinJuice);
    assert!((0.955..0.97).contains(&juice), "{juice}");
    for (measure, quarts) in [(FoodMeasure::Cup, 0.25), (FoodMeasure::Pint, 0.5), (FoodMeasure::Gallon, 4.0)]
    {
        assert!((kg(1.0, measure, Food::ThinJuice) - juice * quarts).abs() < 1e-9);
    }
    assert!((kg(1.0, FoodMeasure::Pound, Food::Trimmings) - 0.453_592_37).abs() < 1e-9);
    assert!((kg(1.0, FoodMeasure::Litre, Food::ThinJuice) - juice / 0.946_352_946).abs() < 1e-6);
    assert_eq!(Told { amount: 2.5, measure: FoodMeasure::Quart }.words(), "2.5 quarts");
}

fn any_part() -> impl Strategy<Value = (Way, Figure)> {
    let way = prop_oneof![
        Just(Way::Jars),
        Just(Way::Ladled),
        Just(Way::Steam),
        (prop::sample::select(Food::ALL), prop::sample::select(FoodPlace::ALL))
            .prop_map(|(food, place)| Way::Told(food, place)),
    ];
    (way, 0_i64..60_000, 0.0..0.5_f64)
        .prop_map(|(way, mass, share)| (way, Figure::to_share(grams(mass), share)))
}

proptest! {
    #[test]
    fn nothing_is_made_and_nothing_lost(
        fruit in 100_i64..500_000,
        parts in prop::collection::vec(any_part(), 0..12),
        place in 0..6_usize,
        others: bool,
        over: bool,
    ) {
        let making = published()[place].0;
        let fruit = weighed(grams(fruit));
        let books = balance(&making, fruit, parts.clone(), others, over);
        let out: Mass = parts.iter().fold(kilograms(0.0), |sum, (_, part)| sum + part.mass);
        let off = (books.remainder.mass + out - fruit.mass).get::<kilogram>();
        prop_assert!(off.abs() < 1e-9, "{off} kg");
        // What is left is never surer than what it is left of.
        for (_, part) in &parts {
            prop_assert!(books.remainder.doubt >= part.doubt * 0.999_999);
        }
        prop_assert!(books.remainder.doubt >= fruit.doubt * 0.999_999);
        let more_than_went_in = out - books.remainder.doubt > fruit.mass;
        if more_than_went_in && over && !others {
            prop_assert_eq!(books.verdict, BalanceVerdict::TooMuch);
        }
        prop_assert!(!books.text.is_empty());
        // The order in which it was told changes nothing.
        let turned = balance(&making, fruit, parts.into_iter().rev().collect(), others, over);
        prop_assert_eq!(turned.verdict, books.verdict);
        prop_assert!((turned.remainder.mass - books.remainder.mass).get::<kilogram>().abs() < 1e-9);
    }
}

#[test]
fn juice_that_was_ladled_off_is_food_and_not_waste() {
    let crushed = making(Product::Crushed, None, None);
    let missing = quarts_of(&crushed, pounds(36.0), 7, &[]);
    assert_eq!(missing.verdict, BalanceVerdict::Missing, "{missing:?}");
    let juice = (Way::Ladled, ladled(litres(4.0 * 0.946)));
    assert_eq!(quarts_of(&crushed, pounds(36.0), 7, &[juice]).verdict, BalanceVerdict::AddsUp);
}
