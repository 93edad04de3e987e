//! The day: what to start when.

pub mod ground;
pub mod last;
pub mod reading;
pub mod routes;
pub mod view;
pub mod ways;
