//! Which jars go into the canner together, so that the canner is busy for the shortest time.
//!
//! What goes in together is the [`Room`](super::room::Room)'s to say. Every jar in a load gets the longest time any of them needs (common
//! practice, no source; it follows from "never shorter than tested").

mod grouping;
mod load;
mod search;

pub use grouping::{fillings, group, why};
pub use load::{Group, Load, LoadPlan};
