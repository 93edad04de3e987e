//! Readings of a pH meter: what is read, and what is done about one above the line.

use crate::measures::vocabulary::vocabulary;

/// Above this pH the bacteria that cause botulism can grow. Source: 21 CFR 114, from memory.
pub const PH_LINE: f64 = 4.6;

vocabulary! {
    /// What a sample for the pH meter was taken from.
    "sample", PhSample {
        /// Food without its acid yet.
        Raw = "raw", "before the acid";
        /// The product with its acid in.
        Dosed = "dosed", "with its acid";
    }
}

vocabulary! {
    /// What was done about a reading above the line before the next one.
    "remedy", Remedy {
        /// More acid went in.
        MoreAcid = "more_acid", "more acid went in";
        /// Blended again, because the sample was not even.
        Blended = "blended", "blended and sampled again";
        /// The meter was calibrated and the sample cooled.
        MeterSet = "meter_set", "meter calibrated, sample cooled";
    }
}
