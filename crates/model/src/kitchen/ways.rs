//! The household's ways of writing: hours, days, numbers, heat and height, apart from what it weighs and measures in.
//!
//! Nothing is computed from them; records are metric and moments are moments, whatever is shown.

use serde::{Deserialize, Serialize};
use uom::si::length::{foot, meter};

use crate::measures::units::{Length, Temperature, in_celsius};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// How a time of day is written.
    "hours", HoursIn {
        /// Twenty-four hours a day.
        Day = "24", "18:05";
        /// Twice twelve.
        Half = "12", "6:05 pm";
    }
}

vocabulary! {
    /// How a day is written.
    "days", Days {
        /// The day before the month.
        DayFirst = "day_first", "17 September";
        /// The month before the day.
        MonthFirst = "month_first", "September 17";
        /// Year, month, day, as records have it.
        YearFirst = "year_first", "2026-09-17";
    }
}

vocabulary! {
    /// What stands before the part of a number that is less than one; both are read in every field.
    "decimal", Decimal {
        /// A point.
        Point = "point", "1.5";
        /// A comma.
        Comma = "comma", "1,5";
    }
}

vocabulary! {
    /// What heat is read in.
    "heat", HeatIn {
        /// Degrees Fahrenheit.
        Fahrenheit = "fahrenheit", "°F";
        /// Degrees Celsius.
        Celsius = "celsius", "°C";
    }
}

vocabulary! {
    /// What a height above the sea is read in.
    "height", HeightIn {
        /// Feet, as the tables have it.
        Feet = "feet", "feet";
        /// Metres.
        Metres = "metres", "metres";
    }
}

/// How this household writes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Ways {
    /// Times of day.
    pub hours: HoursIn,
    /// Days.
    pub days: Days,
    /// Numbers.
    pub decimal: Decimal,
    /// Temperatures.
    pub heat: HeatIn,
    /// Heights above the sea.
    pub height: HeightIn,
}

impl HeightIn {
    /// Columns of a table in words, from their upper edges in feet, which belong to the lower column; `is_open` adds one above
    /// the last.
    ///
    /// ```
    /// use bodega_model::kitchen::ways::HeightIn;
    /// assert_eq!(HeightIn::Feet.bands(&[1000.0, 3000.0], true), ["0 to 1,000 ft", "1,001 to 3,000 ft", "above 3,000 ft"]);
    /// // A whole metre more is beyond the edge: 305 m are 1,000.7 ft.
    /// assert_eq!(HeightIn::Metres.bands(&[1000.0, 3000.0], true), ["0 to 304 m", "305 to 914 m", "above 914 m"]);
    /// ```
    #[must_use]
    pub fn bands(self, edges_ft: &[f64], is_open: bool) -> Vec<String> {
        #[allow(clippy::cast_possible_truncation)] // a height on dry land
        let whole = |edge: &f64| match self {
            Self::Feet => *edge as i64,
            Self::Metres => Length::new::<foot>(*edge).get::<meter>().floor() as i64,
        };
        let unit = match self {
            Self::Feet => "ft",
            Self::Metres => "m",
        };
        let edges: Vec<i64> = edges_ft.iter().map(whole).collect();
        let from = std::iter::once(0).chain(edges.iter().map(|edge| edge + 1));
        let mut bands: Vec<String> = from
            .zip(&edges)
            .map(|(from, to)| format!("{} to {} {unit}", thousands(from), thousands(*to)))
            .collect();
        if let Some(last) = edges.last().filter(|_| is_open) {
            bands.push(format!("above {} {unit}", thousands(*last)));
        }
        bands
    }
}

fn thousands(number: i64) -> String {
    if number < 1000 { number.to_string() } else { format!("{},{:03}", number / 1000, number % 1000) }
}

impl HeatIn {
    /// A temperature in whole degrees.
    ///
    /// ```
    /// use bodega_model::kitchen::ways::HeatIn;
    /// use bodega_model::measures::units::celsius;
    /// assert_eq!(HeatIn::Fahrenheit.text(celsius(96.0)), "205 °F");
    /// assert_eq!(HeatIn::Celsius.text(celsius(96.0)), "96 °C");
    /// ```
    #[must_use]
    pub fn text(self, temperature: Temperature) -> String {
        let degrees = in_celsius(temperature);
        match self {
            Self::Fahrenheit => format!("{:.0} °F", degrees * 1.8 + 32.0),
            Self::Celsius => format!("{degrees:.0} °C"),
        }
    }
}
