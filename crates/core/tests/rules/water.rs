//! Water over the lids: how much a process takes, how much boils away, when somebody looks again, and what was said of it.

use bodega_core::canner::moment::{key, said};
use bodega_core::canner::over::{cover_of, is_cover_open, look_again_from, look_again_words};
use bodega_core::canner::water::{at_the_end, filling, topping_up, unmeasured};
use bodega_core::counter::of_canner;
use bodega_core::jars::bench::{self, JarStep};
use bodega_core::judge::records::judge_load;
use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::cover::{UnderJars, WaterOver};
use bodega_model::canner::events::BoilEvent;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Ruling, Severity};
use bodega_model::judge::question::Ask;
use bodega_model::measures::moment::Minutes;
use bodega_model::records::canner::PotSize;
use bodega_model::records::load::CannerLoad;
use bodega_model::tables::process::Method;
use uom::si::length::{inch, millimeter};
use uom::si::volume::liter;

use super::kitchen::{at, happened, house, jar, load};

fn seven(method: Method, minutes: u32, events: &[(BoilEvent, i64)]) -> CannerLoad {
    load(method, minutes, (1..=7).map(|number| jar(number, 1, JarSize::Quart)).collect(), events)
}

fn in_a_pot(minutes: u32, high: f64) -> CannerLoad {
    let mut load = seven(Method::BoilingWater, minutes, &[]);
    load.canner.pot = Some(PotSize {
        inner_diameter_mm: 305.0,
        inner_length_mm: None,
        inner_height_mm: high,
        rack_height_mm: 12.0,
    });
    load
}

#[test]
fn a_pot_is_filled_so_that_enough_is_left_at_the_end() {
    let kitchen = house(Some(2000.0));
    let floor_dm2 = 3.05_f64.powi(2) * std::f64::consts::PI / 4.0;
    for (minutes, least) in [(15, 1.0), (30, 1.0), (31, 2.0), (45, 2.0), (90, 2.0)] {
        let load = in_a_pot(minutes, 400.0);
        let found = filling(&load, &kitchen).unwrap();
        assert!((cover_of(&load) - least).abs() < 1e-9, "{minutes} min");
        // A litre an hour over the floor of the pot, in millimetres.
        let away = f64::from(minutes) / 60.0 / floor_dm2 * 100.0;
        assert!((found.spare.get::<millimeter>() - away).abs() < 0.01, "{minutes} min: {found:?}");
        assert_eq!(topping_up(&load, Some(&found)), None, "all of it is in the pot");
        assert_eq!(at_the_end(&load, &found), format!("What boils away leaves {least} in over them."));
        assert!(found.cautions.is_empty());
    }
    // A pot that is too low for it: what does not go in is kept boiling beside it, a litre at the least.
    let low = in_a_pot(90, 270.0);
    let found = filling(&low, &kitchen).unwrap();
    assert!(found.headroom.get::<inch>() >= 1.0 - 1e-9);
    assert!(at_the_end(&low, &found).contains("top up, so that 2 in stay over them"));
    let stands = found.spare.get::<millimeter>() / 100.0 * floor_dm2;
    let spare = topping_up(&low, Some(&found)).unwrap().get::<liter>();
    assert!((spare - (1.5 - stands)).abs() < 0.001, "{spare}");
    assert!((topping_up(&in_a_pot(35, 262.0), None).unwrap().get::<liter>() - 1.0).abs() < 1e-9);
    assert_eq!(topping_up(&seven(Method::AtmosphericSteam, 40, &[]), None), None);
}

#[test]
fn an_unmeasured_pot_is_told_as_much_as_its_process_takes() {
    assert!(unmeasured(&seven(Method::BoilingWater, 45, &[])).starts_with("Water to 2 in over the lids"));
    assert!(unmeasured(&seven(Method::BoilingWater, 15, &[])).starts_with("Water to 1 in over the lids"));
    assert!(unmeasured(&seven(Method::PressureDial, 15, &[])).contains("as the maker says"));
}

#[test]
fn the_touch_for_the_jars_says_the_water() {
    let waters = |method, minutes| -> Vec<(Option<WaterOver>, char)> {
        let load = seven(method, minutes, &[]);
        let touches = said(&load, None, at(0)).0.touches;
        assert!(touches.iter().all(|touch| touch.event == BoilEvent::JarsIn));
        touches.iter().map(|touch| (touch.water, touch.key)).collect()
    };
    let (low, unknown) = ((Some(WaterOver::Low), 'W'), (Some(WaterOver::Unknown), 'Q'));
    assert_eq!(
        waters(Method::BoilingWater, 45),
        [(Some(WaterOver::Well), 'J'), (Some(WaterOver::Some), 'K'), low, unknown]
    );
    let mut keys: Vec<char> = waters(Method::BoilingWater, 45).iter().skip(1).map(|(_, key)| *key).collect();
    keys.extend(BoilEvent::ALL.iter().map(|event| key(*event)));
    keys.extend(JarStep::ALL.iter().map(|step| bench::key(*step)));
    keys.retain(|key| *key != 'X');
    let all = keys.len();
    keys.sort_unstable();
    keys.dedup();
    assert_eq!(keys.len(), all, "a letter means one thing: {keys:?}");
    assert_eq!(waters(Method::BoilingWater, 20), [(Some(WaterOver::Some), 'J'), low, unknown]);
    assert_eq!(waters(Method::AtmosphericSteam, 20), [(None, 'J')]);
}

fn counting(minutes: u32, water_at: Option<i64>, more: &[(BoilEvent, i64)]) -> CannerLoad {
    let mut load = seven(Method::BoilingWater, minutes, &[]);
    let events = [&[(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20)], more].concat();
    load.clock = BoilClock::replay(Method::BoilingWater, Minutes(minutes), &happened(&events));
    load.water_over = Some(WaterOver::Well);
    load.water_at = water_at.map(at);
    load
}

#[test]
fn a_long_process_is_looked_at_again_at_half_time() {
    let from = |load: &CannerLoad| look_again_from(load, at(66));
    assert_eq!(from(&counting(40, Some(0), &[])), None, "forty minutes are not long");
    assert_eq!(from(&counting(90, Some(0), &[])), Some(at(65)));
    assert_eq!(from(&counting(90, None, &[])), Some(at(65)));
    assert_eq!(from(&counting(90, Some(64), &[])), Some(at(65)), "that was before half time");
    assert_eq!(from(&counting(90, Some(65), &[])), None);
    assert_eq!(from(&counting(90, Some(0), &[(BoilEvent::ToppedUpBoiling, 65)])), None);
    assert_eq!(from(&counting(90, Some(0), &[(BoilEvent::ToppedUpBoiling, 64)])), Some(at(65)));
    // A boil that was lost and came back has its own half.
    let again = [(BoilEvent::BoilLost, 30), (BoilEvent::Boils, 40)];
    assert_eq!(look_again_from(&counting(90, Some(0), &again), at(41)), Some(at(85)));
    assert_eq!(look_again_from(&counting(90, Some(0), &[]), at(110)), None, "its time is up");
    assert!(look_again_words(&counting(90, None, &[])).unwrap().contains("2 in over the lids"));
    assert_eq!(look_again_words(&counting(40, None, &[])), None);

    let calls = |load: &CannerLoad| -> Vec<(String, bool)> {
        of_canner(load, None, true, at(30)).into_iter().map(|call| (call.text, call.once)).collect()
    };
    let half = ("Half time: look at the water over the lids".to_owned(), true);
    assert!(calls(&counting(90, Some(0), &[])).contains(&half));
    assert!(!calls(&counting(35, Some(0), &[])).contains(&half));
    let old = CannerLoad { water_asked: false, ..counting(90, None, &[]) };
    assert!(!calls(&old).contains(&half), "it was never asked of it");
}

#[test]
fn water_that_nobody_looked_at_cannot_be_told() {
    let judged = |load: &CannerLoad| {
        judge_load(load, &[], bodega_model::kitchen::altitude::Altitude::from_feet(500.0).ok())
    };
    let asks = |load: &CannerLoad| judged(load).questions.iter().any(|question| question.ask == Ask::Water);
    for (over, is_open) in [
        (None, true),
        (Some(WaterOver::Unknown), true),
        (Some(WaterOver::Well), false),
        (Some(WaterOver::Low), false),
    ] {
        let load = CannerLoad { water_over: over, ..counting(90, None, &[]) };
        assert_eq!((is_cover_open(&load), asks(&load)), (is_open, is_open), "{over:?}");
        if is_open {
            assert_ne!(judged(&load).ruling, Ruling::Fine);
        }
    }
    let waiting = CannerLoad { water_over: None, ..seven(Method::BoilingWater, 90, &[]) };
    assert!(!is_cover_open(&waiting), "nothing is in yet");
    let old = CannerLoad { water_over: None, water_asked: false, ..counting(90, None, &[]) };
    assert!(!is_cover_open(&old));
    let steam =
        CannerLoad { water_over: None, ..seven(Method::AtmosphericSteam, 40, &[(BoilEvent::JarsIn, 0)]) };
    assert!(!is_cover_open(&steam));

    let codes = |over| -> Vec<Code> {
        let load = CannerLoad { water_over: Some(over), ..counting(90, None, &[]) };
        judged(&load).findings.into_iter().map(|found| found.code).collect()
    };
    assert!(codes(WaterOver::Low).contains(&Code::WaterLow));
    assert!(codes(WaterOver::Some).contains(&Code::WaterCover));
    assert!(!codes(WaterOver::Well).iter().any(|code| matches!(code, Code::WaterLow | Code::WaterCover)));
}

#[test]
fn jars_on_the_bare_bottom_are_found() {
    let load = CannerLoad { under_jars: Some(UnderJars::Nothing), ..counting(90, None, &[]) };
    let found = judge_load(&load, &[], None).findings;
    let bare = found.iter().find(|found| found.code == Code::BareBottom).unwrap();
    assert_eq!(bare.severity, Severity::Warn);
}

#[test]
fn a_gauge_is_asked_about_where_that_was_a_question() {
    let untested = |asked: bool, tested: Option<i16>| {
        let mut load = seven(Method::PressureDial, 25, &[]);
        load.water_asked = asked;
        load.canner.gauge_tested_in = tested;
        // Its code begins with the day: a batch of 2026.
        load.batch.code = "260912-1".to_owned();
        judge_load(&load, &[], None).findings.iter().any(|found| found.code == Code::GaugeUntested)
    };
    assert!(untested(true, None) && untested(true, Some(2025)));
    assert!(!untested(true, Some(2026)) && !untested(true, Some(2027)));
    assert!(!untested(false, None), "recorded before anybody asked");
    assert!(untested(false, Some(2025)), "and said since");
}

#[test]
fn a_small_pressure_pan_is_known_by_what_stands_in_it() {
    let unsuited = |method, quarts: Option<u32>, wide: Option<f64>| {
        let mut load = seven(method, 25, &[]);
        load.canner.capacity = quarts.map(|count| (JarSize::Quart, count)).into_iter().collect();
        load.canner.pot = wide.map(|inner_diameter_mm| PotSize {
            inner_diameter_mm,
            inner_length_mm: None,
            inner_height_mm: 300.0,
            rack_height_mm: 12.0,
        });
        judge_load(&load, &[], None).findings.iter().any(|found| found.code == Code::CannerUnsuited)
    };
    assert!(unsuited(Method::PressureWeighted, Some(3), None));
    assert!(!unsuited(Method::PressureWeighted, Some(4), None));
    assert!(!unsuited(Method::PressureWeighted, None, None), "nobody counted");
    // Two quarts stand side by side in 200 mm, whatever was counted.
    assert!(unsuited(Method::PressureWeighted, Some(7), Some(200.0)));
    assert!(unsuited(Method::PressureWeighted, Some(7), Some(80.0)), "none stands in it");
    assert!(!unsuited(Method::BoilingWater, Some(2), None));
}
