//! What the towel says of a load over its first two days.

use bodega_core::towel::moment::{LidSaid, Lids, TowelFigure, TowelSaid, lids, sayings};
use bodega_core::towel::seal::window;
use bodega_core::towel::ways_out::Alarm;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Ruling};
use bodega_model::judge::standing::{Against, End, JarStanding};
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::tables::process::Product;
use bodega_model::towel::seal::LidVerdict;

const LIFTED: Moment = Moment(1_790_000_000_000);
const HOUR: i64 = 3_600_000;

fn jar(id: i64, verdict: Option<LidVerdict>) -> TowelJar {
    TowelJar {
        id: JarId(id),
        batch: BatchId(1),
        code: "260912-1".to_owned(),
        product: Product::Crushed,
        named: None,
        number: 1,
        size: JarSize::Pint,
        liquid_lost: None,
        verdict,
        second_look: None,
        judged_at: None,
        rescue: None,
        rescued_at: None,
        tidy: false,
        dosed: true,
        standing: JarStanding::CLEAR,
    }
}

fn early(id: i64) -> TowelJar {
    TowelJar { second_look: Some(window(LIFTED).0), ..jar(id, Some(LidVerdict::Holds)) }
}

fn garlic(id: i64) -> TowelJar {
    let stop = Against {
        code: Code::LowAcidAddition,
        subject: Code::LowAcidAddition.subject(),
        brief: "garlic in it".to_owned(),
        message: String::new(),
        since: LIFTED,
        ends: vec![End::Cold],
    };
    let standing = JarStanding { ruling: Ruling::NotFine, against: vec![stop], ..JarStanding::CLEAR };
    TowelJar { standing, ..jar(id, Some(LidVerdict::Holds)) }
}

fn towel(jars: Vec<TowelJar>) -> Towel {
    let (check_from, check_by) = window(LIFTED);
    Towel {
        load_id: LoadId(1),
        code: "260912-1".to_owned(),
        product: Product::Crushed,
        lifted_at: LIFTED,
        check_from,
        check_by,
        jars,
    }
}

/// What holds so many milliseconds after the jars were lifted, as a page picks it.
fn after(said: &[TowelSaid], ms: i64) -> &TowelSaid {
    said.iter().rfind(|said| said.from.0 <= LIFTED.0 + ms).unwrap()
}

#[test]
fn the_lids_are_left_alone_then_looked_at_and_after_a_day_nothing_is_promised_any_more() {
    let towel = towel(vec![jar(1, None)]);
    let said = sayings(&towel, None, &[], &lids(&towel, true));
    let clock = TowelFigure::Clock { at: towel.check_from };
    let now = TowelFigure::Word { word: "Check now" };
    for (ms, figure, at, words) in [
        (0, &clock, Some(LIFTED), "Leave them alone for {left} more."),
        (12 * HOUR - 1, &clock, Some(LIFTED), "Leave them alone for {left} more."),
        (12 * HOUR, &now, Some(towel.check_by), "can be done again until {at} on {day}."),
        (24 * HOUR, &now, Some(towel.check_by), "can be done again until {at} on {day}."),
        (24 * HOUR + 1, &now, None, "one that failed is not processed again"),
        (30 * HOUR, &now, None, "only if it was kept cold all that time; else discard it without tasting."),
    ] {
        let said = after(&said, ms);
        assert_eq!((&said.figure, said.at), (figure, at), "{ms} ms after lifting");
        assert!(said.words.contains(words), "{ms} ms after lifting: {}", said.words);
        assert!(!said.bad);
    }
}

#[test]
fn a_lid_that_was_judged_early_is_looked_at_a_second_time() {
    let both = towel(vec![early(1), early(2)]);
    let found = lids(&both, true);
    assert_eq!((found.open.len(), found.sealed.len(), found.hold.as_deref()), (2, 0, Some("All 2 hold")));
    let said = sayings(&both, None, &[], &found);
    assert_eq!(after(&said, HOUR).unit.as_deref(), Some("look again"));
    assert_eq!(after(&said, HOUR).at, Some(both.check_from));
    // One that nobody looked at yet is left alone.
    let mixed = towel(vec![early(1), jar(2, None)]);
    let said = sayings(&mixed, None, &[], &lids(&mixed, true));
    assert_eq!(after(&said, HOUR).unit.as_deref(), Some("check the lids"));
}

#[test]
fn what_keeps_jars_off_the_shelf_is_said_at_every_hour() {
    let towel = towel(vec![garlic(1)]);
    let alarm = Alarm { figure: "Do not eat", unit: "1 jar".to_owned(), words: "Garlic.".to_owned() };
    let said = sayings(&towel, Some(&alarm), &[], &lids(&towel, true));
    for hours in [0, 13, 30] {
        let said = after(&said, hours * HOUR);
        assert_eq!((said.bad, &said.figure), (true, &TowelFigure::Word { word: "Do not eat" }));
        assert_eq!((said.unit.as_deref(), said.words.as_str()), (Some("1 jar"), "Garlic."));
    }
}

#[test]
fn judged_lids_are_washed_or_decided_on() {
    let sealed = towel(vec![jar(1, Some(LidVerdict::Holds)), jar(2, Some(LidVerdict::Holds))]);
    let found = lids(&sealed, true);
    let said = sayings(&sealed, None, &[], &found);
    assert_eq!(
        (&said[0].figure, said[0].unit.as_deref()),
        (&TowelFigure::Word { word: "Wash" }, Some("2 sealed"))
    );
    assert_eq!((said.len(), found.hold), (1, None));
}

#[test]
fn each_lid_stands_in_one_place_and_says_what_is_known_of_it() {
    let undosed = TowelJar { dosed: false, ..jar(7, Some(LidVerdict::Holds)) };
    let all = towel(vec![
        jar(1, None),
        jar(2, Some(LidVerdict::Holds)),
        jar(3, Some(LidVerdict::Failed)),
        jar(4, Some(LidVerdict::Doubtful)),
        jar(5, Some(LidVerdict::Broken)),
        garlic(6),
        undosed,
        early(8),
    ]);
    let Lids { each, open, sealed, hold } = lids(&all, true);
    assert_eq!((open, sealed), (vec![JarId(1), JarId(8)], vec![JarId(2)]));
    assert_eq!(hold.as_deref(), Some("These 2 hold"));
    let words: Vec<(&str, Option<&str>)> =
        each.iter().map(|LidSaid { words, stop, .. }| (words.as_str(), *stop)).collect();
    assert_eq!(
        words,
        [
            ("not checked", None),
            ("lid holds", None),
            ("lid failed", None),
            ("doubtful", None),
            ("jar broken", None),
            ("not for the shelf: garlic in it", Some("stop")),
            ("without its acid", Some("no acid")),
            ("lid holds", None),
        ]
    );
    assert_eq!(lids(&all, false).hold, None, "no lid holds over food that did not have its time");
}
