//! Figures worked out by hand, one formula at a time.

use bodega_core::canner::pot::overhangs;
use bodega_core::canner::room::Capacity;
use bodega_core::kettle::cooking::drain_first;
use bodega_core::kettle::finish::{CookDown, minutes};
use bodega_core::kettle::heat::Heat;
use bodega_core::kettle::learned::{ShownStretch, rate_at};
use bodega_core::kettle::vessel::Vessel;
use bodega_core::kitchen::places::towns;
use bodega_core::plan::batch::{Wish, work_out};
use bodega_core::plan::outlook::{Ground, HANDS_PER_JAR, hands_per_lb, outlook};
use bodega_core::plan::stuff::volume;
use bodega_core::plan::yields::expect;
use bodega_core::plan::yields::learn::{Finished, Household};
use bodega_core::plan::yields::pounds_per_quart;
use bodega_core::shelf::label_sheet::{Paper, Sheet};
use bodega_core::shelf::pantry::forecast;
use bodega_model::crates::fruit::{KNOWN_CONTAINERS, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::contents::Shown;
use bodega_model::kettle::contents::{Contents, Target};
use bodega_model::kettle::words::HeatSetting;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::food::{Food, Stuff};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{
    celsius, in_litres_per_hour, in_pounds, in_quarts, litres, litres_per_hour, millimetres, pounds, quarts,
};
use bodega_model::plan::making::Making;
use bodega_model::shelf::leaving::{History, Leaving};
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use uom::si::length::millimeter;
use uom::si::volume::liter;

use super::kitchen::{START, wish};

fn near(value: f64, expected: f64, off: f64) -> bool {
    (value - expected).abs() < off
}

#[test]
fn paste_takes_the_juice_that_holds_its_solids() {
    // 3¼ lb a quart of juice; 17 °Brix from 5, densities 1.068 and 1.020: 3.25 x 3.5600. At the edges 16 from 5.5 and
    // 18 from 4.5.
    let paste = pounds_per_quart(Product::Paste, None);
    assert!(near(paste.expected, 11.570, 0.001), "{}", paste.expected);
    assert!(near(paste.low, 9.843, 0.001) && near(paste.high, 13.690, 0.001), "{paste:?}");
}

#[test]
fn parts_of_a_bushel_weigh_their_share() {
    let of = |name: &str| {
        let found = KNOWN_CONTAINERS.iter().find(|container| container.name == name).unwrap();
        in_pounds(found.weight())
    };
    // 53 lb a bushel: USDA Guide 3, from memory.
    for (name, weight) in
        [("bushel", 53.0), ("half bushel", 26.5), ("peck", 13.25), ("five-gallon bucket", 15.0)]
    {
        assert!(near(of(name), weight, 1e-9), "{name}");
    }
}

const WHOLE: Making =
    Making { product: Product::Whole, medium: Some(Medium::Water), pack: Pack::Raw, thickness: None };

#[test]
fn lots_give_the_sum_of_what_each_gives() {
    let household = Household::default();
    let lots = [Stuff::fruit(Kind::Paste, pounds(30.0)), Stuff::fruit(Kind::Slicer, pounds(24.0))];
    let all = volume(&household, &WHOLE, &lots).unwrap();
    let one = expect(Product::Whole, None, pounds(54.0));
    for (sum, whole) in [(all.low, one.low), (all.expected, one.expected), (all.high, one.high)] {
        assert!(near(in_quarts(sum), in_quarts(whole), 1e-9));
    }
}

#[test]
fn an_outlook_adds_hands_and_canner_up() {
    let household = Household::default();
    let capacity = [Capacity { jar: JarSize::Pint, count: 9 }, Capacity { jar: JarSize::Quart, count: 7 }];
    let ground = Ground {
        method: Method::BoilingWater,
        altitude: Altitude::from_feet(2000.0).unwrap(),
        room: &capacity,
        turnaround: Minutes(25),
        agent: Agent::CitricAcid,
        household: &household,
    };
    // 54 lb at 3 lb a quart: 18 quarts, three loads of seven of 50 minutes.
    let seen = outlook(WHOLE, JarSize::Quart, &[Stuff::fruit(Kind::Paste, pounds(54.0))], &ground);
    assert_eq!((seen.jars.expected, seen.loads, seen.canner), (18, 3, Minutes(3 * (50 + 25))));
    let by_hand =
        hands_per_lb(&WHOLE, &Stuff::fruit(Kind::Paste, pounds(54.0))) * 54.0 + HANDS_PER_JAR * 18.0;
    assert!(near(f64::from(seen.hands.0), by_hand, 1.0), "{} of {by_hand}", seen.hands.0);
    // Two minutes a pound at the sink for peeled fruit; frozen ones are not blanched; juice passes the sink by.
    let fresh = Stuff::fruit(Kind::Paste, pounds(54.0));
    assert!(near(hands_per_lb(&WHOLE, &fresh), 2.0, 0.1), "{}", hands_per_lb(&WHOLE, &fresh));
    assert!(hands_per_lb(&WHOLE, &Stuff { frozen: true, ..fresh }) < hands_per_lb(&WHOLE, &fresh) - 0.4);
    assert!(hands_per_lb(&WHOLE, &Stuff { food: Food::Juice, ..fresh }).abs() < 1e-9);
}

#[test]
fn a_rest_that_fills_a_jar_of_half_the_size_gets_one() {
    let mix = |product, jar, volume| {
        let wish = Wish {
            jar,
            volume: Range { low: volume, expected: volume, high: volume },
            ..wish(product, None, Pack::Hot)
        };
        let capacity = [(JarSize::Pint, 9), (JarSize::HalfPint, 12), (JarSize::Quart, 7)]
            .map(|(jar, count)| Capacity { jar, count });
        let plan = work_out(&wish, &capacity, Minutes(10)).unwrap();
        plan.mix.iter().map(|line| (line.jar, line.count)).collect::<Vec<_>>()
    };
    let sauce = |jar, volume| mix(Product::Sauce, jar, volume);
    assert_eq!(sauce(JarSize::Pint, quarts(2.3)), [(JarSize::Pint, 4), (JarSize::HalfPint, 1)]);
    assert_eq!(sauce(JarSize::Pint, quarts(2.2)), [(JarSize::Pint, 4)]);
    assert_eq!(sauce(JarSize::Quart, quarts(2.6)), [(JarSize::Quart, 2), (JarSize::Pint, 1)]);
    assert_eq!(mix(Product::Paste, JarSize::HalfPint, quarts(1.1)), [(JarSize::HalfPint, 4)]);
}

#[test]
fn one_batch_moves_the_yield_by_how_sure_it_is() {
    // By hand, on logarithms: crushed is published as 2.65 to 3.53 lb a quart with 2.75 expected. A t of five degrees has
    // its edge at 2.015, one of six at 1.943 (any printed table of Student's t). The published mean counts for two batches.
    let published = pounds_per_quart(Product::Crushed, None);
    let one =
        Finished { product: Product::Crushed, thickness: None, kind: Kind::Paste, pounds_per_quart: 3.1 };
    let learned = Household { finished: vec![one] }.learn(one.product, one.thickness, Kind::Paste);
    let middle = published.expected.ln();
    let mean = (2.0 * middle + 3.1_f64.ln()) / 3.0;
    assert!(near(learned.pounds_per_quart.expected, mean.exp(), 1e-9));
    let half_width = (published.high / published.low).ln() / 2.0;
    let prior = (half_width / 2.015).powi(2) * 2.5 * 2.0 / 3.0;
    let spread = prior + (3.1_f64.ln() - middle).powi(2) / 3.0;
    let reach = 1.943 * (spread * 4.0 / (3.0 * 3.0)).sqrt();
    let width = (learned.pounds_per_quart.high / learned.pounds_per_quart.low).ln();
    assert!(near(width, 2.0 * reach, 0.001), "{width} of {}", 2.0 * reach);
}

#[test]
fn labels_lie_in_the_middle_between_their_margins() {
    // 60 x 40 mm, 3 mm apart on A4 with 15 mm of white: (210 - 30 + 3) / 63 = 2.9 and (297 - 30 + 3) / 43 = 6.3.
    let mm = millimetres;
    let sheet = Sheet { paper: Paper::A4, width: mm(60.0), height: mm(40.0), gap: mm(3.0), margin: mm(15.0) };
    assert_eq!(sheet.grid().unwrap(), (2, 6));
    let spots = sheet.spots(13, 1).unwrap();
    let at = |place: usize| {
        let spot = spots[place];
        (spot.page, spot.x.get::<millimeter>().round(), spot.y.get::<millimeter>().round())
    };
    // Columns begin at (210 - 123) / 2 = 43.5, rows at (297 - 255) / 2 = 21.
    assert_eq!(
        [at(0), at(1), at(2), at(5)],
        [(0, 44.0, 21.0), (0, 107.0, 21.0), (0, 44.0, 64.0), (0, 107.0, 107.0)]
    );
    assert_eq!([at(10), at(12)], [(0, 44.0, 236.0), (1, 44.0, 21.0)]);
}

#[test]
fn a_shelf_runs_out_at_its_months_rate() {
    let months_ago = |months: f64| {
        #[expect(clippy::cast_possible_truncation, reason = "some months of milliseconds")]
        let ms = (months * 365.25 / 12.0 * 86_400_000.0) as i64;
        Moment(START.0 - ms)
    };
    let left = [0.5, 1.0, 2.0, 3.0, 4.0, 5.0].map(|ago| (months_ago(ago), Leaving::Eaten, 1)).to_vec();
    let seen = forecast(&History { came: vec![(months_ago(6.0), 18)], left }, START);
    assert!(near(seen.months, 6.0, 1e-6) && near(seen.per_month, 1.0, 1e-6), "{seen:?}");
    let runs_out = seen.runs_out.unwrap().since_ms(START);
    assert!(near(runs_out as f64 / 86_400_000.0, 365.25, 0.01), "twelve jars at one a month");
    // Six seen in six months: the first and the last tenth of a negative binomial of 6.5 successes at one in three (computed
    // once with scipy 1.17.1, nbinom.ppf).
    let Range { low, expected, high } = seen.next_season;
    assert_eq!((low, expected, high), (6, 12, 21));
}

#[test]
fn a_rate_at_another_setting_is_taken_to_full_heat_and_back() {
    // 1.2 L an hour at low, two fifths of the heat, is 3 at full.
    let shown = [ShownStretch { setting: HeatSetting::Low, rate: litres_per_hour(1.2), doubt: 0.1 }];
    let seen = rate_at(HeatSetting::High, &shown, (litres_per_hour(9.0), 0.6));
    assert!(near(in_litres_per_hour(seen.rate), 3.0, 1e-9) && seen.learned_from == 0);
}

#[test]
fn two_inches_over_the_burner_on_a_side_are_allowed() {
    assert!(!overhangs(millimetres(101.6), millimetres(0.0)));
    assert!(overhangs(millimetres(101.7), millimetres(0.0)));
}

fn cook_down() -> CookDown {
    CookDown {
        start: Contents::of_volume(litres(12.0), 5.0),
        starts_at: Some(celsius(100.0)),
        product: None,
        in_oven: false,
        shown: Some(Shown { rate_doubt: 0.2, thickens: Some((0.0, 0.05)) }),
        target: Target::FractionLeft(0.5),
        vessel: Vessel::straight(millimetres(300.0), millimetres(260.0)),
        heat: Heat::Rate { water: litres_per_hour(2.0) },
        altitude: Altitude::from_feet(0.0).unwrap(),
        log: Vec::new(),
    }
}

#[test]
fn the_volume_at_a_time_lies_on_the_line_between_its_points() {
    let seen = cook_down().forecast();
    let litre_at = |minute: f64| {
        seen.volume_at(bodega_model::measures::units::Time::new::<uom::si::time::minute>(minute))
            .get::<liter>()
    };
    let end = minutes(seen.finish.expected);
    assert!(near(litre_at(0.0), 12.0, 1e-9) && near(litre_at(-5.0), 12.0, 1e-9));
    assert!(near(litre_at(end), 6.0, 0.15) && near(litre_at(end + 600.0), 6.0, 0.1));
    // Two litres of water an hour.
    assert!(near(litre_at(60.0), 10.0, 0.1) && near(litre_at(97.0), 12.0 - 97.0 / 30.0, 0.1));
    // Nobody has read it: the time left is known to a factor of about a third.
    let factor = seen.finish.high / seen.finish.expected;
    let factor = factor.get::<uom::si::ratio::ratio>();
    assert!((1.2..1.5).contains(&factor), "{factor}");
}

#[test]
fn draining_is_offered_until_the_kettle_is_done() {
    let down = cook_down();
    let seen = down.forecast();
    let later = |minute: f64| bodega_model::measures::units::Time::new::<uom::si::time::minute>(minute);
    let pulp = litres(4.0);
    let offered = drain_first(&down, &seen, pulp, later(30.0)).unwrap();
    assert!(near(offered.drain.get::<liter>(), 7.0 * 0.3, 0.05), "three tenths of what stands over the pulp");
    // Two litres an hour: 2.1 L of serum are an hour's boiling, and the pulp stays.
    assert!(near(minutes(offered.spares), 63.0, 4.0) && near(offered.less.get::<liter>(), 0.0, 1e-6));
    assert!(drain_first(&down, &seen, pulp, seen.finish.expected).is_none());
    assert!(drain_first(&down, &seen, pulp, seen.finish.expected + later(1.0)).is_none());
    assert!(
        drain_first(&down, &seen, litres(10.9), later(30.0)).is_none(),
        "hardly any stands over the pulp"
    );
}

#[test]
fn a_place_is_named_by_the_parts_it_has() {
    let found = towns("leadville", 1);
    assert!(
        found[0].place().matches(", ").count() >= 1 && !found[0].place().contains(", ,"),
        "{}",
        found[0].place()
    );
}
