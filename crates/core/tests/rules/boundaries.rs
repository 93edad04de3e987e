//! Each number that the judge holds something against: just on the right side of it, and just on the wrong one.

use std::collections::BTreeMap;

use bodega_core::judge::case::{
    Addition, Case, CaseJar, Damage, Heating, Ingredient, LogEvent, LogLine, OtherJars, PhReading, Ripeness,
    Vine,
};
use bodega_core::judge::judge;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::kinds::{AcidSource, JarKind};
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Fix, Severity, Subject};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Length, Temperature, Time, cups, pounds};
use bodega_model::tables::process::{Medium, Pack, Product};
use uom::si::length::inch;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;

use super::judge::at_two_thousand_feet;

fn minutes(value: f64) -> Time {
    Time::new::<minute>(value)
}

fn inches(value: f64) -> Option<Length> {
    Some(Length::new::<inch>(value))
}

fn celsius(value: f64) -> Option<Temperature> {
    Some(Temperature::new::<degree_celsius>(value))
}

fn codes(case: &Case) -> Vec<Code> {
    judge(case).findings.iter().map(|finding| finding.code).collect()
}

/// A rule's code, how a number is put into the case, and numbers on the right and the wrong side.
type Edge = (Code, fn(&mut Case, f64), &'static [f64], &'static [f64]);

fn per_quart(case: &mut Case, tsp: f64) {
    case.acid.as_mut().unwrap().per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, tsp)]));
}

fn in_pot(case: &mut Case, tsp: f64) {
    let acid = case.acid.as_mut().unwrap();
    (acid.per_jar_tsp, acid.pot_dose_tsp) = (None, Some(tsp));
}

fn ph(case: &mut Case) -> &mut PhReading {
    case.ph.as_mut().unwrap()
}

fn boil(case: &mut Case, lines: &[(f64, LogEvent)]) {
    case.boil = lines.iter().map(|(at, event)| LogLine { at: minutes(*at), event: *event }).collect();
}

const EDGES: &[Edge] = &[
    // Two tablespoons of lemon juice a quart are 6 tsp; seven quarts need 42. USDA Guide 3, from memory.
    (Code::AcidShort, per_quart, &[6.0, 6.000_1, 5.999_999_5, 11.9], &[5.99, 5.999, 3.0]),
    (Code::AcidMore, per_quart, &[6.0, 11.9], &[12.0, 60.0]),
    (Code::PotDoseShort, in_pot, &[42.0, 41.999_999_5, 50.0], &[41.9, 41.999, 6.0]),
    // 50 minutes at 2,000 ft.
    (
        Code::ProcessShort,
        |case, given| case.minutes = Some(minutes(given)),
        &[50.0, 50.5, 49.999, 90.0],
        &[49.9, 49.99, 1.0],
    ),
    (
        Code::MixedLoadShort,
        |case, given| {
            let other = OtherJars {
                product: None,
                medium: None,
                pack: None,
                jar: None,
                minutes: Some(minutes(given)),
            };
            case.load = vec![other];
        },
        &[10.0, 50.0, 50.001],
        &[50.01, 51.0, 90.0],
    ),
    (
        Code::BoilLost,
        |case, held| {
            boil(
                case,
                &[
                    (0.0, LogEvent::In),
                    (20.0, LogEvent::Boil),
                    (30.0, LogEvent::Lost),
                    (40.0, LogEvent::Boil),
                    (40.0 + held, LogEvent::End),
                ],
            );
        },
        &[50.0, 49.999, 60.0],
        &[49.9, 49.99, 10.0],
    ),
    (
        Code::ProcessShort,
        |case, held| boil(case, &[(0.0, LogEvent::In), (22.0, LogEvent::Boil), (22.0 + held, LogEvent::End)]),
        &[50.0, 49.999, 60.0],
        &[49.9, 49.99, 0.0],
    ),
    // ½ in over tomatoes, a sixteenth either way that an eye may miss.
    (
        Code::Headspace,
        |case, given| case.headspace = inches(given),
        &[0.5, 0.4375, 0.44, 0.56],
        &[0.43, 0.57, 0.0, 2.0],
    ),
    (Code::WaterCover, |case, given| case.water_cover = inches(given), &[2.0, 2.01, 5.0], &[1.999, 1.5, 1.0]),
    (Code::WaterLow, |case, given| case.water_cover = inches(given), &[2.0, 5.0], &[0.999, 0.5, 0.0]),
    (Code::RestShort, |case, given| case.rest = Some(minutes(given)), &[5.0, 5.1, 60.0], &[4.99, 1.0, 0.0]),
    (
        Code::SealCheckEarly,
        |case, given| case.seal_check_after = Some(minutes(given)),
        &[720.0, 721.0, 2000.0],
        &[719.9, 719.0, 0.0],
    ),
    (
        Code::ReprocessLate,
        |case, given| case.reprocess_after = Some(minutes(given)),
        &[0.0, 1439.0, 1440.0],
        &[1440.1, 1441.0, 5000.0],
    ),
    // The line of 21 CFR 114.
    (Code::PhHigh, |case, given| ph(case).value = given, &[3.9, 4.49, 4.5], &[4.501, 4.6, 4.601, 7.0]),
    (
        Code::PhUncompensated,
        |case, given| ph(case).temperature = celsius(given),
        &[20.0, 25.0, 30.0],
        &[19.9, 30.1, 4.0, 60.0],
    ),
    // Jar at 35 °C and food at 85 °C are 50 K apart.
    (
        Code::ThermalGap,
        |case, given| case.temperatures.jar = celsius(given),
        &[35.0, 55.0, 90.0, 132.0],
        &[34.9, 132.1, 0.0],
    ),
    (
        Code::ThermalGap,
        |case, given| case.temperatures.water = celsius(given),
        &[35.1, 82.0, 105.0],
        &[34.9, 105.1],
    ),
    (
        Code::BottleOld,
        |case, given| case.acid.as_mut().unwrap().bottle_age_months = Some(given),
        &[0.0, 6.0],
        &[6.1, 24.0],
    ),
    // Three cups to 22 lb: 1½ cups to 11.
    (
        Code::VegetableRatio,
        |case, given| {
            (case.product, case.medium, case.pack) = (Some(Product::VegetableJuice), None, Some(Pack::Hot));
            case.fruit.weight = Some(pounds(11.0));
            case.additions = Some(vec![Addition { what: Ingredient::Celery, amount: cups(given) }]);
        },
        &[0.0, 1.0, 1.5],
        &[1.51, 3.0],
    ),
];

#[test]
fn each_number_is_held_against_its_own_line() {
    for (place, (code, put, right, wrong)) in EDGES.iter().enumerate() {
        for value in *right {
            let mut case = at_two_thousand_feet();
            put(&mut case, *value);
            assert_eq!(codes(&case), [], "edge {place}, {value} is right");
        }
        for value in *wrong {
            let mut case = at_two_thousand_feet();
            put(&mut case, *value);
            assert_eq!(codes(&case), [*code], "edge {place}, {value} is wrong");
        }
    }
}

#[test]
fn sauce_takes_a_quarter_or_half_an_inch() {
    let mut case = at_two_thousand_feet();
    (case.product, case.medium, case.pack) = (Some(Product::Sauce), None, Some(Pack::Hot));
    for (given, expected) in [
        (0.18, &[Code::Headspace][..]),
        (0.19, &[]),
        (0.25, &[]),
        (0.5, &[]),
        (0.56, &[]),
        (0.57, &[Code::Headspace]),
    ] {
        case.headspace = inches(given);
        assert_eq!(codes(&case), expected, "{given}");
    }
    case.product = Some(Product::Paste);
    case.jars = Some(vec![CaseJar { jar: JarSize::HalfPint, count: 9, kind: None, lid: None, nicked: None }]);
    per_half_pint(&mut case);
    case.headspace = inches(0.5);
    assert!(codes(&case).contains(&Code::Headspace), "paste has a quarter of an inch");
}

fn per_half_pint(case: &mut Case) {
    case.acid.as_mut().unwrap().per_jar_tsp = Some(BTreeMap::from([(JarSize::HalfPint, 1.5)]));
}

#[test]
fn the_smallest_of_several_jars_is_short_by_its_own_dose() {
    let mut case = at_two_thousand_feet();
    let line = |jar, count| CaseJar { jar, count, kind: Some(JarKind::Mason), lid: None, nicked: None };
    case.jars = Some(vec![line(JarSize::Quart, 3), line(JarSize::Pint, 4)]);
    let acid = case.acid.as_mut().unwrap();
    // Quarts are right, pints have half.
    acid.per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 6.0), (JarSize::Pint, 1.5)]));
    let found = judge(&case).findings;
    assert_eq!(found.len(), 1);
    assert_eq!(
        found[0].message,
        "½ Tbsp (7.4 mL) of bottled lemon juice in a pint is too little: it needs 1 Tbsp (15 mL)."
    );
    // Of two sizes that are short, the one that is short by more is named; a size without a line got nothing.
    case.acid.as_mut().unwrap().per_jar_tsp = Some(BTreeMap::from([(JarSize::Pint, 2.5)]));
    assert!(judge(&case).findings[0].message.contains("in a quart is too little: it needs 2 Tbsp"));
    // The pot covers what the jars did not get.
    case.acid.as_mut().unwrap().pot_dose_tsp = Some(30.0);
    assert_eq!(codes(&case), []);
    case.acid.as_mut().unwrap().pot_dose_tsp = Some(29.0);
    assert_eq!(codes(&case), [Code::AcidShort]);
}

#[test]
fn nothing_in_jar_or_pot_is_no_acid() {
    let mut case = at_two_thousand_feet();
    in_pot(&mut case, 0.0);
    assert_eq!(codes(&case), [Code::NoAcid]);
    let acid = case.acid.as_mut().unwrap();
    acid.per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 0.0)]));
    assert_eq!(codes(&case), [Code::NoAcid]);
    // Something in one of the two is a short dose, not none.
    case.acid.as_mut().unwrap().pot_dose_tsp = Some(1.0);
    assert_eq!(codes(&case), [Code::PotDoseShort]);
    per_quart(&mut case, 1.0);
    case.acid.as_mut().unwrap().pot_dose_tsp = Some(0.0);
    assert_eq!(codes(&case), [Code::AcidShort]);
    // Which agent was said, and no dose: how much?
    let acid = case.acid.as_mut().unwrap();
    (acid.per_jar_tsp, acid.pot_dose_tsp) = (None, None);
    assert_eq!(codes(&case), [Code::NoAcid]);
    assert!(judge(&case).findings[0].message.starts_with("How much bottled lemon juice?"));
    case.acid.as_mut().unwrap().per_jar_tsp = Some(BTreeMap::new());
    assert!(judge(&case).findings[0].cannot_tell);
}

#[test]
fn citric_acid_and_vinegar_have_their_own_doses_and_no_fresh_lemon() {
    // ½ tsp of citric acid or 4 Tbsp of vinegar a quart: USDA Guide 3, from memory.
    for (agent, right, short) in [
        (Agent::CitricAcid, 0.5, 0.49),
        (Agent::Vinegar5Pct, 12.0, 11.9),
        (Agent::BottledLemonJuice, 6.0, 5.9),
    ] {
        let mut case = at_two_thousand_feet();
        case.acid.as_mut().unwrap().agent = Some(agent);
        per_quart(&mut case, right);
        assert_eq!(codes(&case), [], "{agent}");
        per_quart(&mut case, short);
        assert_eq!(codes(&case), [Code::AcidShort], "{agent}");
        // Only lemons are fresh, and only their bottle grows old.
        per_quart(&mut case, right);
        let acid = case.acid.as_mut().unwrap();
        (acid.source, acid.bottle_age_months) = (Some(AcidSource::Fresh), Some(30.0));
        let lemon = agent == Agent::BottledLemonJuice;
        assert_eq!(codes(&case), if lemon { vec![Code::FreshCitrus] } else { vec![] }, "{agent}");
        let acid = case.acid.as_mut().unwrap();
        acid.source = None;
        assert_eq!(codes(&case), if lemon { vec![Code::BottleOld] } else { vec![] }, "{agent}");
    }
}

#[test]
fn water_over_the_lids_is_asked_under_water_only() {
    for (heating, minutes_given, expected) in [
        (None, 50.0, &[Code::WaterLow][..]),
        (Some(Heating::BoilingWater), 50.0, &[Code::WaterLow]),
        (Some(Heating::PressureDial), 15.0, &[]),
        (Some(Heating::PressureWeighted), 15.0, &[]),
    ] {
        let mut case = at_two_thousand_feet();
        case.psi = Some(15.0);
        (case.heating, case.minutes, case.water_cover) = (heating, Some(minutes(minutes_given)), inches(0.0));
        case.boil.clear();
        assert_eq!(codes(&case), expected, "{heating:?}");
    }
}

#[test]
fn every_ingredient_has_its_place() {
    use Ingredient::{
        BasilLeaf, Beet, Carrot, Celery, DriedHerb, Garlic, Meat, Mushroom, Oil, Onion, Parsley, Pepper,
        Salt, Spinach, Sugar, Wine,
    };
    let found = |product: Product, what: Ingredient, amount: f64| {
        let mut case = at_two_thousand_feet();
        if product != Product::Whole {
            (case.product, case.medium, case.pack) = (Some(product), None, Some(Pack::Hot));
        }
        case.fruit.weight = Some(pounds(22.0));
        case.additions = Some(vec![Addition { what, amount: cups(amount) }]);
        codes(&case)
    };
    for what in [Onion, Pepper, Carrot, Celery] {
        for product in [Product::Whole, Product::Crushed, Product::Juice, Product::Sauce] {
            assert_eq!(found(product, what, 0.1), [Code::LowAcidAddition], "{what} in {product}");
        }
        assert_eq!(found(Product::VegetableJuice, what, 3.0), [], "{what}");
        assert_eq!(found(Product::VegetableJuice, what, 3.1), [Code::VegetableRatio], "{what}");
    }
    for what in [Mushroom, Meat, Oil, Garlic, Beet, Spinach, Parsley] {
        for product in [Product::Whole, Product::Sauce, Product::VegetableJuice] {
            assert_eq!(found(product, what, 0.1), [Code::LowAcidAddition], "{what} in {product}");
            assert_eq!(found(product, what, 0.0), [], "no {what}");
        }
    }
    assert_eq!(found(Product::Sauce, Wine, 0.5), [Code::NoTestedProcess]);
    for what in [DriedHerb, Salt, Sugar] {
        assert_eq!(found(Product::Whole, what, 50.0), [], "{what}");
    }
    // Seven jars carry seven leaves, and a cup is about 48.
    assert_eq!(found(Product::Whole, BasilLeaf, 7.0 / 48.0), []);
    assert_eq!(found(Product::Whole, BasilLeaf, 7.1 / 48.0), [Code::LowAcidAddition]);
}

#[test]
fn vegetables_of_one_pot_add_up_and_their_names_stand_in_the_message() {
    let mut case = at_two_thousand_feet();
    (case.product, case.medium, case.pack) = (Some(Product::VegetableJuice), None, Some(Pack::Hot));
    let add = |what, amount| Addition { what, amount: cups(amount) };
    case.additions = Some(vec![add(Ingredient::Onion, 2.0), add(Ingredient::Pepper, 1.0)]);
    assert_eq!(codes(&case), []);
    case.additions.get_or_insert_default().push(add(Ingredient::Carrot, 0.5));
    assert_eq!(codes(&case), [Code::VegetableRatio]);
    assert!(judge(&case).findings[0].message.starts_with("3.5 cups of vegetables are too many for 22 lb"));
    // Nobody weighed the fruit: the share cannot be told, and that is not fine.
    case.fruit.weight = None;
    assert_eq!(codes(&case), [Code::VegetableRatio]);
    assert!(judge(&case).findings[0].cannot_tell);
    case.additions = Some(vec![add(Ingredient::Mushroom, 1.0), add(Ingredient::Oil, 1.0)]);
    assert!(judge(&case).findings[0].message.starts_with("Mushroom, oil in it"));
}

#[test]
fn a_boil_is_read_in_the_order_of_its_times() {
    let mut case = at_two_thousand_feet();
    // Written down in any order.
    boil(&mut case, &[(70.0, LogEvent::End), (0.0, LogEvent::In), (20.0, LogEvent::Boil)]);
    assert_eq!(codes(&case), []);
    // "It boils" said twice counts from the first.
    boil(&mut case, &[(20.0, LogEvent::Boil), (40.0, LogEvent::Boil), (70.0, LogEvent::End)]);
    assert_eq!(codes(&case), []);
    // Heat off without a boil is no minute at all.
    boil(&mut case, &[(0.0, LogEvent::In), (70.0, LogEvent::End)]);
    assert_eq!(codes(&case), [Code::ProcessShort]);
    assert!(judge(&case).findings[0].message.contains("lasted 0 of 50"));
    // While it boils nothing is judged yet.
    boil(&mut case, &[(0.0, LogEvent::In), (20.0, LogEvent::Boil)]);
    assert_eq!(codes(&case), []);
    // A boil that was lost and is back is not judged either, until it ends.
    boil(&mut case, &[(20.0, LogEvent::Boil), (30.0, LogEvent::Lost), (35.0, LogEvent::Boil)]);
    assert_eq!(codes(&case), []);
}

#[test]
fn what_the_plan_said_is_not_said_again_of_its_boil() {
    let mut case = at_two_thousand_feet();
    case.minutes = Some(minutes(45.0));
    boil(&mut case, &[(20.0, LogEvent::Boil), (65.0, LogEvent::End)]);
    assert_eq!(codes(&case), [Code::ProcessShort]);
    // Long enough for itself, too short for what stands beside it: once, from the plan or from the boil.
    case.minutes = Some(minutes(50.0));
    case.load = vec![OtherJars {
        product: Some(Product::Whole),
        medium: Some(Medium::Juice),
        pack: Some(Pack::Raw),
        jar: Some(JarSize::Pint),
        minutes: None,
    }];
    boil(&mut case, &[(20.0, LogEvent::Boil), (70.0, LogEvent::End)]);
    assert_eq!(codes(&case), [Code::MixedLoadShort]);
    case.minutes = None;
    assert_eq!(codes(&case), [Code::MixedLoadShort]);
    case.minutes = Some(minutes(90.0));
    assert_eq!(codes(&case), [Code::MixedLoadShort]);
    boil(&mut case, &[(20.0, LogEvent::Boil), (110.0, LogEvent::End)]);
    assert_eq!(codes(&case), []);
}

#[test]
fn what_can_be_put_right_by_a_touch_says_how() {
    let fix = |change: fn(&mut Case)| {
        let mut case = at_two_thousand_feet();
        change(&mut case);
        judge(&case).findings.into_iter().next().unwrap().fix
    };
    assert_eq!(fix(|case| case.minutes = Some(minutes(45.0))), Some(Fix::RaiseTime { minutes: Minutes(50) }));
    assert_eq!(fix(|case| case.altitude = None), Some(Fix::FindAltitude));
    assert_eq!(fix(|case| case.heating = Some(Heating::AtmosphericSteam)), Some(Fix::UseBoilingWater));
    let lost = fix(|case| {
        boil(case, &[(20.0, LogEvent::Boil), (30.0, LogEvent::Lost)]);
    });
    assert_eq!(lost, Some(Fix::BringBackBoil));
    assert_eq!(fix(|case| case.fruit.vine = Some(Vine::Dead)), None);
}

#[test]
fn findings_come_stops_first_and_only_stops_and_an_open_question_hold_a_batch_up() {
    let mut case = at_two_thousand_feet();
    case.rest = Some(minutes(1.0));
    case.headspace = inches(2.0);
    assert!(judge(&case).ready, "warnings and notes do not hold it up");
    case.fruit.ripeness = Some(Ripeness::Overripe);
    case.fruit.damage = Some(Damage::Bruised);
    let verdict = judge(&case);
    let weights: Vec<Severity> = verdict.findings.iter().map(|finding| finding.severity).collect();
    // Too much headspace is a note, like the short rest.
    assert_eq!(weights, [Severity::Stop, Severity::Warn, Severity::Note, Severity::Note]);
    assert!(!verdict.ready);
    assert_eq!(verdict.findings[0].subject, Subject::Fruit);

    let mut open = at_two_thousand_feet();
    open.medium = None;
    assert!(!judge(&open).ready, "a time that cannot be told is not ready");
    // Long enough whatever they lie in: nothing is found, and the record still has to say it.
    open.minutes = Some(minutes(90.0));
    open.boil.clear();
    assert_eq!(codes(&open), []);
    assert!(!judge(&open).ready);
    open.minutes = Some(minutes(89.0));
    assert_eq!(codes(&open), [Code::MediumMissing]);
}

#[test]
fn a_process_too_long_for_steam_says_more_than_a_pack_that_was_never_tested() {
    let mut case = at_two_thousand_feet();
    case.boil.clear();
    (case.product, case.medium, case.heating) =
        (Some(Product::Crushed), None, Some(Heating::AtmosphericSteam));
    for pack in [None, Some(Pack::Hot)] {
        case.pack = pack;
        assert_eq!(codes(&case), [Code::SteamLimit], "{pack:?}");
    }
    case.pack = Some(Pack::Raw);
    assert_eq!(codes(&case), [Code::NoTestedProcess]);
}

#[test]
fn the_jar_that_needs_longest_decides() {
    let mut case = at_two_thousand_feet();
    case.additions = Some(Vec::new());
    let line = |jar, count| CaseJar { jar, count, kind: None, lid: None, nicked: None };
    // Pints alone need 45 minutes at 2,000 ft, with a quart among them 50. USDA Guide 3, from memory.
    case.jars = Some(vec![line(JarSize::Pint, 9)]);
    case.acid.as_mut().unwrap().per_jar_tsp =
        Some(BTreeMap::from([(JarSize::Pint, 3.0), (JarSize::Quart, 6.0)]));
    case.boil.clear();
    case.minutes = Some(minutes(45.0));
    assert_eq!(codes(&case), []);
    case.jars = Some(vec![line(JarSize::Pint, 8), line(JarSize::Quart, 1)]);
    assert_eq!(codes(&case), [Code::ProcessShort]);
    assert!(judge(&case).findings[0].message.contains("a quart of this needs 50"));
    // No jar of a size is no jar.
    case.jars = Some(vec![line(JarSize::Pint, 8), line(JarSize::Quart, 0)]);
    assert_eq!(codes(&case), []);
    case.jars = Some(vec![line(JarSize::Pint, 0)]);
    assert_eq!(codes(&case), [Code::NoTestedProcess]);
    // Two sizes refused in the same words are refused once.
    case.jars = Some(vec![line(JarSize::Pint, 1), line(JarSize::Quart, 1)]);
    case.altitude = Some(Altitude::from_feet(12_000.0).unwrap());
    assert_eq!(codes(&case), [Code::NoTestedProcess]);
}
