//! Liquid that a jar lost in the canner, and what that means for it. Source: USDA Guide 1, from memory.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// How much of its liquid a jar lost in the canner.
    "liquid lost", LiquidLost {
        /// Less than half: the food above it darkens.
        Some = "some", "less than half of its liquid";
        /// Half or more: it is not for the shelf.
        Half = "half", "half of its liquid or more";
    }
}

/// Days that a jar with half its liquid gone is kept in the refrigerator: 2 to 3. Source: USDA Guide 1, from memory.
pub const HALF_GONE_DAYS: i64 = 3;
