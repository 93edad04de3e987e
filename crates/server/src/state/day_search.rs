//! How long a day is searched for while a screen waits.

use std::time::Duration;

use bodega_core::day::{Budget, Limits};

/// Budgets of the strip and of the ways out that are tried beside it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Search {
    /// For the strip.
    pub strip: Limits,
    /// For each way out.
    pub way: Budget,
}

impl Default for Search {
    /// What a person waits for.
    fn default() -> Self {
        let time = |ms| Budget::Time(Duration::from_millis(ms));
        Self { strip: Limits { length: time(1_200), waiting: time(500) }, way: time(500) }
    }
}
