//! Fruit that was frozen, and what it cannot become. Said by the judge and by the plan in the same words.

/// What has no tested process.
pub const FROZEN_WHOLE: &str = "whole tomatoes from frozen fruit have no tested process";
/// What would do.
pub const FROZEN_INSTEAD: &str =
    "Make crushed tomatoes, juice, sauce or paste of it, heated to the boil before it is packed.";
