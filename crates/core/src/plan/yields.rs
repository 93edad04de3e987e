//! How much a weight of tomatoes makes, always as a range.
//!
//! Published yields do not tell kinds of tomato apart, so neither does this module: the kind moves nothing until the
//! household's own batches say so.

use std::sync::LazyLock;

use bodega_model::jars::size::JarSize;
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{BUSHEL_LB, Mass, Volume, in_pounds, quarts};
use bodega_model::plan::making::Thickness;
use bodega_model::published::reader::{TableError, rows};
use bodega_model::published::source::Source;
use bodega_model::tables::process::Product;
use serde::Deserialize;

pub mod learn;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Line {
    Juice,
    Crushed,
    SauceThin,
    SauceThick,
    Whole,
}

#[derive(Debug, Clone, Deserialize)]
pub(crate) struct YieldRow {
    product: Line,
    lb_per_7_quarts: f64,
    lb_per_9_pints: f64,
    quarts_per_bushel_low: f64,
    quarts_per_bushel_high: f64,
    lb_per_quart: f64,
}

static TABLE: LazyLock<Vec<YieldRow>> =
    LazyLock::new(|| parse_table().expect("check_tables() is called at start and a test parses the table"));

pub(crate) fn parse_table() -> Result<Vec<YieldRow>, TableError> {
    const FILE: &str = "yields.csv";
    let table: Vec<YieldRow> = rows(FILE, include_str!("../../data/yields.csv"))?;
    for row in &table {
        let least = BUSHEL_LB / row.quarts_per_bushel_high;
        let most = BUSHEL_LB / row.quarts_per_bushel_low;
        if !(least..=most).contains(&row.lb_per_quart) {
            return Err(TableError::new(FILE, format!("{:?}: the mean lies outside the range", row.product)));
        }
        // Two published load weights say the same thing as the mean; a typing slip would show as a wide gap.
        let by_quarts = row.lb_per_7_quarts / 7.0;
        let by_pints = row.lb_per_9_pints / 4.5;
        let off = |value: f64| (value / row.lb_per_quart - 1.0).abs() > 0.15;
        if off(by_quarts) || off(by_pints) {
            return Err(TableError::new(FILE, format!("{:?}: load weights and mean disagree", row.product)));
        }
    }
    Ok(table)
}

/// Pounds of raw tomatoes that go into one quart of product; `low` is the thrifty end.
///
/// Published for whole, crushed, juice and sauce (USDA Guide 3, from memory): the mean, and the range from the quarts that a
/// bushel gives and the pounds that a canner load takes: 22 lb of crushed are a load of 7 quarts. Paste is worked out from solids: juice at 4½ to 5½ °Brix reduced to 16 to 18 °Brix (common practice,
/// no source), 3¼ lb a quart of juice.
///
/// Sauce without a thickness is asked for as thin. A recipe fills what its source says; asked for here, its fruit is weighed
/// as crushed.
#[must_use]
pub fn pounds_per_quart(product: Product, thickness: Option<Thickness>) -> Range<f64> {
    let line = match (product, thickness) {
        (Product::Whole, _) => Line::Whole,
        (Product::Crushed | Product::Recipe, _) => Line::Crushed,
        (Product::Juice | Product::VegetableJuice, _) => Line::Juice,
        (Product::Sauce, Some(Thickness::Thick)) => Line::SauceThick,
        (Product::Sauce, _) => Line::SauceThin,
        (Product::Paste, _) => return paste_pounds_per_quart(),
    };
    let row = TABLE.iter().find(|row| row.product == line).expect("every line has a row, checked by a test");
    let loads = [row.lb_per_7_quarts / 7.0, row.lb_per_9_pints / 4.5];
    Range {
        low: loads.into_iter().fold(BUSHEL_LB / row.quarts_per_bushel_high, f64::min),
        expected: row.lb_per_quart,
        high: loads.into_iter().fold(BUSHEL_LB / row.quarts_per_bushel_low, f64::max),
    }
}

fn paste_pounds_per_quart() -> Range<f64> {
    /// Quarts of juice that one quart of paste holds the solids of: Brix ratio times density ratio.
    fn juice_per_paste(juice_brix: f64, paste_brix: f64) -> f64 {
        // Density of a sugar solution near 20 °C, relative to water: 1 + 0.004 per °Brix to within half a percent here.
        let density = |brix: f64| 1.0 + 0.004 * brix;
        (paste_brix * density(paste_brix)) / (juice_brix * density(juice_brix))
    }
    let juice = pounds_per_quart(Product::Juice, None).expected;
    Range {
        low: juice * juice_per_paste(5.5, 16.0),
        expected: juice * juice_per_paste(5.0, 17.0),
        high: juice * juice_per_paste(4.5, 18.0),
    }
}

/// Volume of product from a weight of raw tomatoes.
///
/// ```
/// use bodega_model::measures::units::{in_quarts, pounds};
/// use bodega_core::plan::yields;
/// use bodega_model::tables::process::Product;
/// let made = yields::expect(Product::Whole, None, pounds(30.0));
/// assert_eq!(in_quarts(made.expected).round(), 10.0);
/// ```
#[must_use]
pub fn expect(product: Product, thickness: Option<Thickness>, weight: Mass) -> Range<Volume> {
    let per_quart = pounds_per_quart(product, thickness);
    let made = |pounds_per_quart: f64| quarts(in_pounds(weight) / pounds_per_quart);
    Range { low: made(per_quart.high), expected: made(per_quart.expected), high: made(per_quart.low) }
}

/// Full jars of one size that a volume fills; a part-filled last jar does not count.
#[must_use]
pub fn full_jars(volume: Volume, jar: JarSize) -> u32 {
    // Share of a jar; lots are whole grams, so 21 lb come back as 20.999 lb and must still fill seven quarts.
    const WHOLE_JAR_SLACK: f64 = 0.005;
    let jars = (volume / jar.volume()).get::<uom::si::ratio::ratio>() + WHOLE_JAR_SLACK;
    // Weights are limited far below the range of u32, and a volume is never negative.
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    let whole = jars.max(0.0).floor() as u32;
    whole
}

/// Where a product's yield comes from.
#[must_use]
pub fn source(product: Product) -> Source {
    match product {
        Product::Paste => Source::common_practice(),
        _ => Source::usda_guide_3(),
    }
}
