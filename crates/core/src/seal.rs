//! When the lids of cooling jars are judged.

use crate::moment::{Minutes, Moment};

/// Jars cool untouched for this long before a lid is judged. Source: USDA Guide 1, from memory.
pub const CHECK_FROM: Minutes = Minutes(12 * 60);
/// After this long a jar whose lid failed is no longer processed again. Source: USDA Guide 1, from memory.
pub const CHECK_BY: Minutes = Minutes(24 * 60);

/// From when to when the lids of jars lifted at a moment are judged.
#[must_use]
pub const fn window(lifted_at: Moment) -> (Moment, Moment) {
    (Moment(lifted_at.0 + CHECK_FROM.ms()), Moment(lifted_at.0 + CHECK_BY.ms()))
}
