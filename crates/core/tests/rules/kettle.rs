//! The kettle against published tables, and what its forecast does with what is told.

use bodega_core::kettle::finish::{Asks, CookDown, Forecast, Happened, minutes};
use bodega_core::kettle::heat::{Heat, latent_heat};
use bodega_core::kettle::learned::{Expected, ShownStretch, rate_at};
use bodega_core::kettle::observation::Observation;
use bodega_core::kettle::vessel::Vessel;
use bodega_model::kettle::contents::Shown;
use bodega_model::kettle::contents::{Contents, Target, density};
use bodega_model::kettle::words::HeatSetting;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{
    Power, Time, Volume, celsius, in_litres_per_hour, in_quarts, kilograms, litres, litres_per_hour,
    millimetres, quarts,
};
use uom::si::available_energy::kilojoule_per_kilogram;
use uom::si::length::millimeter;
use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;
use uom::si::power::watt;
use uom::si::time::minute;
use uom::si::volume::liter;

fn vessel() -> Vessel {
    Vessel::straight(millimetres(300.0), millimetres(260.0))
}

fn sea() -> Altitude {
    Altitude::from_feet(0.0).unwrap()
}

/// A kettle that boils from the start, and whose sauce is known not to slow down.
fn cook(volume: Volume, brix: f64, target: Target, heat: Heat) -> CookDown {
    CookDown {
        start: Contents::of_volume(volume, brix),
        starts_at: Some(celsius(100.0)),
        product: None,
        in_oven: false,
        shown: Some(Shown { rate_doubt: 0.15, thickens: Some((0.0, 0.05)) }),
        target,
        vessel: vessel(),
        heat,
        altitude: sea(),
        log: Vec::new(),
    }
}

fn two_litres_an_hour() -> Heat {
    Heat::Rate { water: litres_per_hour(2.0) }
}

/// Density in kg/L.
fn kg_per_l(brix: f64) -> f64 {
    (density(brix) * litres(1.0)).get::<kilogram>()
}

fn at(minutes: f64) -> Time {
    Time::new::<minute>(minutes)
}

#[test]
fn density_follows_the_sucrose_table() {
    // ICUMSA / NIST Circular 440 sucrose solutions at 20 °C, kg/L, from memory.
    for (brix, density) in [(0.0, 0.998_2), (5.0, 1.017_8), (10.0, 1.038_1), (20.0, 1.081_0), (30.0, 1.127_0)]
    {
        assert!((kg_per_l(brix) - density).abs() < 3e-4, "{brix} °Brix: {}", kg_per_l(brix));
    }
}

#[test]
fn latent_heat_follows_an_independent_property_library() {
    // CoolProp 8.0.0 on the US Standard Atmosphere 1976: feet, kJ/kg.
    for (feet, kj) in [(0.0, 2256.5), (500.0, 2257.8), (1000.0, 2259.1), (5000.0, 2269.8), (10_000.0, 2283.0)]
    {
        let boils = Altitude::from_feet(feet).unwrap().boiling_point();
        assert!((latent_heat(boils).get::<kilojoule_per_kilogram>() - kj).abs() < 0.3, "{feet} ft");
    }
}

#[test]
fn the_mark_for_twelve_quarts_by_a_third_in_a_300_mm_kettle_is_right_to_the_millimetre() {
    let seen = cook(quarts(12.0), 5.0, Target::FractionLeft(2.0 / 3.0), two_litres_an_hour()).forecast();
    assert!((in_quarts(seen.goal.volume()) - 8.0).abs() < 1e-6);
    // 8 qt are 7.5708 L; over a floor of 706.86 cm² they stand 107.1 mm deep.
    let mark = seen.mark.unwrap();
    assert!((mark.cold.get::<millimeter>() - 107.1).abs() < 0.05);
    // Water at 100 °C fills 0.9982 / 0.9584 of its volume at 20 °C (CRC Handbook, from memory).
    assert!((mark.hot.get::<millimeter>() - 107.1 * 0.9982 / 0.9584).abs() < 0.15);
}

#[test]
fn reductions_agree_with_the_published_yields() {
    // USDA Guide 3, from memory: 3¼ lb a quart of juice, about 5 lb thin, about 6½ lb thick.
    for (left, pounds) in [(2.0 / 3.0, 5.0), (0.5, 6.5)] {
        let sauce = cook(quarts(10.0), 5.0, Target::FractionLeft(left), two_litres_an_hour()).forecast().goal;
        let per_quart = 10.0 * 3.25 / in_quarts(sauce.volume());
        assert!((per_quart / pounds - 1.0).abs() < 0.03, "{per_quart} lb a quart, not {pounds}");
    }
}

#[test]
fn puree_and_paste_take_as_much_juice_as_their_solids_say() {
    // 21 CFR 155.191 and 155.192, from memory: purée from 8 %, paste from 24 % soluble solids.
    for (brix, share) in [(8.0, 5.0 / 8.0), (24.0, 5.0 / 24.0)] {
        let goal = cook(litres(10.0), 5.0, Target::Brix(brix), two_litres_an_hour()).forecast().goal;
        let mass_left = goal.mass.get::<kilogram>() / (10.0 * kg_per_l(5.0));
        assert!((mass_left - share).abs() < 1e-9, "solids stay, water goes");
    }
}

#[test]
fn burner_boils_off_its_heat_and_warms_up_first() {
    // 2,000 W at half efficiency: 3,600 kJ an hour over 2,256.5 kJ/kg are 1.595 kg an hour.
    let burner = Heat::Burner { power: Power::new::<watt>(2000.0), efficiency: 0.5 };
    assert!((burner.rate(sea()).unwrap().get::<kilogram_per_hour>() - 1.595).abs() < 0.002);
    let mut kettle = cook(litres(9.0), 5.0, Target::FractionLeft(2.0 / 3.0), burner);
    kettle.starts_at = Some(celsius(20.0));
    let forecast = kettle.forecast();
    let boiling = 60.0 * 3.0 / 1.595;
    let warm = 9.0 * kg_per_l(5.0) * 4.07 * 80.0 / 3600.0 * 60.0;
    // What dries off below the boil, some 12 kg/m²h, and what is lost to the kitchen come on top.
    let boils = minutes(forecast.boils.expected);
    assert!((warm..1.6 * warm).contains(&boils), "{boils} beside {warm}");
    let all = minutes(forecast.finish.expected);
    assert!((boiling + warm..1.3 * (boiling + warm)).contains(&all), "{all} beside {}", boiling + warm);
}

/// A mixed drain takes its part of a share along; serum leaves its pulp.
fn after(target: Target, drained: Option<(f64, bool)>) -> Forecast {
    let mut kettle = cook(litres(12.0), 5.0, target, two_litres_an_hour());
    if let Some((volume, serum)) = drained {
        kettle.log.push((at(0.0), Happened::Drained { volume: litres(volume), serum }));
    }
    kettle.forecast()
}

#[test]
fn what_is_taken_off_moves_a_share_unless_it_is_serum_and_leaves_a_volume() {
    let litres_left = |forecast: &Forecast| forecast.goal.volume().get::<liter>();
    let (half, six) = (Target::FractionLeft(0.5), Target::Volume(litres(6.0)));
    assert!(
        (litres_left(&after(half, Some((3.0, false)))) - 4.5).abs() < 1e-6,
        "half of the nine that stayed"
    );
    assert!((litres_left(&after(half, Some((3.0, true)))) - 6.0).abs() < 1e-6, "the pulp of twelve");
    for serum in [false, true] {
        assert!((litres_left(&after(six, Some((3.0, serum)))) - 6.0).abs() < 1e-6);
    }
    let plain = minutes(after(half, None).finish.expected);
    let mixed = minutes(after(half, Some((3.0, false))).finish.expected);
    let ladled = minutes(after(half, Some((3.0, true))).finish.expected);
    // Six litres of water to boil away, 4.5, or 3.
    assert!((plain - 180.0).abs() < 4.0, "{plain}");
    assert!((mixed / plain - 0.75).abs() < 0.02 && (ladled / plain - 0.5).abs() < 0.02, "{mixed}, {ladled}");
}

#[test]
fn solids_decide_a_brix_and_go_with_every_drain_at_the_strength_of_the_liquid() {
    let ten = Target::Brix(10.0);
    for serum in [false, true] {
        let goal = after(ten, Some((3.0, serum))).goal;
        // Nine litres of 5 °Brix hold 9 x 1.0178 x 0.05 kg of solids; at 10 °Brix those are a tenth of the mass.
        assert!((goal.mass.get::<kilogram>() - 9.0 * kg_per_l(5.0) * 0.5).abs() < 0.01, "{goal:?}");
    }
    // The refractometer says that it was thinner than anybody thought: more has to boil away.
    let mut kettle = cook(litres(12.0), 5.0, ten, two_litres_an_hour());
    kettle.log.push((at(5.0), Happened::Drained { volume: litres(3.0), serum: true }));
    let thought = kettle.forecast();
    kettle.log.push((at(6.0), Happened::Read { observation: Observation::Brix(4.4), sure: false }));
    let read = kettle.forecast();
    assert!(read.goal.mass < thought.goal.mass * 0.95, "{:?} after {:?}", read.goal, thought.goal);
    assert!(read.finish.expected > thought.finish.expected);
}

#[test]
fn what_goes_in_brings_its_part_of_a_share_and_cools_the_pot() {
    let mut kettle = cook(litres(10.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    let before = kettle.forecast();
    let more = Contents::of_volume(litres(4.0), 5.0);
    let added = |cold: f64| (at(30.0), Happened::Added { more, at: celsius(cold) });
    kettle.log = vec![added(95.0)];
    let hot = kettle.forecast();
    kettle.log = vec![added(5.0)];
    let cold = kettle.forecast();
    assert!((hot.goal.volume().get::<liter>() - 7.0).abs() < 1e-6, "half of fourteen");
    // Four litres need 2 L more boiled away, an hour; 4 kg warmed by 90 K are 1,490 kJ, 20 minutes of 1,250 W.
    let longer = minutes(hot.finish.expected - before.finish.expected);
    let warmed = minutes(cold.finish.expected - hot.finish.expected);
    assert!((longer - 60.0).abs() < 8.0 && (warmed - 19.0).abs() < 5.0, "{longer}, {warmed}");
}

#[test]
fn four_readings_are_one_state() {
    let state = Contents::of_volume(litres(8.0), 7.5);
    let hot = litres(8.0) * 0.9982 / 0.9584;
    let observations =
        [Observation::Depth(vessel().depth_of(hot)), Observation::Mass(state.mass), Observation::Brix(7.5)];
    let finishes: Vec<f64> = observations
        .into_iter()
        .map(|observation| {
            let mut kettle = cook(litres(12.0), 5.0, Target::Brix(10.0), two_litres_an_hour());
            kettle.start = Contents { mass: state.mass * 1.5, ..state };
            kettle.log.push((at(119.0), Happened::Read { observation, sure: false }));
            minutes(kettle.forecast().finish.expected)
        })
        .collect();
    assert!(finishes.iter().all(|finish| (finish - finishes[0]).abs() < 8.0), "{finishes:?}");
}

/// A kettle of twelve litres at 2 L an hour that is read in litres every half hour.
fn read_as(volumes: &[f64], sure: bool) -> CookDown {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    for (clock, volume) in (1..).map(|half| 30.0 * f64::from(half)).zip(volumes) {
        kettle.log.push((
            at(clock),
            Happened::Read { observation: Observation::Mass(litres(*volume) * density(0.0)), sure },
        ));
    }
    kettle
}

#[test]
fn a_wild_reading_is_asked_about_and_not_obeyed_until_somebody_stands_by_it() {
    let forecast = read_as(&[11.2, 10.2, 4.0, 8.2], false).forecast();
    let [flagged] = &forecast.flagged[..] else { panic!("{:?}", forecast.flagged) };
    assert_eq!((flagged.place, &flagged.asks[..]), (2, &[Asks::TakenOff, Asks::HeatTurned][..]));
    // Below the mark, and nothing bears it out: it is not done yet, though the heat may have been turned up meanwhile.
    let just_read = read_as(&[11.2, 10.2, 4.0], false).forecast();
    let (low, expected) = (minutes(just_read.finish.low), minutes(just_read.finish.expected));
    assert!(!just_read.flagged[0].obeyed && low > 105.0 && expected > 165.0, "{:?}", just_read.finish);
    assert!((minutes(forecast.finish.expected) - 180.0).abs() < 15.0, "{:?}", forecast.finish);
    let more = read_as(&[11.2, 10.2, 13.5], false).forecast();
    assert_eq!(more.flagged[0].asks, [Asks::MoreWentIn, Asks::HeatTurned]);
    let sure = read_as(&[11.2, 10.2, 6.4], true).forecast();
    assert!(sure.flagged.is_empty());
    assert!(minutes(sure.finish.expected) < 120.0, "{:?}", sure.finish);
}

#[test]
fn two_readings_that_agree_are_believed_against_what_was_thought() {
    // Nobody told that three litres went: the first surprises, the second settles it.
    let forecast = read_as(&[11.2, 10.2, 6.2, 5.25], false).forecast();
    assert!(forecast.flagged.iter().all(|flagged| flagged.obeyed), "{:?}", forecast.flagged);
    assert!(minutes(forecast.finish.expected) < 135.0, "{:?}", forecast.finish);
}

#[test]
fn heat_that_somebody_turned_is_noticed_without_being_told() {
    let falling = |then: f64| {
        let mut volumes = vec![11.2, 10.2, 9.2];
        volumes.extend((1..=3).map(|half| 9.2 - then * f64::from(half)));
        read_as(&volumes, false).forecast()
    };
    let (same, slower) = (falling(1.0), falling(0.4));
    assert!(slower.flagged.is_empty(), "{:?}", slower.flagged);
    let rate = |forecast: &Forecast| forecast.rate.get::<kilogram_per_hour>();
    assert!(
        (rate(&same) - 2.0).abs() < 0.15 && (rate(&slower) - 0.8).abs() < 0.2,
        "{}, {}",
        rate(&same),
        rate(&slower)
    );
}

#[test]
fn it_boils_is_a_reading_of_the_burner() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), Heat::Unknown);
    (kettle.starts_at, kettle.shown) = (Some(celsius(20.0)), None);
    let unknown = kettle.forecast();
    assert!(unknown.finish.is_vague(at(0.0)));
    let said = |clock: f64, boils| {
        (at(clock), Happened::Read { observation: Observation::Boils(boils), sure: false })
    };
    let mut then = |log: Vec<(Time, Happened)>| {
        kettle.log = log;
        kettle.forecast()
    };
    let (soon, late) = (then(vec![said(25.0, true)]), then(vec![said(70.0, true)]));
    // 12.2 kg by 80 K are 3,970 kJ: in 25 min 2.6 kW, in 70 min 0.95 kW, and half as much again for what dries off.
    let rate = |forecast: &Forecast| forecast.rate.get::<kilogram_per_hour>();
    assert!((3.4..4.8).contains(&rate(&soon)), "{}", rate(&soon));
    assert!((1.3..2.4).contains(&rate(&late)), "{}", rate(&late));
    let width = |forecast: &Forecast| minutes(forecast.finish.high) / minutes(forecast.finish.low);
    assert!(width(&soon) < 0.75 * width(&unknown) && width(&late) < 0.75 * width(&unknown));
    // Not yet at forty minutes: no strong burner.
    let not_yet = then(vec![said(40.0, false)]);
    assert!(not_yet.finish.low > unknown.finish.low && not_yet.boils.low > at(38.0), "{:?}", not_yet.boils);
}

#[test]
fn a_kettle_warms_up_from_where_it_started() {
    let boils = |starts_at: f64| {
        let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
        kettle.starts_at = Some(celsius(starts_at));
        minutes(kettle.forecast().boils.expected)
    };
    let (frozen, cold, room, hot) = (boils(-15.0), boils(4.0), boils(20.0), boils(80.0));
    assert!(boils(100.0) < 0.5 && hot < 36.0 && hot < room && room < cold, "{hot}, {room}, {cold}");
    // Melting takes as long as warming by 80 K.
    assert!((frozen / cold - 1.75).abs() < 0.2, "{frozen} beside {cold}");
}

#[test]
fn a_pan_in_the_oven_loses_nothing_to_the_kitchen() {
    let mut pan =
        cook(litres(7.0), 5.0, Target::FractionLeft(0.5), Heat::Rate { water: litres_per_hour(0.8) });
    (pan.starts_at, pan.in_oven) = (Some(celsius(20.0)), true);
    // 0.8 kg an hour are 500 W: 7.1 kg by 80 K take 77 minutes, 3.5 L of water 262 more.
    let forecast = pan.forecast();
    let (boils, done) = (minutes(forecast.boils.expected), minutes(forecast.finish.expected));
    assert!((boils - 77.0).abs() < 6.0 && (done - boils - 262.0).abs() < 15.0, "{boils}, {done}");
}

#[test]
fn leaning_walls_hold_what_a_cut_cone_holds() {
    let cone = Vessel {
        top_diameter: Some(millimetres(360.0)),
        ..Vessel::straight(millimetres(240.0), millimetres(200.0))
    };
    // π h / 12 (D² + D d + d²) = 14.326 L to the brim; half way up, at 300 mm, 5.749 L.
    assert!((cone.brim().get::<liter>() - 14.326).abs() < 0.01, "{}", cone.brim().get::<liter>());
    assert!((cone.volume_to(millimetres(100.0)).get::<liter>() - 5.749).abs() < 0.01);
    for volume in [0.3, 5.749, 11.0, 14.326, 16.0] {
        let back = cone.volume_to(cone.depth_of(litres(volume))).get::<liter>();
        assert!((back - volume).abs() < 1e-9, "{volume} came back as {back}");
    }
    let level = Vessel { top_diameter: Some(millimetres(300.0)), ..vessel() };
    assert!((level.brim() - vessel().brim()).get::<liter>().abs() < 1e-9, "as wide above as below");
}

#[test]
fn a_calibrated_kettle_follows_its_poured_marks() {
    let mm = millimetres;
    // Four litres poured one by one into a bowl that widens; above the last mark its wall is taken as straight.
    let bowl = Vessel {
        poured: [40.0, 70.0, 94.0, 114.0]
            .into_iter()
            .zip(1..)
            .map(|(d, l)| (mm(d), litres(f64::from(l))))
            .collect(),
        ..vessel()
    };
    for (volume, depth) in [(0.5, 20.0), (1.0, 40.0), (2.5, 82.0), (4.0, 114.0)] {
        assert!((bowl.depth_of(litres(volume)).get::<millimeter>() - depth).abs() < 1e-9, "{volume} L");
        assert!((bowl.volume_to(mm(depth)).get::<liter>() - volume).abs() < 1e-9, "{depth} mm");
    }
    let above = bowl.volume_to(mm(124.0)).get::<liter>() - 4.0;
    assert!((above - 0.706_86).abs() < 1e-3, "10 mm over a floor of 706.86 cm²");
}

#[test]
fn a_lid_keeps_the_water_in() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    let open = minutes(kettle.forecast().finish.expected);
    kettle.log = vec![(at(30.0), Happened::Lid(true)), (at(90.0), Happened::Lid(false))];
    let covered = minutes(kettle.forecast().finish.expected);
    assert!((covered - open - 54.0).abs() < 6.0, "nine tenths of an hour lost: {open} became {covered}");
}

#[test]
fn the_drawn_line_goes_from_the_start_through_the_readings_to_the_goal() {
    let forecast = read_as(&[11.1, 10.1], false).forecast();
    let volume = |point: &bodega_core::kettle::finish::CurveAt| point.volume.get::<liter>();
    assert!((volume(&forecast.curve[0]) - 12.0).abs() < 1e-9);
    assert!(forecast.curve.windows(2).all(|two| two[0].at <= two[1].at && two[0].volume >= two[1].volume));
    assert!(forecast.curve.iter().all(|point| point.low <= point.volume && point.volume <= point.high));
    let last = forecast.curve.last().unwrap();
    assert!(
        (last.at - forecast.finish.high).value.abs() < 1e-6 && (volume(last) - 6.0).abs() < 0.1,
        "{last:?}"
    );
    let at_finish = forecast.volume_at(forecast.finish.expected).get::<liter>();
    assert!((at_finish - 6.0).abs() < 0.15, "{at_finish}");
    // The doubt is least where it was read last, and grows from there.
    let wide = |point: &bodega_core::kettle::finish::CurveAt| (point.high - point.low).get::<liter>();
    assert!(wide(&forecast.curve[2]) < wide(&forecast.curve[10]));
}

#[test]
fn turning_the_heat_moves_the_finish_and_each_setting_keeps_its_own_rate() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    let full = minutes(kettle.forecast().finish.expected);
    kettle.log = vec![(at(60.0), Happened::Turned { water: litres_per_hour(1.0) })];
    let low = minutes(kettle.forecast().finish.expected);
    // What was left after an hour takes twice as long.
    assert!((low - (60.0 + 2.0 * (full - 60.0))).abs() < 10.0, "{full} became {low}");
    // An hour at 2.4 kg an hour, read on a scale, then two hours at 0.8.
    let start = kettle.start.mass.get::<kilogram>();
    let read = |after: f64, mass: f64| {
        (at(after), Happened::Read { observation: Observation::Mass(kilograms(mass)), sure: false })
    };
    kettle.log = (1..=6).map(|n| read(10.0 * f64::from(n), start - 0.4 * f64::from(n))).collect();
    kettle.log.push((at(60.0), Happened::Turned { water: litres_per_hour(1.0) }));
    kettle
        .log
        .extend((1..=6).map(|n| read(60.0 + 20.0 * f64::from(n), start - 2.4 - 0.8 / 3.0 * f64::from(n))));
    let forecast = kettle.forecast();
    let shown: Vec<f64> =
        forecast.stretches.iter().map(|stretch| stretch.rate.get::<kilogram_per_hour>()).collect();
    assert_eq!(forecast.stretches.iter().map(|stretch| stretch.readings).collect::<Vec<_>>(), [6, 6]);
    assert!((shown[0] - 2.4).abs() < 0.12 && (shown[1] - 0.8).abs() < 0.1, "{shown:?}");
    assert!(forecast.stretches.iter().all(|stretch| stretch.doubt < 0.15), "{:?}", forecast.stretches);
    assert!(forecast.flagged.is_empty());
}

#[test]
fn a_rate_is_the_kettles_own_at_its_setting_else_in_proportion() {
    use HeatSetting::{High, Low, Medium};
    for (shown, setting, expected, from) in [
        (vec![], High, 4.0, 0),
        (vec![], Low, 1.6, 0),
        (vec![(Low, 1.0), (Low, 1.21)], Low, 1.1, 2),
        (vec![(High, 3.0)], Medium, 2.1, 0),
    ] {
        let shown: Vec<ShownStretch> = shown
            .into_iter()
            .map(|(setting, rate)| ShownStretch { setting, rate: litres_per_hour(rate), doubt: 0.1 })
            .collect();
        let Expected { rate, doubt, learned_from } = rate_at(setting, &shown, (litres_per_hour(4.0), 0.6));
        let rate = in_litres_per_hour(rate);
        assert!((rate - expected).abs() < 1e-6 && learned_from == from, "{shown:?} {setting}: {rate}");
        let surer = if from > 0 { doubt < 0.15 } else { doubt > 0.25 };
        assert!(surer, "{doubt} after {shown:?}");
    }
}

#[test]
fn an_hour_is_the_same_hour_whichever_way_the_log_is_ordered() {
    let kettle = read_as(&[11.2, 10.2, 9.1], false);
    let mut shuffled = kettle.clone();
    shuffled.log.reverse();
    assert_eq!(kettle.forecast().finish, shuffled.forecast().finish);
}

#[test]
fn a_scale_that_stood_still_under_a_lid_nobody_told_of_misleads_until_it_boils_and_no_longer() {
    // A kettle that loses nothing while it warms for 42 minutes and 2.3 kg an hour from then on, as a lid does that comes off
    // at the boil; the readings are those of a scale that wobbles by 10 g.
    let readings = [
        (10.8, 11.569),
        (21.0, 11.562),
        (31.0, 11.565),
        (41.1, 11.555),
        (51.2, 11.217),
        (61.3, 10.835),
        (71.4, 10.444),
        (81.5, 10.052),
        (91.6, 9.670),
        (101.7, 9.285),
        (111.7, 8.884),
        (121.8, 8.500),
    ];
    let seen_after = |count: usize| {
        let read = |(after, kg): &(f64, f64)| {
            (at(*after), Happened::Read { observation: Observation::Mass(kilograms(*kg)), sure: false })
        };
        let down = CookDown {
            starts_at: Some(celsius(20.0)),
            shown: Some(Shown { rate_doubt: 0.6, thickens: None }),
            altitude: Altitude::from_feet(2640.0).unwrap(),
            log: readings[..count].iter().map(read).collect(),
            ..cook(quarts(12.0), 5.0, Target::FractionLeft(2.0 / 3.0), two_litres_an_hour())
        };
        down.forecast()
    };
    // 11.56 kg at the end of the warming, 7.70 kg at the mark: 1.68 hours at 2.3 kg an hour.
    for count in 6..=readings.len() {
        let seen = seen_after(count);
        assert!(seen.flagged.is_empty(), "{count} readings: {:?}", seen.flagged);
        let (low, high) = (minutes(seen.finish.low), minutes(seen.finish.high));
        assert!(low < 143.0 && high > 141.0 && high - low < 45.0, "{count} readings: {low} to {high}");
    }
    let seen = seen_after(readings.len());
    assert!((seen.rate.get::<kilogram_per_hour>() - 2.3).abs() < 0.1, "{:?}", seen.rate);
    assert!((minutes(seen.boils.expected) - 42.0).abs() < 5.0);
}
