//! What a card asks of its jars, what jars beside them do to a boil, and how a finding is said in three words.

use bodega_core::canner::beside::{AlsoHow, beside_changed};
use bodega_core::jars::bench::before_filling;
use bodega_core::judge::case::{Addition, Case};
use bodega_core::judge::judge;
use bodega_model::canner::events::BoilEvent;
use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, JarAdded, JarOut, JarsIn};
use bodega_model::contents::Ingredient;
use bodega_model::contents::leaves;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Subject};
use bodega_model::judge::standing::Mending;
use bodega_model::judge::standing::{Against, End, JarStanding};
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::cups;
use bodega_model::records::claims::{asks_acid, asks_skins};
use bodega_model::records::load::AlsoIn;
use bodega_model::tables::process::{Method, Pack, Product};

use super::kitchen::{at, jar, load, packed};

#[test]
fn a_card_asks_what_its_jars_can_be_wrong_in() {
    let whole = jar(1, 1, JarSize::Quart);
    let sauce = packed(whole.clone(), Product::Sauce, None, Pack::Hot);
    let crushed = packed(whole.clone(), Product::Crushed, None, Pack::Hot);
    let of_recipe = packed(whole.clone(), Product::Recipe, None, Pack::Hot);
    assert!(asks_skins(std::slice::from_ref(&whole)) && asks_skins(&[sauce.clone(), crushed]));
    assert!(!asks_skins(std::slice::from_ref(&sauce)), "its skins went through the mill");
    let with = |agent| bodega_model::records::jar::Jar { agent, ..whole.clone() };
    assert_eq!(asks_acid(&[with(Agent::BottledLemonJuice)]), Some(Agent::BottledLemonJuice));
    assert_eq!(asks_acid(&[with(Agent::CitricAcid)]), None, "crystals are what they are");
    assert_eq!(asks_acid(std::slice::from_ref(&of_recipe)), None, "a recipe's is its own");
    assert_eq!(asks_acid(&[of_recipe, with(Agent::Vinegar5Pct)]), Some(Agent::Vinegar5Pct));
    // Juice that waited is boiled before it is filled, and nothing is said once it is.
    let juice = packed(whole.clone(), Product::Juice, None, Pack::Hot);
    let said = |jar| {
        before_filling(&load(Method::BoilingWater, 40, vec![jar], &[])).map(|says| says.contains("full boil"))
    };
    assert_eq!((said(juice.clone()), said(sauce), said(whole)), (Some(true), None, None));
    assert_eq!(said(bodega_model::records::jar::Jar { filled: true, ..juice }), None);
}

fn beside(count: u32) -> Vec<AlsoIn> {
    vec![AlsoIn { size: JarSize::Pint, count, minutes: Minutes(20), name: None, broken: 0 }]
}

#[test]
fn jars_beside_a_boil_are_asked_about_only_while_it_counts() {
    let with =
        |method, events: &[(BoilEvent, i64)]| load(method, 50, vec![jar(1, 1, JarSize::Quart)], events);
    let heats = with(Method::BoilingWater, &[(JarsIn, 0)]);
    assert_eq!(beside_changed(&heats, &beside(2), None, at(5)), Ok(None), "it only heats");
    let counts = with(Method::BoilingWater, &[(JarsIn, 0), (Boils, 10)]);
    assert!(beside_changed(&counts, &beside(2), None, at(20)).is_err(), "how?");
    assert_eq!(beside_changed(&counts, &[], None, at(20)), Ok(None), "nothing changed");
    let changed = |load, how| beside_changed(load, &beside(2), Some(how), at(20)).unwrap();
    assert_eq!(changed(&counts, AlsoHow::SaidWrongly), None);
    assert_eq!(changed(&counts, AlsoHow::LiftedNow), Some(JarOut));
    assert_eq!(changed(&counts, AlsoHow::PutInNow), Some(JarAdded));
    // A closed canner was opened for it.
    let steam = with(Method::AtmosphericSteam, &[(JarsIn, 0), (Boils, 10)]);
    assert_eq!(changed(&steam, AlsoHow::PutInNow), Some(BoilEvent::BoilLost));
    let done = with(Method::BoilingWater, &[(JarsIn, 0), (Boils, 10), (HeatOff, 60)]);
    assert_eq!(beside_changed(&done, &beside(2), None, at(62)), Ok(None), "the time is over");
}

#[test]
fn a_finding_is_said_in_three_words_by_its_name_where_it_has_one() {
    let garlic = Case {
        product: Some(Product::Crushed),
        additions: Some(vec![Addition { what: Ingredient::Garlic, amount: cups(1.0) }]),
        ..Case::default()
    };
    let found = judge(&garlic).findings;
    let brief = |code| found.iter().find(|finding| finding.code == code).unwrap().brief();
    assert_eq!(brief(Code::LowAcidAddition), "garlic in it");
    assert_eq!(brief(Code::AltitudeMissing), "altitude not known");
}

#[test]
fn spices_and_salt_are_free_in_any_amount() {
    use Ingredient::{ChiliFlakes, DriedHerb, FirmingSalt, GarlicPowder, Salt, Sugar};
    for what in Ingredient::ALL {
        let is_free = [DriedHerb, GarlicPowder, ChiliFlakes, FirmingSalt, Salt, Sugar].contains(what);
        assert_eq!(what.is_free(), is_free, "{what}");
    }
}

#[test]
fn a_stop_that_is_put_right_by_its_time_again_is_told_from_one_that_never_is() {
    let stop = |ends: &[End]| Against {
        code: Code::AcidShort,
        subject: Subject::Acid,
        brief: String::new(),
        message: String::new(),
        since: at(0),
        ends: ends.to_vec(),
    };
    let mending = |all: Vec<Against>| JarStanding { against: all, ..JarStanding::CLEAR }.mending();
    assert_eq!(mending(Vec::new()), Mending::Nothing);
    assert_eq!(mending(vec![stop(&[End::Reprocess, End::Cold])]), Mending::Again);
    assert_eq!(mending(vec![stop(&[End::Reprocess]), stop(&[End::Discard])]), Mending::Never);
}

#[test]
fn leaves_of_basil_are_held_against_the_jars_of_the_batch() {
    // A leaf a jar, and the jars of all its loads count: seven in this load, eighteen in the batch.
    let with = |count: f64, jars: u32| {
        let jars = Some(vec![(JarSize::Pint, jars)]);
        let basil = Addition { what: Ingredient::BasilLeaf, amount: leaves(count) };
        let case = Case { all_jars: jars, additions: Some(vec![basil]), ..Case::default() };
        judge(&case)
            .findings
            .into_iter()
            .find(|found| found.message.contains("leaves of basil"))
            .map(|found| found.message)
    };
    for jars in [1, 2, 7, 18, 96] {
        assert_eq!(with(f64::from(jars), jars), None, "{jars}");
        let said = with(f64::from(jars + 1), jars).unwrap();
        assert!(
            said.starts_with(&format!("{} leaves of basil are too many for {jars} jar", jars + 1)),
            "{said}"
        );
    }
}
