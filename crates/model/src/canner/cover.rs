//! Words for the water over the lids and for what stands under the jars, and how much water a process takes.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// How much water stands over the lids, as an eye judges it.
    "water over the lids", WaterOver {
        /// Enough for every process.
        Well = "well", "2 in or more";
        /// Enough for a short one.
        Some = "some", "1 to 2 in";
        /// Too little for any.
        Low = "low", "less than 1 in";
        /// Nobody looked.
        Unknown = "unknown", "nobody looked";
    }
}

impl WaterOver {
    /// The least inches that it stands for; `None` when nobody looked.
    #[must_use]
    pub const fn inches(self) -> Option<f64> {
        match self {
            Self::Well => Some(COVER_IN),
            Self::Some => Some(LEAST_COVER_IN),
            Self::Low => Some(0.5),
            Self::Unknown => None,
        }
    }
}

vocabulary! {
    /// What stands between the jars and the bottom of the pot.
    "under the jars", UnderJars {
        /// A rack.
        Rack = "rack", "a rack";
        /// A folded towel.
        Towel = "towel", "a folded towel";
        /// The bare bottom.
        Nothing = "nothing", "nothing";
    }
}

/// Longest process, in minutes, that one inch of water over the lids is enough for. Source: USDA Guide 1, 2015, from memory.
pub const SHORT_PROCESS: f64 = 30.0;

/// Inches of water over the lids that a process of so many minutes takes. Source: USDA Guide 1, 2015, from memory.
///
/// ```
/// use bodega_model::canner::cover::cover_in;
/// assert_eq!((cover_in(30.0), cover_in(35.0)), (1.0, 2.0));
/// ```
#[must_use]
pub fn cover_in(minutes: f64) -> f64 {
    if minutes <= SHORT_PROCESS { LEAST_COVER_IN } else { COVER_IN }
}

/// Water over the lids that a process of more than 30 minutes asks for, inches; every process for plain tomatoes under
/// water is longer. Source: USDA Guide 1, 2015, from memory.
pub const COVER_IN: f64 = 2.0;

/// Least water over the lids in a boiling-water canner, inches; below it a jar is not processed all round.
/// Source: USDA Guide 1, from memory.
pub const LEAST_COVER_IN: f64 = 1.0;
