//! Where food went: nothing is made or lost, published yields add up, and what is wrong is noticed.

use bodega_core::ledger::balance::{
    Balance, BalanceVerdict, Made, balance, boiled_away, in_jars, quarts_out,
};
use bodega_core::ledger::book::{Book, Flow, Place};
use bodega_core::ledger::day::{DayFlow, DayPage, Stop};
use bodega_core::ledger::page::BatchPage;
use bodega_model::contents::{Added, Ingredient};
use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::jars::size::JarSize;
use bodega_model::ledger::food::{Figure, Food, FoodMeasure, FoodPlace, Stuff, Told};
use bodega_model::measures::ids::{BatchId, LotId, MoveId, RecipeId};
use bodega_model::measures::units::{Mass, grams, kilograms, litres, pounds};
use bodega_model::plan::making::{Making, Thickness, product_brix};
use bodega_model::records::batch::Batch;
use bodega_model::records::lot::Lot;
use bodega_model::records::recipe::BatchRecipe;
use bodega_model::tables::process::Method;
use bodega_model::tables::process::{Medium, Pack, Product};
use proptest::prelude::*;
use uom::si::mass::kilogram;

use super::kitchen::{batch, lot};

const BATCH: Place = Place::Batch(BatchId(1));

fn making(product: Product, medium: Option<Medium>, thickness: Option<Thickness>) -> Making {
    let pack = if product == Product::Whole { Pack::Raw } else { Pack::Hot };
    Making { product, medium, pack, thickness }
}

fn flow(from: Place, to: Place, food: Food, figure: Figure) -> Flow {
    Flow { from, to, food, figure, at: None, told: None, place: None }
}

fn made(making: &Making, stuff: Vec<Stuff>) -> Made {
    Made { batch: BatchId(1), making: *making, stuff, holds_others: false, is_over: true }
}

/// The page of a batch of fruit that filled so many quarts, and of which more went elsewhere.
fn page(making: &Making, stuff: &[Stuff], quarts: u32, more: &[Flow]) -> Book {
    let mut book = Book::default();
    for (number, stuff) in (1..).zip(stuff) {
        book.add(flow(Place::Crate(LotId(number)), BATCH, stuff.food, Figure::weighed(stuff.mass)));
    }
    let jars = in_jars(making, &[(JarSize::Quart, quarts)]);
    book.add(flow(BATCH, Place::Jars(BatchId(1)), Food::Product, jars));
    for flow in more {
        book.add(flow.clone());
    }
    book
}

fn quarts_of(making: &Making, fruit: Mass, quarts: u32, more: &[Flow]) -> Balance {
    let stuff = vec![Stuff::fruit(Kind::Paste, fruit)];
    let book = page(making, &stuff, quarts, more);
    balance(&made(making, stuff), &book)
}

/// What somebody told of a part.
fn told(amount: f64, measure: FoodMeasure, food: Food, place: FoodPlace, making: &Making) -> Flow {
    let mass = Told { amount, measure }.mass(food, product_brix(making));
    let to = if place.keeps() { Place::Cold(MoveId(1)) } else { Place::Gone(place) };
    flow(BATCH, to, food, Figure::measured(mass, measure))
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
    let crushed = making(Product::Crushed, None, None);
    assert_eq!(quarts_of(&crushed, pounds(44.0), 7, &[]).verdict, BalanceVerdict::Missing);
    for (food, place) in [
        (Food::Product, FoodPlace::Freezer),
        (Food::ThinJuice, FoodPlace::Line),
        (Food::Cooked, FoodPlace::Neighbour),
    ] {
        let told = told(7.0, FoodMeasure::Quart, food, place, &crushed);
        let books = quarts_of(&crushed, pounds(44.0), 7, &[told]);
        assert_eq!(books.verdict, BalanceVerdict::AddsUp, "{food}, {place}: {books:?}");
    }
}

#[test]
fn steam_that_the_kettle_told_leaves_only_what_the_mill_takes() {
    // 46 lb of fruit give 14 quarts of juice at 3.25 lb a quart; half of it boils away (the same guide, from memory).
    let thick = making(Product::Sauce, None, Some(Thickness::Thick));
    let steam = flow(BATCH, Place::Steam, Food::Water, boiled_away(litres(7.0 * 0.946)));
    let told = quarts_of(&thick, pounds(46.0), 7, std::slice::from_ref(&steam));
    assert_eq!(told.verdict, BalanceVerdict::AddsUp, "{told:?}");
    let none = quarts_of(&thick, pounds(46.0), 7, &[]);
    assert!(told.usual.1 < none.usual.1, "with the steam told, less may be missing");
    let half = quarts_of(&thick, pounds(60.0), 5, &[steam]);
    assert_eq!(half.verdict, BalanceVerdict::Missing, "{half:?}");
}

#[test]
fn what_cannot_be_told_is_not_fine() {
    let juice = making(Product::Juice, None, None);
    let stuff = vec![Stuff::fruit(Kind::Paste, pounds(23.0))];
    let book = page(&juice, &stuff, 7, &[]);
    let open = balance(&Made { is_over: false, ..made(&juice, stuff.clone()) }, &book);
    let mixed = balance(&Made { holds_others: true, ..made(&juice, stuff) }, &book);
    assert_eq!((open.verdict, mixed.verdict), (BalanceVerdict::CannotTell, BalanceVerdict::CannotTell));
    assert!(open.text.contains("last jar") && mixed.text.contains("more than tomatoes"));
}

#[test]
fn juice_that_another_batch_gave_fills_what_it_measures_and_loses_nothing_to_a_mill() {
    let juice = making(Product::Juice, None, None);
    let six = Told { amount: 6.0, measure: FoodMeasure::Quart }.mass(Food::ThinJuice, 5.0);
    let stuff = vec![Stuff { food: Food::ThinJuice, ..Stuff::fruit(Kind::Slicer, six) }];
    let verdict = |quarts| balance(&made(&juice, stuff.clone()), &page(&juice, &stuff, quarts, &[])).verdict;
    assert_eq!(verdict(6), BalanceVerdict::AddsUp);
    assert_eq!(verdict(8), BalanceVerdict::TooMuch);
    assert_eq!(verdict(4), BalanceVerdict::Missing);
}

#[test]
fn water_that_was_poured_off_was_never_trimmed() {
    // 46 lb of frozen fruit for seven quarts of thick sauce, of which 9 lb ran off as water.
    let thick = making(Product::Sauce, None, Some(Thickness::Thick));
    let poured = Stuff { poured_off: pounds(9.0), ..Stuff::fruit(Kind::Paste, pounds(37.0)) };
    let verdict = |stuff: Stuff| balance(&made(&thick, vec![stuff]), &page(&thick, &[stuff], 7, &[])).verdict;
    assert_eq!(verdict(poured), BalanceVerdict::AddsUp);
    // The same fruit in a world where nobody said so, and ten pounds less of it: more came out than it gives.
    assert_eq!(verdict(Stuff::fruit(Kind::Paste, pounds(23.0))), BalanceVerdict::TooMuch);
}

#[test]
fn bits_of_whole_fruit_are_made_of_its_trimmings() {
    // Twenty-one pounds for seven quarts (USDA Guide 3, from memory), and what the knife left as juice and bits of its own.
    let whole = making(Product::Whole, Some(Medium::Water), None);
    for pints in [2.0, 4.0, 5.0] {
        let bits = told(pints, FoodMeasure::Pint, Food::Bits, FoodPlace::Line, &whole);
        let books = quarts_of(&whole, pounds(21.0), 7, &[bits]);
        assert_eq!(books.verdict, BalanceVerdict::AddsUp, "{pints} pints: {books:?}");
    }
    let too_much = told(7.0, FoodMeasure::Quart, Food::Bits, FoodPlace::Line, &whole);
    assert_eq!(quarts_of(&whole, pounds(21.0), 7, &[too_much]).verdict, BalanceVerdict::TooMuch);
}

#[test]
fn fruit_that_was_left_over_is_neither_trimmed_nor_lost() {
    let whole = making(Product::Whole, Some(Medium::Water), None);
    let back = told(11.0, FoodMeasure::Pound, Food::Fruit, FoodPlace::Line, &whole);
    // Thirty-two pounds were drawn for seven quarts, and eleven of them were not needed.
    assert_eq!(quarts_of(&whole, pounds(32.0), 7, &[back]).verdict, BalanceVerdict::AddsUp);
    assert_eq!(quarts_of(&whole, pounds(42.0), 7, &[]).verdict, BalanceVerdict::Missing);
}

#[test]
fn cooked_food_may_have_been_boiled_down_before_or_after_it_came() {
    let thick = making(Product::Sauce, None, Some(Thickness::Thick));
    let cooked = Told { amount: 8.0, measure: FoodMeasure::Quart }.mass(Food::Cooked, 5.0);
    let stuff = vec![Stuff { food: Food::Cooked, ..Stuff::fruit(Kind::Paste, cooked) }];
    let verdict = |quarts| balance(&made(&thick, stuff.clone()), &page(&thick, &stuff, quarts, &[])).verdict;
    assert_eq!([8, 6, 4].map(verdict), [BalanceVerdict::AddsUp; 3]);
    assert_eq!((verdict(2), verdict(11)), (BalanceVerdict::Missing, BalanceVerdict::TooMuch));
}

#[test]
fn a_day_that_is_over_tells_what_was_weighed_in_and_used_later() {
    let lot =
        |weight_g, left_g| Lot { weight_g, left_g, ..lot(LotId(1), Kind::Paste, Condition::FirmRipe, None) };
    let of = |lot| DayPage { lots: vec![lot], ..DayPage::default() }.flow();
    let grams_to = |flow: &DayFlow, stop: &Stop| flow.there(stop).get::<kilogram>() * 1000.0;
    let waits = of(lot(9_000, 9_000));
    assert!((grams_to(&waits, &Stop::Waiting) - 9_000.0).abs() < 1e-6);
    // The next day two thirds of it were drawn.
    let used = of(lot(9_000, 3_000));
    assert!((grams_to(&used, &Stop::Later) - 6_000.0).abs() < 1e-6, "{used:?}");
    assert!((grams_to(&used, &Stop::Waiting) - 3_000.0).abs() < 1e-6);
    assert!((grams_to(&used, &Stop::WeighedIn) + 9_000.0).abs() < 1e-6);
}

#[test]
fn an_amount_weighs_what_its_measure_says() {
    let kg = |amount: f64, measure: FoodMeasure, food: Food| {
        Told { amount, measure }.mass(food, 7.5).get::<kilogram>()
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
    // Raw cut fruit has air between: about 1.6 lb a quart (common practice, no source).
    assert!((kg(5.0, FoodMeasure::Quart, Food::Fruit) - 8.0 * 0.453_592_37).abs() < 1e-6);
    assert_eq!(Told { amount: 2.5, measure: FoodMeasure::Quart }.words(), "2.5 quarts");
}

#[test]
fn a_last_jar_that_was_not_filled_is_not_lost_to_the_yield() {
    let crushed = making(Product::Crushed, None, None);
    let half = told(1.0, FoodMeasure::Pint, Food::Product, FoodPlace::Refrigerator, &crushed);
    let skins = told(3.0, FoodMeasure::Pound, Food::Trimmings, FoodPlace::Dried, &crushed);
    let stuff = vec![Stuff::fruit(Kind::Paste, pounds(22.0))];
    let book = page(&crushed, &stuff, 7, &[half, skins]);
    let out = quarts_out(&made(&crushed, stuff), &book, &[(JarSize::Quart, 7)]).unwrap();
    assert!((out - 7.5).abs() < 0.01, "{out}");
}

fn any_place() -> impl Strategy<Value = Place> {
    prop_oneof![
        Just(Place::Garden),
        (1..4_i64).prop_map(|lot| Place::Crate(LotId(lot))),
        (1..4_i64).prop_map(|batch| Place::Batch(BatchId(batch))),
        (1..4_i64).prop_map(|batch| Place::Jars(BatchId(batch))),
        (1..4_i64).prop_map(|cold| Place::Cold(MoveId(cold))),
        Just(Place::Steam),
        prop::sample::select(FoodPlace::ALL).prop_map(Place::Gone),
    ]
}

fn any_flow() -> impl Strategy<Value = Flow> {
    (any_place(), any_place(), prop::sample::select(Food::ALL), 0_i64..60_000, 0.0..0.5_f64)
        .prop_map(|(from, to, food, mass, share)| flow(from, to, food, Figure::to_share(grams(mass), share)))
}

proptest! {
    /// Whatever is moved in whatever order: over all places together there is as much as there was, which is nothing.
    #[test]
    fn nothing_is_made_and_nothing_lost(flows in prop::collection::vec(any_flow(), 0..40)) {
        let mut book = Book::default();
        for flow in &flows {
            book.add(flow.clone());
        }
        let all: Mass = book.places().into_iter().fold(kilograms(0.0), |sum, place| sum + book.there(place).mass);
        prop_assert!(all.get::<kilogram>().abs() < 1e-9, "{all:?}");
        let mut turned = Book::default();
        for flow in flows.into_iter().rev() {
            turned.add(flow);
        }
        for place in book.places() {
            let (one, other) = (book.there(place), turned.there(place));
            prop_assert!((one.mass - other.mass).get::<kilogram>().abs() < 1e-9);
            // Nothing is surer than what it was reckoned from.
            for flow in book.into_place(place).chain(book.out_of(place)) {
                prop_assert!(one.doubt >= flow.figure.doubt * 0.999_999);
            }
        }
        // A place that is named as short gave more than it got, and every such place is named.
        for place in book.places() {
            let there = book.there(place);
            let short = place != Place::Garden && (there.mass + there.doubt).get::<kilogram>() < 0.0;
            prop_assert_eq!(book.overdrawn().contains(&place), short);
        }
    }

    #[test]
    fn a_batch_is_the_sum_of_what_left_it_and_of_the_remainder(
        fruit in 100_i64..500_000,
        quarts in 0..30_u32,
        parts in prop::collection::vec((prop::sample::select(Food::ALL), 1_i64..60_000), 0..12),
        place in 0..6_usize,
        over: bool,
    ) {
        let making = published()[place].0;
        let stuff = vec![Stuff::fruit(Kind::Mixed, grams(fruit))];
        let more: Vec<Flow> = parts
            .into_iter()
            .map(|(food, mass)| flow(BATCH, Place::Gone(FoodPlace::Table), food, Figure::to_share(grams(mass), 0.1)))
            .collect();
        let book = page(&making, &stuff, quarts, &more);
        let books = balance(&Made { is_over: over, ..made(&making, stuff) }, &book);
        let out: Mass = books.went.iter().fold(kilograms(0.0), |sum, flow| sum + flow.figure.mass);
        let off = (books.remainder.mass + out - books.came_in.mass).get::<kilogram>();
        prop_assert!(off.abs() < 1e-9, "{off} kg");
        if over && out - books.remainder.doubt > books.came_in.mass {
            prop_assert_eq!(books.verdict, BalanceVerdict::TooMuch);
        }
        prop_assert!(!books.text.is_empty() && books.usual.0 <= books.usual.1);
    }
}

#[test]
fn a_batch_holds_something_else_by_its_recipe_or_by_what_was_added() {
    let holds = |batch: Batch| {
        BatchPage { batch, fruit: vec![], jars: vec![], cooks: vec![], moves: vec![] }.made().holds_others
    };
    let plain = || batch(1, Method::BoilingWater);
    let with = |what| Batch { additions: Some(vec![Added::free(what)]), ..plain() };
    assert!(!holds(Batch { additions: Some(vec![]), ..plain() }));
    assert!(!holds(with(Ingredient::DriedHerb)) && holds(with(Ingredient::Onion)));
    let recipe = BatchRecipe {
        recipe: RecipeId(1),
        name: "salsa".to_owned(),
        source: String::new(),
        makes: None,
        process: None,
        doses: vec![],
    };
    assert!(holds(Batch { recipe: Some(recipe), additions: None, ..plain() }));
}
