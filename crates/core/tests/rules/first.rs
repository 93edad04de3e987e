//! The first answer, and what other packs would take.

use bodega_core::canner::room::room_of;
use bodega_core::plan::first::{FirstGround, first_answer};
use bodega_core::plan::packs::packs;
use bodega_core::plan::yields::learn::Household;
use bodega_model::canner::outline::Outsides;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::pounds;
use bodega_model::plan::making::Making;
use bodega_model::tables::process::{Medium, Method, Pack, Product};

use bodega_core::canner::moment;
use bodega_core::figures::{FigureName, known};
use bodega_core::jars::bench::{self, JarStep};
use bodega_model::canner::events::BoilEvent;
use bodega_model::kitchen::altitude::WaterBand;
use bodega_model::kitchen::ways::HeightIn;

use super::kitchen::canner;

/// Minutes of the first answer: `from` to `to`.
fn first_minutes(product: Product, medium: Option<Medium>, feet: Option<f64>) -> (u32, u32) {
    let making =
        *Making::ALL.iter().find(|making| making.product == product && making.medium == medium).unwrap();
    let canner = canner(Method::BoilingWater);
    let room = room_of(&canner, &Outsides::default());
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

#[test]
fn a_letter_means_one_thing_at_every_station() {
    let canner = BoilEvent::ALL.iter().map(|event| moment::key(*event)).filter(|key| *key != 'X');
    let mut keys: Vec<char> = JarStep::ALL.iter().map(|step| bench::key(*step)).chain(canner).collect();
    keys.sort_unstable();
    let all = keys.len();
    keys.dedup();
    assert_eq!(keys.len(), all, "{keys:?}");
}

#[test]
fn what_is_known_of_a_figure_says_what_the_rules_say() {
    // USDA Guide 3 and Guide 1, from memory.
    let dose = known(FigureName::Dose);
    assert!(
        dose.says.starts_with("A quart gets 2 Tbsp of bottled lemon juice or ½ tsp of citric acid"),
        "{}",
        dose.says
    );
    assert!(dose.source.from_memory);
    assert!(
        known(FigureName::Rest).says.starts_with("5 minutes with the heat off and the lid off, 10 after")
    );
    assert_eq!(known(FigureName::Paste).source.title, "Common practice, no source");
    for figure in FigureName::ALL {
        assert_eq!(known(*figure).figure, *figure);
    }
    assert!(known(FigureName::Sterilising).says.contains("Not needed for plain tomatoes: ten minutes"));
    assert!(known(FigureName::Simmering).says.contains("Not needed here, because"));
}

#[test]
fn a_metre_more_than_a_column_says_lies_in_the_next() {
    let labels = WaterBand::labels(HeightIn::Metres);
    assert_eq!(labels, ["0 to 304 m", "305 to 914 m", "915 to 1,828 m", "above 1,828 m"]);
    for (metres, column) in [(304.0, 0), (305.0, 1), (914.0, 1), (915.0, 2), (1828.0, 2), (1829.0, 3)] {
        // International foot, exact: 0.3048 m.
        let band = Altitude::from_feet(metres / 0.3048).unwrap().water_band().unwrap();
        assert_eq!(band.column(), column, "{metres} m");
    }
}
