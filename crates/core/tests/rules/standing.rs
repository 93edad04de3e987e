//! What stands against one jar among others that went through something else, and since when.

use bodega_core::judge::standing::standings;
use bodega_core::shelf::label_words::best_line;
use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, JarOut, JarsIn, Lifted};
use bodega_model::canner::events::Happened;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Code;
use bodega_model::judge::standing::{Against, End, JarStanding};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::jar::JarRecord;
use bodega_model::records::load::CannerLoad;
use bodega_model::tables::process::Method;
use bodega_model::towel::seal::Rescue;

use super::kitchen::{at, happened, jar, load, on_the_towel};

/// Quarts that had their fifty minutes and are out since minute 80.
fn out(count: u32) -> CannerLoad {
    let jars = (1..=count).map(|number| jar(number, 1, JarSize::Quart)).collect();
    load(Method::BoilingWater, 50, jars, &[(JarsIn, 0), (Boils, 20), (HeatOff, 70), (Lifted, 80)])
}

fn of(load: &CannerLoad) -> Vec<JarStanding> {
    standings(load, &[], &[]).into_iter().map(|(_, standing)| standing).collect()
}

#[test]
fn a_jar_without_acid_is_stopped_since_it_was_found_and_never_before_it_was_out() {
    let since = |found_at: Option<Moment>| {
        let mut load = out(2);
        (load.jars[0].acid, load.jars[0].undosed_at) = (false, found_at);
        let standings = of(&load);
        let is_dose = |code| matches!(code, Code::NoAcid | Code::AcidShort);
        assert!(!standings[1].against.iter().any(|stop| is_dose(stop.code)), "{:?}", standings[1]);
        standings[0].against.iter().find(|stop| is_dose(stop.code)).unwrap().since
    };
    assert_eq!(since(Some(at(300))), at(300));
    assert_eq!(since(Some(at(40))), at(80), "it was in the canner then");
    assert_eq!(since(None), at(80));
}

#[test]
fn a_jar_that_was_lifted_by_itself_has_its_own_minutes() {
    let short = |minute: i64| {
        let mut load = out(2);
        let mut events = happened(&[(JarsIn, 0), (Boils, 20), (HeatOff, 200), (Lifted, 210)]);
        let early = Happened { event: JarOut, at: at(minute), jar: Some(load.jars[0].id) };
        events.insert(2, early);
        load.clock = BoilClock::replay(Method::BoilingWater, Minutes(50), &events);
        let of_first = of(&load).swap_remove(0);
        of_first.against.into_iter().find(|stop| stop.code == Code::ProcessShort).map(|stop| stop.message)
    };
    let said = short(45).unwrap();
    assert!(said.contains("25") && said.contains("50"), "{said}");
    assert_eq!(short(70), None, "fifty minutes are fifty");
}

#[test]
fn a_jar_that_is_gone_or_kept_cold_stands_no_more() {
    let jar = on_the_towel();
    assert!(jar.stands());
    assert!(!JarRecord { gone_at: Some(at(90)), ..jar.clone() }.stands());
    for rescue in [Rescue::Refrigerator, Rescue::Freezer] {
        assert!(!JarRecord { rescue: Some(rescue), ..jar.clone() }.stands(), "{rescue}");
    }
}

#[test]
fn a_label_says_best_before_only_of_what_may_be_eaten() {
    assert_eq!(best_line(&JarStanding::CLEAR, "2027-09-12"), "best before 2027-09-12");
    let stopped = of(&{
        let mut load = out(1);
        load.jars[0].acid = false;
        load
    });
    let line = best_line(&stopped[0], "2027-09-12");
    assert!(line.starts_with("do not eat: ") && !line.contains("2027"), "{line}");
}

#[test]
fn only_a_stop_about_the_dose_says_that_the_acid_is_missing() {
    let lacks = |code: Code| {
        let stop = Against {
            code,
            subject: code.subject(),
            brief: code.label().to_owned(),
            message: String::new(),
            since: Moment(0),
            ends: vec![End::Reprocess],
        };
        JarStanding { against: vec![stop], ..JarStanding::CLEAR }.lacks_acid()
    };
    assert!(lacks(Code::NoAcid) && lacks(Code::AcidShort) && lacks(Code::PotDoseShort));
    assert!(!lacks(Code::LowAcidAddition) && !lacks(Code::FreshCitrus) && !JarStanding::CLEAR.lacks_acid());
}
