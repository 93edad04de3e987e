//! The lookups against a second copy of the published tables, typed separately from the data files.
//!
//! Sources, all from memory: USDA Complete Guide to Home Canning (AIB 539), 2015 revision, Guide 3 (times, pressures, acid,
//! yields); National Center for Home Food Preservation (paste). Boiling points: computed once with CoolProp 8.0.0 and
//! fluids 1.3.1 on the US Standard Atmosphere 1976.

use bodega_core::plan::yields;
use bodega_model::jars::acid::{Agent, per_jar};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{in_quarts, pounds};
use bodega_model::plan::making::Thickness;
use bodega_model::tables::process::{Medium, Method, Pack, Product, Query, RefusalCode, look_up};
use uom::si::thermodynamic_temperature::degree_celsius;

fn query(
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    method: Method,
    jar: JarSize,
    feet: f64,
) -> Query {
    Query { product, medium, pack, method, jar, altitude: Altitude::from_feet(feet).unwrap() }
}

/// Just inside both edges of the four boiling-water bands.
const BAND_EDGES_FT: [(f64, f64); 4] =
    [(-1500.0, 1000.0), (1001.0, 3000.0), (3001.0, 6000.0), (6001.0, 10_000.0)];

#[test]
fn every_boiling_water_time_is_the_published_one() {
    use JarSize::{HalfPint, Pint, PintAndHalf, Quart};
    use Pack::{Hot, Raw};
    let small = [HalfPint, Pint].as_slice();
    let large = [PintAndHalf, Quart].as_slice();
    let pint_time = [35, 40, 45, 50];
    let quart_time = [40, 45, 50, 55];
    let long = [85, 90, 95, 100];
    let water = Some(Medium::Water);
    let juice = Some(Medium::Juice);
    let none = Some(Medium::None);
    let rows = [
        (Product::Juice, None, Hot, small, pint_time),
        (Product::Juice, None, Hot, large, quart_time),
        (Product::VegetableJuice, None, Hot, small, pint_time),
        (Product::VegetableJuice, None, Hot, large, quart_time),
        (Product::Crushed, None, Hot, small, pint_time),
        (Product::Crushed, None, Hot, large, [45, 50, 55, 60]),
        (Product::Sauce, None, Hot, small, pint_time),
        (Product::Sauce, None, Hot, large, quart_time),
        (Product::Whole, water, Hot, small, [40, 45, 50, 55]),
        (Product::Whole, water, Raw, small, [40, 45, 50, 55]),
        (Product::Whole, water, Hot, large, [45, 50, 55, 60]),
        (Product::Whole, water, Raw, large, [45, 50, 55, 60]),
        (Product::Whole, juice, Hot, small, long),
        (Product::Whole, juice, Raw, small, long),
        (Product::Whole, juice, Hot, large, long),
        (Product::Whole, juice, Raw, large, long),
        (Product::Whole, none, Raw, small, long),
        (Product::Whole, none, Raw, large, long),
        (Product::Paste, None, Hot, &[HalfPint], [45, 50, 50, 55]),
    ];
    for (product, medium, pack, jars, minutes) in rows {
        for jar in jars {
            for ((low, high), expected) in BAND_EDGES_FT.into_iter().zip(minutes) {
                for feet in [low, high] {
                    let tested =
                        look_up(&query(product, medium, pack, Method::BoilingWater, *jar, feet)).unwrap();
                    assert_eq!(tested.options.len(), 1);
                    assert_eq!(tested.options[0].psi, None);
                    assert_eq!(
                        tested.options[0].minutes.0, expected,
                        "{product} {medium:?} {pack} {jar} {feet} ft"
                    );
                }
            }
        }
    }
}

#[test]
fn every_pressure_option_is_the_published_one() {
    use Method::{PressureDial, PressureWeighted};
    // (minutes, psi) lowest pressure first; dial at sea level, weighted at sea level, weighted above 1,000 ft.
    let purees: [&[(u32, u32)]; 3] =
        [&[(20, 6), (15, 11)], &[(20, 5), (15, 10), (10, 15)], &[(20, 10), (15, 15)]];
    let in_water: [&[(u32, u32)]; 3] =
        [&[(15, 6), (10, 11)], &[(15, 5), (10, 10), (1, 15)], &[(15, 10), (10, 15)]];
    let dense: [&[(u32, u32)]; 3] =
        [&[(40, 6), (25, 11)], &[(40, 5), (25, 10), (15, 15)], &[(40, 10), (25, 15)]];
    let rows = [
        (Product::Juice, None, Pack::Hot, purees),
        (Product::VegetableJuice, None, Pack::Hot, purees),
        (Product::Crushed, None, Pack::Hot, purees),
        (Product::Sauce, None, Pack::Hot, purees),
        (Product::Whole, Some(Medium::Water), Pack::Hot, in_water),
        (Product::Whole, Some(Medium::Water), Pack::Raw, in_water),
        (Product::Whole, Some(Medium::Juice), Pack::Hot, dense),
        (Product::Whole, Some(Medium::Juice), Pack::Raw, dense),
        (Product::Whole, Some(Medium::None), Pack::Raw, dense),
    ];
    let options = |product, medium, pack, method, jar, feet| -> Vec<(u32, u32)> {
        let tested = look_up(&query(product, medium, pack, method, jar, feet)).unwrap();
        tested.options.iter().map(|option| (option.minutes.0, option.psi.unwrap())).collect()
    };
    for (product, medium, pack, [dial, weighted_low, weighted_high]) in rows {
        for jar in [JarSize::HalfPint, JarSize::Pint, JarSize::PintAndHalf, JarSize::Quart] {
            for (step, (low, high)) in
                (0..).zip([(0.0, 2000.0), (2001.0, 4000.0), (4001.0, 6000.0), (6001.0, 8000.0)])
            {
                let raised: Vec<_> = dial.iter().map(|(minutes, psi)| (*minutes, psi + step)).collect();
                assert_eq!(
                    options(product, medium, pack, PressureDial, jar, low),
                    raised,
                    "{product} {low} ft"
                );
                assert_eq!(
                    options(product, medium, pack, PressureDial, jar, high),
                    raised,
                    "{product} {high} ft"
                );
            }
            for feet in [0.0, 1000.0] {
                assert_eq!(
                    options(product, medium, pack, PressureWeighted, jar, feet),
                    weighted_low,
                    "{product}"
                );
            }
            for feet in [1001.0, 10_000.0] {
                assert_eq!(
                    options(product, medium, pack, PressureWeighted, jar, feet),
                    weighted_high,
                    "{product}"
                );
            }
        }
    }
}

#[test]
fn what_was_never_tested_is_refused_with_a_way_out() {
    use JarSize::{HalfGallon, HalfLitre, HalfPint, Pint, Quart};
    use Method::{AtmosphericSteam, BoilingWater, PressureDial, PressureWeighted};
    use Pack::{Hot, Raw};
    use RefusalCode::{AltitudeOutOfRange, JarNotTested, NoTestedProcess, TimeOverSteamLimit};
    let (water, dry) = (Some(Medium::Water), Some(Medium::None));
    for (asked, code) in [
        (query(Product::Whole, water, Raw, BoilingWater, HalfGallon, 2640.0), JarNotTested),
        (query(Product::Juice, None, Hot, PressureDial, HalfGallon, 0.0), JarNotTested),
        (query(Product::Paste, None, Hot, BoilingWater, Pint, 0.0), JarNotTested),
        (query(Product::Paste, None, Hot, BoilingWater, HalfLitre, 0.0), JarNotTested),
        (query(Product::Paste, None, Hot, PressureDial, HalfPint, 0.0), NoTestedProcess),
        (query(Product::Crushed, None, Raw, BoilingWater, Quart, 0.0), NoTestedProcess),
        (query(Product::Sauce, None, Raw, PressureWeighted, Quart, 0.0), NoTestedProcess),
        (query(Product::Whole, dry, Hot, BoilingWater, Quart, 0.0), NoTestedProcess),
        (query(Product::Whole, water, Raw, AtmosphericSteam, Quart, 1001.0), TimeOverSteamLimit),
        (query(Product::Whole, dry, Raw, AtmosphericSteam, Pint, 0.0), TimeOverSteamLimit),
        (query(Product::Whole, water, Raw, BoilingWater, Quart, 10_001.0), AltitudeOutOfRange),
        (query(Product::Whole, water, Raw, BoilingWater, Quart, -1501.0), AltitudeOutOfRange),
        (query(Product::Juice, None, Hot, PressureDial, Quart, 8001.0), AltitudeOutOfRange),
        (query(Product::Juice, None, Hot, PressureWeighted, Quart, 10_001.0), AltitudeOutOfRange),
    ] {
        let refusal = look_up(&asked).unwrap_err();
        assert_eq!(refusal.code, code, "{asked:?}");
        assert!(!refusal.instead.is_empty() && refusal.message.ends_with(['.', '!']), "{refusal:?}");
    }
}

#[test]
fn steam_takes_the_boiling_water_time_up_to_45_minutes() {
    // University extension guidance, 2015, from memory.
    let at = |jar, feet| {
        look_up(&query(Product::Whole, Some(Medium::Water), Pack::Raw, Method::AtmosphericSteam, jar, feet))
    };
    assert_eq!(at(JarSize::Quart, 1000.0).unwrap().options[0].minutes.0, 45);
    assert_eq!(at(JarSize::Pint, 3000.0).unwrap().options[0].minutes.0, 45);
    assert!(at(JarSize::Pint, 3001.0).is_err());
}

#[test]
fn metric_jars_take_the_us_time_with_a_caution() {
    // Common practice, no source.
    for (metric, us) in [(JarSize::Litre, JarSize::Quart), (JarSize::HalfLitre, JarSize::Pint)] {
        let ask = |jar| {
            look_up(&query(Product::Crushed, None, Pack::Hot, Method::BoilingWater, jar, 2640.0)).unwrap()
        };
        assert_eq!(ask(metric).options, ask(us).options);
        assert_eq!(ask(metric).cautions.len(), 1);
        assert!(ask(us).cautions.is_empty());
    }
}

#[test]
fn acid_doses_are_the_published_ones_and_never_rounded_down() {
    use Agent::{BottledLemonJuice, CitricAcid, Vinegar5Pct};
    for (agent, jar, label) in [
        (BottledLemonJuice, JarSize::Quart, "2 Tbsp"),
        (BottledLemonJuice, JarSize::Pint, "1 Tbsp"),
        (BottledLemonJuice, JarSize::HalfPint, "½ Tbsp"),
        (BottledLemonJuice, JarSize::PintAndHalf, "1½ Tbsp"),
        (BottledLemonJuice, JarSize::Litre, "2 Tbsp + ½ tsp"),
        (BottledLemonJuice, JarSize::HalfLitre, "1 Tbsp + ½ tsp"),
        (CitricAcid, JarSize::Quart, "½ tsp"),
        (CitricAcid, JarSize::Pint, "¼ tsp"),
        (CitricAcid, JarSize::HalfPint, "⅛ tsp"),
        (CitricAcid, JarSize::PintAndHalf, "⅜ tsp"),
        (CitricAcid, JarSize::Litre, "⅝ tsp"),
        (CitricAcid, JarSize::HalfLitre, "⅜ tsp"),
        (Vinegar5Pct, JarSize::Quart, "4 Tbsp"),
        (Vinegar5Pct, JarSize::Pint, "2 Tbsp"),
    ] {
        assert_eq!(per_jar(agent, jar).label(), label, "{agent} in a {jar}");
    }
}

#[test]
fn boiling_point_agrees_with_an_independent_property_library() {
    #[derive(serde::Deserialize)]
    struct Row {
        altitude_ft: f64,
        pressure_pa: f64,
        boiling_c: f64,
    }
    let text = include_str!("data/boiling_point.csv");
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes());
    let rows: Vec<Row> = reader.deserialize().map(Result::unwrap).collect();
    assert_eq!(rows.len(), 21);
    for row in rows {
        let altitude = Altitude::from_feet(row.altitude_ft).unwrap();
        let boils = altitude.boiling_point().get::<degree_celsius>();
        assert!(
            (boils - row.boiling_c).abs() < 0.01,
            "{} ft: {boils} against {}",
            row.altitude_ft,
            row.boiling_c
        );
        let pressure = altitude.pressure().get::<uom::si::pressure::pascal>();
        assert!((pressure - row.pressure_pa).abs() < 1.0, "{} ft: {pressure}", row.altitude_ft);
    }
}

#[test]
fn yields_give_back_the_published_bushel() {
    let bushel = pounds(53.0);
    for (product, thickness, low, high, lb_per_quart) in [
        (Product::Juice, None, 15.0, 18.0, 3.25),
        (Product::Crushed, None, 17.0, 20.0, 2.75),
        (Product::Sauce, Some(Thickness::Thin), 10.0, 12.0, 5.0),
        (Product::Sauce, Some(Thickness::Thick), 7.0, 9.0, 6.5),
        (Product::Whole, None, 15.0, 21.0, 3.0),
    ] {
        let made = yields::expect(product, thickness, bushel);
        let close = |volume: bodega_model::measures::units::Volume, quarts: f64| {
            (in_quarts(volume) - quarts).abs() < 1e-9
        };
        // A canner load of crushed takes 22 lb for 7 quarts, a little more than the leanest bushel.
        let lean = if product == Product::Crushed { 53.0 * 7.0 / 22.0 } else { low };
        assert!(close(made.low, lean) && lean <= low && close(made.high, high), "{product} {made:?}");
        assert!(close(made.expected, 53.0 / lb_per_quart), "{product}");
    }
}

#[test]
fn trade_checks_lie_inside_the_yield_ranges() {
    // Common practice, no source: two buckets (30 lb) gave 9 quarts whole and 2 pints of juice; a bushel about 18 quarts.
    let thirty = yields::expect(Product::Whole, None, pounds(30.0));
    assert!(in_quarts(thirty.low) < 9.0 && 10.0 < in_quarts(thirty.high));
    let bushel = in_quarts(yields::expect(Product::Whole, None, pounds(53.0)).expected);
    assert!((bushel - 18.0).abs() < 1.0, "{bushel}");
}
