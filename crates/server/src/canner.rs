//! The canner: loads, water, clock, and how loads are put together.

pub mod grouping;
pub mod routes;
pub mod simulated;
pub mod view;
