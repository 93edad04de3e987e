//! Where a rule turns over: the exact value, and the one beside it.

use bodega_core::canner::room::Capacity;
use bodega_core::canner::standing::most_of;
use bodega_core::kettle::heat::{by_volume, by_weight};
use bodega_core::kitchen::cupboard::missing;
use bodega_core::kitchen::places::towns;
use bodega_core::plan::batch::{Wish, work_out};
use bodega_model::canner::outline::{Outline, Outsides, usual_outside};
use bodega_model::contents::{Added, Ingredient, NotCounted, in_words};
use bodega_model::jars::acid::{Agent, measured, per_jar};
use bodega_model::jars::size::JarSize;
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{in_cups, in_litres_per_hour, in_quarts, litres_per_hour, quarts};
use bodega_model::records::stock::{AcidStock, Cupboard};
use bodega_model::tables::process::{Pack, Product};

use super::kitchen::wish;

#[test]
fn water_that_leaves_by_volume_and_by_weight_is_the_same_water() {
    for rate in [0.4, 1.0, 3.7] {
        let back = in_litres_per_hour(by_volume(by_weight(litres_per_hour(rate))));
        assert!((back - rate).abs() < 1e-9, "{rate} L/h came back as {back}");
    }
}

#[test]
fn a_pot_of_just_the_published_width_holds_the_published_number() {
    // Equal circles in a circle: seven in one of three diameters, exactly; two in one of two.
    let wide = usual_outside(JarSize::Quart).diameter;
    let most = |times: f64| most_of(Outline::round(wide * times), JarSize::Quart, &Outsides::default());
    assert_eq!(most(3.0), 7);
    assert_eq!(most(2.0), 2);
    assert_eq!(most(0.99), 0);
}

#[test]
fn what_cannot_be_counted_names_its_field() {
    let added = |what, cups, leaves| Added { cups, leaves, ..Added::free(what) }.counted();
    let field = |what, cups, leaves| added(what, cups, leaves).unwrap_err().field();
    assert_eq!(field(Ingredient::Onion, None, None), "cups");
    assert_eq!(field(Ingredient::Onion, Some(-1.0), None), "cups");
    assert_eq!(field(Ingredient::Onion, None, Some(3.0)), "leaves");
    assert_eq!(field(Ingredient::BasilLeaf, Some(1.0), Some(3.0)), "leaves");
    assert_eq!(field(Ingredient::BasilLeaf, None, Some(-1.0)), "leaves");
    assert!(matches!(added(Ingredient::Garlic, None, Some(3.0)), Err(NotCounted::OnlyBasil)));
    assert!(added(Ingredient::BasilLeaf, None, Some(3.0)).is_ok());
    // Dried spices, salt and sugar need no amount; what is low in acid does.
    for what in Ingredient::ALL.iter().filter(|what| **what != Ingredient::Other) {
        assert_eq!(added(*what, None, None).is_ok(), !what.is_measured(), "{what}");
        assert!(added(*what, Some(1.0), None).is_ok(), "{what}");
    }
    // Something else has a name, and nothing else has.
    let named = |what, name: &str| Added { name: Some(name.to_owned()), ..Added::free(what) }.counted();
    assert!(named(Ingredient::Other, "cocoa").is_ok());
    for (what, name) in [(Ingredient::Other, "  "), (Ingredient::Salt, "sea salt")] {
        assert_eq!(named(what, name).unwrap_err().field(), "name");
    }
    assert_eq!(field(Ingredient::Other, None, None), "name");
}

#[test]
fn vegetables_are_counted_in_whatever_measure_there_is() {
    let said = |what, amount, unit| Added { amount: Some(amount), unit: Some(unit), ..Added::free(what) };
    let cups = |what, amount, unit| in_cups(said(what, amount, unit).counted().unwrap().amount);
    // A cup of chopped onion weighs 160 g, of pepper 149 g, of carrot 128 g, of celery 101 g; an onion 110 g (USDA nutrient
    // database, from memory).
    assert!((cups(Ingredient::Onion, 480.0, Unit::Gram) - 3.0).abs() < 1e-9);
    assert!((cups(Ingredient::Pepper, 0.149, Unit::Kilogram) - 1.0).abs() < 1e-9);
    assert!((cups(Ingredient::Carrot, 1.0, Unit::Pound) - 453.592_37 / 128.0).abs() < 1e-9);
    assert!((cups(Ingredient::Celery, 2.0, Unit::Pint) - 4.0).abs() < 1e-9);
    assert!((cups(Ingredient::Onion, 3.0, Unit::Piece) - 330.0 / 160.0).abs() < 1e-9);
    // Nobody knows what a pound of beets fills, and a packet of anything.
    let field = |added: Added| added.counted().unwrap_err().field();
    assert_eq!(field(said(Ingredient::Beet, 1.0, Unit::Pound)), "unit");
    assert_eq!(field(said(Ingredient::Onion, 1.0, Unit::Packet)), "unit");
    assert_eq!(field(said(Ingredient::Onion, -1.0, Unit::Gram)), "amount");
    assert_eq!(field(Added { unit: None, ..said(Ingredient::Onion, 1.0, Unit::Gram) }), "unit");
    assert_eq!(field(Added { cups: Some(1.0), ..said(Ingredient::Onion, 1.0, Unit::Gram) }), "leaves");
    let words =
        in_words(&[said(Ingredient::Onion, 1.5, Unit::Pound), said(Ingredient::Carrot, 3.0, Unit::Piece)]);
    assert_eq!(words, "1 ½ lb of onion, 3 carrot");
}

#[test]
fn just_enough_acid_is_enough() {
    let needed = measured(Agent::CitricAcid, per_jar(Agent::CitricAcid, JarSize::Quart).times(7));
    let lacks = |counted| {
        let acid = AcidStock { agent: Agent::CitricAcid, counted: Some(counted), used: 0.0, opened_on: None };
        let cupboard = Cupboard { jars: Vec::new(), lids: Vec::new(), acids: vec![acid] };
        missing(&cupboard, Agent::CitricAcid, JarSize::Quart, 7)
    };
    assert_eq!(lacks(needed), [""; 0]);
    assert_eq!(lacks(needed - 0.01), ["citric acid"]);
}

#[test]
fn a_name_that_many_towns_bear_gives_each_of_them_once() {
    let found = towns("springfield", 20);
    let mut places: Vec<String> = found.iter().map(|field| field.place()).collect();
    assert!(places.len() > 1, "{places:?}");
    places.sort();
    let all = places.len();
    places.dedup();
    assert_eq!(places.len(), all, "{places:?}");
}

#[test]
fn what_is_left_over_is_what_the_jars_do_not_hold() {
    let capacity = [Capacity { jar: JarSize::Quart, count: 7 }, Capacity { jar: JarSize::Pint, count: 9 }];
    let mix = Some(vec![(JarSize::Quart, 3), (JarSize::Pint, 2)]);
    let wish = Wish { mix, ..wish(Product::Crushed, None, Pack::Hot) };
    let plan = work_out(&wish, &capacity, Minutes(10)).unwrap();
    let left = in_quarts(plan.volume.expected) - in_quarts(quarts(4.0));
    assert!((in_quarts(plan.left_over) - left).abs() < 1e-6, "{} against {left}", in_quarts(plan.left_over));
}
