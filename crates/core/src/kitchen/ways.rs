//! The household's ways of writing: hours, days, numbers, heat and height, apart from what it weighs and measures in.
//!
//! Nothing is computed from them; records are metric and moments are moments, whatever is shown.

use serde::{Deserialize, Serialize};

use crate::measures::units::{Temperature, in_celsius};
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

impl HeatIn {
    /// A temperature in whole degrees.
    ///
    /// ```
    /// use bodega_core::kitchen::ways::HeatIn;
    /// use bodega_core::measures::units::celsius;
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
