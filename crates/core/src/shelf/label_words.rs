//! What a label says of when its jar is eaten.

use std::fmt::Display;

use crate::judge::against::JarStanding;

/// Until when a jar is at its best; of one that something stands against, that it is not eaten; and what nobody has said yet.
///
/// ```
/// use bodega_core::judge::against::JarStanding;
/// use bodega_core::shelf::label_words::best_line;
/// assert_eq!(best_line(&JarStanding::CLEAR, "2027-09-12"), "best before 2027-09-12");
/// ```
#[must_use]
pub fn best_line(standing: &JarStanding, best_before: impl Display) -> String {
    match (standing.brief(), standing.open_brief()) {
        (Some(stops), _) => format!("do not eat: {stops}"),
        (None, Some(open)) => format!("best before {best_before} · not said: {open}"),
        (None, None) => format!("best before {best_before}"),
    }
}
