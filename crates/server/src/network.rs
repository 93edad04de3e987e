//! The home network: a door with a key of its own, and the devices that were let in.

pub mod authority;
pub mod let_in;
pub mod opening;
pub mod place;
pub mod routes;
pub mod trust;
