//! Fruit that is no fresh tomato, and what it cannot become. Said by the judge and by the plan in the same words.

/// What has no tested process.
pub const FROZEN_WHOLE: &str = "whole tomatoes from frozen fruit have no tested process";
/// What would do.
pub const FROZEN_INSTEAD: &str =
    "Make crushed tomatoes, juice, sauce or paste of it, heated to the boil before it is packed.";

/// What has no tested process. Source: USDA Guide 3, whose processes are for tomatoes alone, from memory.
pub const TOMATILLOS: &str = "tomatillos are not tomatoes: no process of plain tomatoes was tested with them";
/// What would do.
pub const TOMATILLOS_INSTEAD: &str = "Make a tested recipe that has them, or freeze them.";
