//! Canners against the physics of water, the geometry of circles, and what calls somebody back to them.

use bodega_core::canner::heat::{Charge, come_up, food_at, heat_to_boil, tap_water, water_before};
use bodega_core::canner::pot::{Cover, Crowding, boils_away, fill, overhangs};
use bodega_core::canner::probe::{Suggestion, suggestion};
use bodega_core::canner::water::{come_up_of, filling, outline, stands_over, warm_up_of};
use bodega_core::counter::{Cooking, of_canner, of_kettle, of_lids};
use bodega_core::kettle::goal::{Timer, hold_between};
use bodega_model::canner::cover::COVER_IN;
use bodega_model::canner::events::BoilEvent;
use bodega_model::canner::outline::Pot;
use bodega_model::canner::outline::{Outline, Outsides, usual_outside};
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::words::TargetKind;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::HeatIn;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Power, Volume, celsius, in_celsius, inches, litres, millimetres};
use bodega_model::records::canner::PotSize;
use bodega_model::records::load::{CannerLoad, CannerReading};
use bodega_model::tables::process::{Method, Pack};
use uom::si::energy::kilojoule;
use uom::si::length::millimeter;
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::{minute, second};
use uom::si::volume::liter;

use super::kitchen::{at, house, jar, load};

fn charge(water_l: f64, food_l: f64, from_c: f64) -> Charge {
    Charge {
        water: litres(water_l),
        water_at: celsius(from_c),
        food: litres(food_l),
        food_at: celsius(from_c),
    }
}

/// 4.19 kJ warm a litre of water by a kelvin: a handbook's round figure, common practice.
#[test]
fn heat_is_mass_times_rise() {
    let kj = |charge: Charge| heat_to_boil(&charge, celsius(100.0)).get::<kilojoule>();
    assert!((kj(charge(10.0, 0.0, 60.0)) - 10.0 * 4.19 * 40.0).abs() < 1e-9);
    assert!((kj(charge(20.0, 0.0, 60.0)) - 2.0 * kj(charge(10.0, 0.0, 60.0))).abs() < 1e-9);
    // Four fifths of 4.0 + 0.48 × 0.84 kJ for a litre of food in its glass.
    assert!((kj(charge(0.0, 6.0, 20.0)) - 6.0 * 0.8 * (4.0 + 0.48 * 0.84) * 80.0).abs() < 1e-9);
    assert!(kj(charge(10.0, 6.0, 100.0)).abs() < 1e-9);
    assert!(kj(charge(10.0, 6.0, 105.0)).abs() < 1e-9, "what is hotter gives nothing back");
}

#[test]
fn time_is_heat_over_power_and_no_power_is_very_long() {
    let time = |watts: f64, share: f64| {
        come_up(&charge(10.0, 0.0, 60.0), celsius(100.0), Power::new::<watt>(watts), share).get::<second>()
    };
    assert!((time(2000.0, 0.5) - 1676.0).abs() < 1e-6);
    assert!((time(1000.0, 1.0) - 1676.0).abs() < 1e-6);
    assert!(time(0.0, 0.5).is_finite() && time(0.0, 0.5) > 1e6);
}

#[test]
fn water_and_food_start_as_warm_as_the_pack_says() {
    let c = |temperature: bodega_model::measures::units::Temperature| temperature.get::<degree_celsius>();
    // 140 and 180 °F.
    assert!(
        (c(water_before(Pack::Raw)) - 60.0).abs() < 0.1 && (c(water_before(Pack::Hot)) - 82.2).abs() < 0.3
    );
    assert!(c(food_at(Pack::Raw)) < 25.0 && c(food_at(Pack::Hot)) > 85.0);
    assert!((c(tap_water()) - 15.0).abs() < 1e-9);
}

fn with_pot(method: Method) -> CannerLoad {
    let jars = (1..=7).map(|number| jar(number, 1, JarSize::Quart)).collect();
    let mut load = load(method, 50, jars, &[]);
    load.canner.pot = Some(PotSize {
        inner_diameter_mm: 305.0,
        inner_length_mm: None,
        inner_height_mm: 270.0,
        rack_height_mm: 12.0,
    });
    load.canner.power_w = Some(3000.0);
    load
}

#[test]
fn a_loads_water_is_what_its_pot_holds_around_its_jars() {
    let kitchen = house(Some(2000.0));
    let water = with_pot(Method::BoilingWater);
    let found = filling(&water, &kitchen).unwrap();
    // A floor of 0.0731 m², up to the jars and two inches and what boils away, as far as an inch is left under the rim: about
    // 18 L less what seven quarts push aside, 8.2 L.
    let tall = usual_outside(JarSize::Quart).height.get::<millimeter>();
    let up_to = 270.0 - 25.4;
    assert!((found.spare.get::<millimeter>() - (up_to - 12.0 - tall - 50.8)).abs() < 0.01);
    let expected = 305.0_f64.powi(2) * std::f64::consts::PI / 4.0 * up_to / 1e6 - 7.0 * 0.946_353 * 1.24;
    assert!((found.water.get::<liter>() - expected).abs() < 0.01, "{found:?}");
    assert!((found.headroom.get::<millimeter>() - (270.0 - up_to)).abs() < 0.01);
    assert!(found.fits && found.level_before.get::<millimeter>() < up_to);

    let minutes = come_up_of(&water, &kitchen, 1.0).unwrap().get::<minute>();
    let warm = warm_up_of(&water, &kitchen).unwrap().get::<minute>();
    // 55 % of 3 kW; from 60 °C and, before the jars are in, from the tap to 60 °C.
    let kw = 3.0 * 0.55;
    let boils = Altitude::from_feet(2000.0).unwrap().boiling_point().get::<degree_celsius>();
    let jars = 7.0 * 0.946_353 * 0.8 * (4.0 + 0.48 * 0.84) * (boils - 20.0);
    assert!((minutes - (expected * 4.19 * (boils - 60.0) + jars) / kw / 60.0).abs() < 0.01, "{minutes}");
    assert!((warm - expected * 4.19 * 45.0 / kw / 60.0).abs() < 0.01, "{warm}");

    assert_eq!(filling(&with_pot(Method::PressureDial), &kitchen), None, "only water stands over the lids");
    let mut unmeasured = with_pot(Method::BoilingWater);
    unmeasured.canner.pot = None;
    assert_eq!((filling(&unmeasured, &kitchen), come_up_of(&unmeasured, &kitchen, 1.0)), (None, None));
    assert_eq!(come_up_of(&water, &house(None), 1.0), None, "where water boils is not known");
    assert!(warm_up_of(&water, &house(None)).is_some(), "warming needs no boil");
}

#[test]
fn a_canner_is_as_wide_as_somebody_measured() {
    let mut canner = with_pot(Method::BoilingWater).canner;
    assert!((outline(&canner).width.get::<millimeter>() - 305.0).abs() < 1e-9);
    assert!(!stands_over(&canner), "nobody measured the burner");
    canner.burner_mm = Some(209.0);
    assert!(stands_over(&canner), "311 mm outside, 51 mm over on a side");
    canner.burner_mm = Some(210.0);
    assert!(!stands_over(&canner));
    canner.pot = None;
    assert!(!stands_over(&canner) && (outline(&canner).width.get::<millimeter>() - 305.0).abs() < 1e-9);
    assert!(!overhangs(millimetres(301.5), millimetres(200.0)));
    assert!(overhangs(millimetres(301.7), millimetres(200.0)));
}

#[test]
fn a_pot_says_what_does_not_fit() {
    let pot = |high: f64| Pot {
        outline: Outline::round(millimetres(305.0)),
        inner_height: millimetres(high),
        rack_height: millimetres(10.0),
    };
    let tall = usual_outside(JarSize::Quart).height.get::<millimeter>();
    let over = |cover: f64| Cover { at_start: millimetres(cover), least: inches(COVER_IN) };
    let said = |high: f64, quarts: u32, cover: f64| {
        let jars = [(JarSize::Quart, quarts), (JarSize::Pint, 0)];
        let filling = fill(&pot(high), &jars, over(cover), &Outsides::default());
        (filling.fits, filling.cautions)
    };
    let full = 10.0 + tall + 51.0;
    assert_eq!(said(full + 25.5, 7, 51.0), (true, vec![]));
    assert_eq!(said(full + 25.3, 7, 51.0), (true, vec![Crowding::BoilsOver]));
    assert_eq!(said(full + 0.1, 7, 51.0), (true, vec![Crowding::BoilsOver]));
    assert_eq!(said(full - 0.1, 7, 51.0), (false, vec![Crowding::TooTall]));
    assert_eq!(said(full + 30.0, 8, 51.0), (false, vec![Crowding::TooMany]));
    // Two inches over the lids for every process of more than half an hour.
    assert_eq!(said(full + 30.0, 7, 50.8), (true, vec![]));
    assert_eq!(said(full + 30.0, 7, 50.0), (true, vec![Crowding::LowCover]));
    let narrow = Pot { outline: Outline::round(millimetres(60.0)), ..pot(400.0) };
    let none = fill(&narrow, &[(JarSize::Quart, 1)], over(38.0), &Outsides::default());
    assert!(!none.fits && none.water == Volume::default(), "{none:?}");
    for (minutes, litres) in [(0, 0.0), (60, 1.0), (120, 2.0)] {
        assert!((boils_away(Minutes(minutes)).get::<liter>() - litres).abs() < 1e-9, "{minutes}");
    }
}

fn reading(after: i64, temp_c: f64) -> CannerReading {
    CannerReading { at: at(after), temp_c, simulated: false }
}

#[test]
fn a_probe_suggests_only_in_open_water_of_a_known_height() {
    let mut boiling = load(Method::BoilingWater, 50, vec![jar(1, 1, JarSize::Quart)], &[]);
    boiling.readings = vec![reading(0, 98.0), reading(1, 98.0)];
    let here = Altitude::from_feet(2000.0).ok();
    assert_eq!(suggestion(&boiling, here), Some(Suggestion::Boils));
    assert_eq!(suggestion(&boiling, None), None);
    let mut pressed = boiling.clone();
    pressed.batch.method = Method::PressureWeighted;
    assert_eq!(suggestion(&pressed, here), None);
    boiling.readings.push(reading(2, 90.0));
    assert_eq!(suggestion(&boiling, here), Some(Suggestion::BoilLost));
    // Half a minute is not held yet.
    boiling.readings = vec![reading(0, 90.0), CannerReading { at: at(1), ..reading(0, 98.0) }];
    assert_eq!(suggestion(&boiling, here), None);
}

#[test]
fn a_canner_calls_at_the_moment_and_names_itself_beside_others() {
    use BoilEvent::{BoilLost, Boils, HeatOff, JarsIn};
    let of =
        |events: &[(BoilEvent, i64)]| load(Method::BoilingWater, 50, vec![jar(1, 1, JarSize::Quart)], events);
    let calls = |events: &[(BoilEvent, i64)], suggests, is_one, now| {
        let calls = of_canner(&of(events), suggests, is_one, at(now));
        calls.into_iter().map(|call| (call.text, call.from, call.once)).collect::<Vec<_>>()
    };
    let boils = [(JarsIn, 0), (Boils, 20)];
    let up = "Time is up: heat off".to_owned();
    assert_eq!(calls(&[], None, true, 0), []);
    let half = ("Half time: look at the water over the lids".to_owned(), at(45), true);
    assert_eq!(
        calls(&boils, None, true, 30),
        [(up.clone(), at(70), false), half.clone()],
        "known before they come"
    );
    assert_eq!(calls(&boils, None, true, 70), [(up.clone(), at(70), false)]);
    assert_eq!(calls(&boils, None, false, 71), [(format!("Blue canner: {up}"), at(71), false)]);
    let fell = "The probe fell: look for the boil".to_owned();
    assert_eq!(
        calls(&boils, Some(Suggestion::BoilLost), true, 30),
        [(fell, at(30), false), (up, at(70), false), half]
    );
    assert_eq!(calls(&boils, Some(Suggestion::Boils), true, 30).len(), 2, "it is known to boil");
    let holds = "The probe holds the boil: look".to_owned();
    assert_eq!(calls(&boils[..1], Some(Suggestion::Boils), true, 10), [(holds.clone(), at(10), false)]);
    assert_eq!(calls(&boils[..1], Some(Suggestion::BoilLost), true, 10), [], "it does not boil yet");
    let lost = [boils[0], boils[1], (BoilLost, 40)];
    assert_eq!(calls(&lost, Some(Suggestion::Boils), true, 45), [(holds, at(45), false)]);
    let off = [boils[0], boils[1], (HeatOff, 70)];
    assert_eq!(calls(&off, None, true, 72), [("Rested: lift the jars".to_owned(), at(75), false)]);
}

fn kettle_calls(goal: TargetKind, since: Option<i64>, reads: Option<f64>) -> Vec<(String, bool)> {
    let timer = goal.starts_with().map(|_| Timer { minutes: 20.0, since: since.map(at) });
    let cooking =
        Cooking { name: "blue kettle".to_owned(), goal, timer, finish: at(60), temp: reads.map(celsius) };
    let calls = of_kettle(&cooking, hold_between(None), HeatIn::Fahrenheit, true, at(0));
    calls.into_iter().map(|call| (call.text, call.once)).collect()
}

#[test]
fn a_sauce_calls_at_its_mark_and_never_for_its_heat() {
    let mark = [("The kettle is at its mark".to_owned(), false)];
    for reads in [None, Some(80.0), Some(90.0), Some(99.0)] {
        assert_eq!(kettle_calls(TargetKind::FractionLeft, None, reads), mark);
    }
    let lids = of_lids(at(5));
    assert_eq!((lids.from, lids.once), (at(5), true));
}

#[test]
fn held_juice_calls_once_when_it_is_hot_when_it_is_too_hot_and_at_its_time() {
    let hold = |since, reads| kettle_calls(TargetKind::HoldMinutes, since, reads);
    // 190 and 205 °F.
    assert_eq!(hold(None, Some(87.7)), []);
    let hot = ("The juice is at 190 °F: hot enough".to_owned(), true);
    assert_eq!(hold(None, Some(87.8)), std::slice::from_ref(&hot));
    assert_eq!(hold(None, Some(96.0)), [hot]);
    assert_eq!(hold(None, Some(96.1)), [("The juice is at 205 °F: turn it down".to_owned(), true)]);
    let time = ("The juice was held hot for its time".to_owned(), false);
    assert_eq!(hold(Some(10), Some(90.0)), std::slice::from_ref(&time), "it is known to be hot");
    assert_eq!(hold(Some(10), Some(97.0)).len(), 2);
    let fell = ("The juice fell under 190 °F: turn it up".to_owned(), true);
    assert_eq!(hold(Some(10), Some(87.7)), [time, fell], "and again when it falls");
    // High up it boils at 94 °C (9,500 ft) and is held a degree below.
    let high = hold_between(Altitude::from_feet(9500.0).ok());
    assert!(in_celsius(high.1) < 90.5 && in_celsius(high.0) < 87.9, "{high:?}");
}

#[test]
fn several_kettles_name_themselves() {
    let cooking = Cooking {
        name: "copper pan".to_owned(),
        goal: TargetKind::Brix,
        timer: None,
        finish: at(60),
        temp: None,
    };
    let calls = of_kettle(&cooking, hold_between(None), HeatIn::Celsius, false, at(0));
    assert_eq!(calls[0].text, "copper pan: It is at its mark");
}

/// Water and seven jars as two lumps, stepped second by second: minutes to the boil and the share of its heat that a jar has
/// by then. Glass and the still food behind it pass 4 to 9 W for each degree into a quart (common practice, no source).
fn two_lumps(water_l: f64, watts: f64, passes: f64) -> (f64, f64) {
    let (jars, water) = (7.0 * 0.946_353 * (4.0 + 0.48 * 0.84), water_l * 4.19);
    let (mut jar_c, mut water_c, mut clock) = (20.0, 60.0, 0.0_f64);
    while water_c < 100.0 {
        let across = 7.0 * passes * (water_c - jar_c) / 1000.0;
        water_c += (watts * 0.55 / 1000.0 - across) / water;
        jar_c += across / jars;
        clock += 1.0;
    }
    (clock / 60.0, (jar_c - 20.0) / 80.0)
}

#[test]
fn seven_raw_quarts_come_up_as_two_lumps_do() {
    let charge = Charge {
        water: litres(9.8),
        water_at: celsius(60.0),
        food: litres(7.0 * 0.946_353),
        food_at: celsius(20.0),
    };
    let said = come_up(&charge, celsius(100.0), Power::new::<watt>(2400.0), 0.55).get::<minute>();
    let (slow, quick) = (two_lumps(9.8, 2400.0, 4.0), two_lumps(9.8, 2400.0, 9.0));
    assert!((0.6..0.8).contains(&slow.1) && (0.8..0.92).contains(&quick.1), "{slow:?}, {quick:?}");
    assert!((slow.0..=quick.0).contains(&said), "{said} between {slow:?} and {quick:?}");
    assert!((42.0..=49.0).contains(&said), "{said}");
}

#[test]
fn a_canner_learns_its_pace_from_its_own_loads() {
    use bodega_core::canner::water::pace_of;
    use bodega_model::canner::clock::BoilClock;
    use bodega_model::canner::events::{BoilEvent, Happened};
    use bodega_model::measures::moment::{Minutes, Moment};
    let kitchen = house(Some(2000.0));
    let load = with_pot(Method::BoilingWater);
    let said = come_up_of(&load, &kitchen, 1.0).unwrap().get::<minute>();
    let took = |share: f64| {
        #[allow(clippy::cast_possible_truncation)]
        let boils = Moment((said * share * 60_000.0) as i64);
        let happened = [(BoilEvent::JarsIn, Moment(0)), (BoilEvent::Boils, boils)]
            .map(|(event, at)| Happened { event, at, jar: None });
        let mut past = with_pot(Method::BoilingWater);
        past.clock = BoilClock::replay(Method::BoilingWater, Minutes(45), &happened);
        past
    };
    assert!((pace_of(&[], &kitchen) - 1.0).abs() < 1e-9);
    // Two loads that took half as long again, and the usual pace as a third: 1.5^(2/3).
    let pace = pace_of(&[took(1.5), took(1.5)], &kitchen);
    assert!((pace - 1.5_f64.powf(2.0 / 3.0)).abs() < 0.01, "{pace}");
    let longer = come_up_of(&load, &kitchen, pace).unwrap().get::<minute>();
    assert!((longer / said - pace).abs() < 1e-9);
    assert!((pace_of(&[took(9.0), load], &kitchen) - 1.0).abs() < 1e-9, "told much too late, or never");
}
