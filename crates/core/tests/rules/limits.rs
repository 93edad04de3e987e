//! Every bound, just below it, at it and just above it.

use bodega_model::measures::limits;
use bodega_model::measures::limits::Limit;

macro_rules! rows {
    ($($row:ident),* $(,)?) => {
        /// Every row of the table.
        pub fn all() -> Vec<Limit> { vec![$(limits::$row),*] }
        const NAMES: &[&str] = &[$(stringify!($row)),*];
    };
}

rows!(
    WEIGHT,
    ALTITUDE,
    FOOD_AMOUNT,
    COOK_MINUTES,
    PACKS,
    JAR_COUNT,
    JAR_WATER,
    CAPACITY,
    POT_DOSE,
    DOSE_AMOUNT,
    ALSO_COUNT,
    ALSO_MINUTES,
    TURNAROUND,
    CONTAINERS,
    VESSEL_DIAMETER,
    VESSEL_HEIGHT,
    RACK_HEIGHT,
    JAR_DIAMETER,
    JAR_HEIGHT,
    PLANT_YIELD,
    HELP,
    DAY_SLIP,
    DAY_RESOURCE,
    DAY_LENGTH,
    DAY_LAG,
    SEARCH_TIME,
    SHELF_YEAR,
    GAUGE_YEAR,
    LABEL_SIDE,
    LABEL_GAP,
    LABEL_START,
    MINUTES,
    HOURS,
    POUNDS,
    LEAVES,
    HEADSPACE,
    WATER_COVER,
    CELSIUS,
    PH,
    BOTTLE_AGE,
    ADDITION,
    RECIPE_AMOUNT,
    PACKET_TOMATOES,
    RECIPE_PARTS,
    RECIPE_JARS,
    RECIPE_MINUTES,
    RECIPE_TIMES,
    LATITUDE,
    LONGITUDE,
    THERMOMETER_ERROR,
    BOTTLE,
    JAR_STOCK,
    ACID_STOCK,
    PREFERENCE,
    DAY_MINUTES,
    RIPE_SHARE,
    BRIX,
    ADDED_BRIX,
    FILLED_AT,
    FRACTION_LEFT,
    KETTLE_VOLUME,
    WATTS,
    EFFICIENCY,
    EVAPORATION,
    LOG_MINUTE,
    DEPTH_READ,
    PROBE,
    WEIGHT_READ,
    CHOICE,
);

#[test]
fn no_row_is_left_out_here() {
    let source = include_str!("../../../model/src/measures/limits.rs");
    let written: Vec<&str> = source
        .lines()
        .filter_map(|line| line.strip_prefix("pub const ")?.split_once(": Limit").map(|(name, _)| name))
        .collect();
    assert_eq!(written, NAMES);
}

#[test]
fn each_edge_is_in_and_what_lies_beyond_is_out() {
    for limit in all() {
        let step = (limit.max - limit.min) * 1e-9;
        for inside in [limit.min, limit.max, limit.min + step, limit.max - step] {
            assert_eq!(limit.check(inside), Ok(inside), "{} {inside}", limit.name);
        }
        let infinite = [f64::NAN, f64::INFINITY, f64::NEG_INFINITY];
        for outside in [limit.min - step, limit.max + step].into_iter().chain(infinite) {
            let error = limit.check(outside).unwrap_err();
            assert_eq!(error.limit, limit);
            assert_eq!(error.given.to_bits(), outside.to_bits());
        }
    }
}

#[test]
fn an_error_names_the_field_the_value_and_what_would_do() {
    for limit in all() {
        let text = limit.check(limit.max + 1.234_567).unwrap_err().to_string();
        assert!(text.starts_with(limit.name), "{text}");
        let given = format!(" is {}", ((limit.max + 1.234_567) * 1000.0).round() / 1000.0);
        assert!(text.contains(&given), "{text} shows {given}");
        assert!(text.contains(&format!("from {} to {}", limit.min, limit.max)), "{text}");
        let unit = if limit.unit.is_empty() { String::new() } else { format!(" {}", limit.unit) };
        assert!(text.ends_with(&format!("{}{unit}", limit.max)), "{text}");
        assert!(!limit.why.is_empty() && limit.min < limit.max, "{}", limit.name);
    }
}
