//! The first answer, and what other packs would take.

use bodega_core::canner::outline::Outsides;
use bodega_core::jars::acid::Agent;
use bodega_core::jars::size::JarSize;
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::moment::Minutes;
use bodega_core::measures::units::pounds;
use bodega_core::plan::first::{FirstGround, first_answer};
use bodega_core::plan::making::Making;
use bodega_core::plan::packs::packs;
use bodega_core::plan::yields::learn::Household;
use bodega_core::tables::process::{Medium, Method, Pack, Product};

use super::kitchen::canner;

/// Minutes of the first answer: `from` to `to`.
fn first_minutes(product: Product, medium: Option<Medium>, feet: Option<f64>) -> (u32, u32) {
    let making =
        *Making::ALL.iter().find(|making| making.product == product && making.medium == medium).unwrap();
    let canner = canner(Method::BoilingWater);
    let room = canner.room(&Outsides::default());
    let ground = FirstGround {
        method: Method::BoilingWater,
        altitude: feet.map(|feet| Altitude::from_feet(feet).unwrap()),
        room: &room,
        turnaround: Minutes(25),
        agent: Agent::BottledLemonJuice,
        household: &Household::default(),
    };
    let (from, to) = first_answer(making, pounds(30.0), &ground).minutes.unwrap();
    (from.0, to.0)
}

#[test]
fn the_first_answer_is_one_time_at_a_height_and_all_of_them_without_one() {
    // USDA Guide 3, from memory: whole raw in water, quarts, 45, 50, 55 and 60 minutes by altitude; without liquid 85 to 100.
    assert_eq!(first_minutes(Product::Whole, Some(Medium::Water), Some(500.0)), (45, 45));
    assert_eq!(first_minutes(Product::Whole, Some(Medium::Water), Some(2640.0)), (50, 50));
    assert_eq!(first_minutes(Product::Whole, Some(Medium::Water), None), (45, 60));
    assert_eq!(first_minutes(Product::Whole, Some(Medium::None), None), (85, 100));
}

#[test]
fn every_pack_that_was_tested_stands_beside_the_preset() {
    let at = Altitude::from_feet(500.0).unwrap();
    let seen: Vec<(Option<Medium>, Pack, u32)> =
        packs(Product::Whole, Method::BoilingWater, JarSize::Quart, at)
            .into_iter()
            .map(|way| (way.medium, way.pack, way.minutes.0))
            .collect();
    assert!(seen.contains(&(Some(Medium::Water), Pack::Raw, 45)), "{seen:?}");
    assert!(seen.contains(&(Some(Medium::None), Pack::Raw, 85)), "{seen:?}");
    // Crushed tomatoes are packed hot or not at all.
    let crushed = packs(Product::Crushed, Method::BoilingWater, JarSize::Quart, at);
    assert_eq!(crushed.iter().map(|way| way.pack).collect::<Vec<_>>(), [Pack::Hot]);
}
