//! The crates: lots as they come in, and the harvest log.

pub mod harvest;
pub mod moves;
pub mod routes;
pub mod view;
