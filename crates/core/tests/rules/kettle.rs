//! The kettle against published tables, and its finish time against simulated cook-downs.

use bodega_core::kettle::finish::{CookDown, Happened, Sight, minutes};
use bodega_core::kettle::{Contents, Heat, HeatSetting, Target, Vessel, density, latent_heat, rate_at};
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::units::{
    Power, Time, Volume, in_litres_per_hour, in_quarts, kilograms, litres, litres_per_hour, millimetres,
    quarts,
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

fn cook(volume: Volume, brix: f64, target: Target, heat: Heat) -> CookDown {
    CookDown {
        start: Contents::of_volume(volume, brix),
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
    let goal = cook(quarts(12.0), 5.0, Target::FractionLeft(2.0 / 3.0), two_litres_an_hour()).forecast().goal;
    assert!((in_quarts(goal.volume()) - 8.0).abs() < 1e-6);
    // 8 qt are 7.5708 L; over a floor of 706.86 cm² they stand 107.1 mm deep.
    assert!((vessel().depth_of(goal.volume()).get::<millimeter>() - 107.1).abs() < 0.05);
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
    assert!((burner.rate(sea()).get::<kilogram_per_hour>() - 1.595).abs() < 0.002);
    let forecast = cook(litres(9.0), 5.0, Target::FractionLeft(2.0 / 3.0), burner).forecast();
    let boiling = 60.0 * 3.0 / 1.595;
    let warm = 9.0 * kg_per_l(5.0) * 4.07 * 80.0 / 3600.0 * 60.0;
    assert!((minutes(forecast.finish.expected) - boiling - warm).abs() < 2.0, "{:?}", forecast.finish);
}

#[test]
fn drains_move_a_share_and_leave_a_volume() {
    let drained = |target| {
        let mut kettle = cook(litres(12.0), 5.0, target, two_litres_an_hour());
        kettle.log.push((at(0.0), Happened::Drained(litres(3.0))));
        kettle.forecast()
    };
    let share = drained(Target::FractionLeft(0.5));
    assert!((share.goal.volume().get::<liter>() - 4.5).abs() < 1e-6, "half of the nine that stayed");
    let fixed = drained(Target::Volume(litres(6.0)));
    assert!((fixed.goal.volume().get::<liter>() - 6.0).abs() < 1e-6);
    assert!(fixed.goal.brix() < share.goal.brix());
    let plain = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour()).forecast();
    assert!(share.finish.expected < plain.finish.expected, "draining spares time");
}

#[test]
fn four_readings_are_one_state() {
    let state = Contents::of_volume(litres(8.0), 7.5);
    let sights = [
        Sight::Volume(litres(8.0)),
        Sight::Depth(vessel().depth_of(litres(8.0))),
        Sight::Mass(state.mass),
        Sight::Brix(7.5),
    ];
    let finishes: Vec<f64> = sights
        .into_iter()
        .map(|sight| {
            let start = Contents { mass: state.mass * 1.5, ..state };
            let mut kettle = cook(litres(12.0), 5.0, Target::Brix(10.0), two_litres_an_hour());
            kettle.start = start;
            kettle.log.push((at(119.0), Happened::Read(sight)));
            minutes(kettle.forecast().finish.expected)
        })
        .collect();
    assert!(finishes.iter().all(|finish| (finish - finishes[0]).abs() < 8.0), "{finishes:?}");
}

#[test]
fn a_wild_reading_is_flagged_and_not_obeyed() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    for (when, volume) in [(30.0, 11.0), (60.0, 10.0), (90.0, 3.0), (120.0, 8.0)] {
        kettle.log.push((at(when), Happened::Read(Sight::Volume(litres(volume)))));
    }
    let forecast = kettle.forecast();
    assert_eq!(forecast.flagged, [2]);
    assert!((minutes(forecast.finish.expected) - 180.0).abs() < 10.0, "{:?}", forecast.finish);
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
    assert!((covered - open - 54.0).abs() < 1.0, "nine tenths of an hour lost: {open} became {covered}");
}

#[test]
fn the_drawn_line_goes_from_the_start_through_the_readings_to_the_goal() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    kettle.log = vec![(at(60.0), Happened::Read(Sight::Volume(litres(10.0))))];
    let forecast = kettle.forecast();
    let (from, end) = (60.0, minutes(forecast.finish.expected));
    assert_eq!(forecast.curve.len(), 26, "the start, the reading and 24 steps to the finish");
    assert!((forecast.curve[0].1.get::<liter>() - 12.0).abs() < 1e-9);
    for (step, (when, volume)) in (1..=24).zip(&forecast.curve[2..]) {
        let share = f64::from(step) / 24.0;
        assert!((minutes(*when) - (from + (end - from) * share)).abs() < 1e-6, "step {step}");
        let read = forecast.curve[1].1.get::<liter>();
        let straight = read + (forecast.goal.volume().get::<liter>() - read) * share;
        assert!((volume.get::<liter>() - straight).abs() < 0.05, "step {step}: {volume:?}");
    }
}

#[test]
fn turning_the_heat_moves_the_finish_and_each_setting_keeps_its_own_rate() {
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.5), two_litres_an_hour());
    let full = minutes(kettle.forecast().finish.expected);
    kettle.log = vec![(at(60.0), Happened::Turned { water: litres_per_hour(1.0) })];
    let low = minutes(kettle.forecast().finish.expected);
    // What was left after an hour takes twice as long.
    assert!((low - (60.0 + 2.0 * (full - 60.0))).abs() < 1.0, "{full} became {low}");
    // An hour at 2.4 L an hour, read on a scale, then two hours at 0.8.
    let start = kettle.start.mass.get::<kilogram>();
    let read = |after: f64, mass: f64| (at(after), Happened::Read(Sight::Mass(kilograms(mass))));
    kettle.log = (1..=6).map(|n| read(10.0 * f64::from(n), start - 0.4 * f64::from(n))).collect();
    kettle.log.push((at(60.0), Happened::Turned { water: litres_per_hour(1.0) }));
    kettle
        .log
        .extend((1..=6).map(|n| read(60.0 + 20.0 * f64::from(n), start - 2.4 - 0.8 / 3.0 * f64::from(n))));
    let forecast = kettle.forecast();
    let shown: Vec<f64> =
        forecast.stretches.iter().map(|stretch| stretch.rate.get::<kilogram_per_hour>()).collect();
    assert_eq!(forecast.stretches.iter().map(|stretch| stretch.readings).collect::<Vec<_>>(), [6, 6]);
    assert!((shown[0] - 2.4).abs() < 0.05 && (shown[1] - 0.8).abs() < 0.05, "{shown:?}");
    assert!(forecast.flagged.is_empty());
}

#[test]
fn a_rate_is_the_kettles_own_at_its_setting_else_in_proportion() {
    use HeatSetting::{High, Low, Medium};
    for (shown, setting, expected, from) in [
        (vec![], High, 4.0, 0),
        (vec![], Low, 1.6, 0),
        (vec![(Low, 1.0), (Low, 1.2)], Low, 1.1, 2),
        (vec![(High, 3.0)], Medium, 2.1, 0),
    ] {
        let shown: Vec<_> = shown.into_iter().map(|(at, rate)| (at, litres_per_hour(rate))).collect();
        let (rate, learned) = rate_at(setting, &shown, litres_per_hour(4.0));
        let rate = in_litres_per_hour(rate);
        assert!((rate - expected).abs() < 1e-9 && learned == from, "{shown:?} {setting}: {rate}, {learned}");
    }
}

/// A small repeatable source of chance (SplitMix64), so that the test needs no clock and no crate.
struct Chance(u64);

impl Chance {
    fn unit(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        #[allow(clippy::cast_precision_loss)]
        let unit = ((z ^ (z >> 31)) >> 11) as f64 / (1_u64 << 53) as f64;
        unit
    }

    /// Normal, by the sum of twelve.
    fn normal(&mut self) -> f64 {
        (0..12).map(|_| self.unit()).sum::<f64>() - 6.0
    }
}

/// A cook-down whose true rate differs from the model's and wanders; read on a stick every 15 minutes.
fn simulated(chance: &mut Chance, readings: usize) -> (CookDown, f64) {
    let start = Contents::of_volume(litres(12.0), 5.0);
    let mut kettle = cook(litres(12.0), 5.0, Target::FractionLeft(0.6), two_litres_an_hour());
    let goal = kettle.forecast().goal.mass.get::<kilogram>();
    let mut mass = start.mass.get::<kilogram>();
    let mut rate: f64 = 2.0 * (1.0 + 0.22 * chance.normal());
    let mut clock = 0.0;
    while mass > goal {
        clock += 1.0;
        rate = (rate + 0.2 * chance.normal() * (1.0_f64 / 60.0).sqrt()).max(0.2);
        mass -= rate / 60.0;
        let due = kettle.log.len() < readings && (clock % 15.0) < 0.5;
        if due && mass > goal {
            let here = Contents { mass: kilograms(mass), solids: start.solids };
            let read = here.volume() + litres(0.12 * chance.normal());
            kettle.log.push((at(clock), Happened::Read(Sight::Volume(read))));
        }
    }
    (kettle, clock)
}

#[test]
fn the_eighty_percent_interval_holds_about_eighty_percent_of_the_time() {
    const RUNS: u32 = 600;
    let mut chance = Chance(7);
    for readings in [0, 2, 5] {
        let mut inside = 0;
        for _ in 0..RUNS {
            let (kettle, done) = simulated(&mut chance, readings);
            let finish = kettle.forecast().finish;
            inside += u32::from((minutes(finish.low)..=minutes(finish.high)).contains(&done));
        }
        let share = f64::from(inside) / f64::from(RUNS);
        assert!((0.74..0.9).contains(&share), "{share} with {readings} readings");
    }
}
