//! The kettle: how thick, how long, where is the mark.

pub mod events;
pub mod learned;
pub mod routes;
pub mod simulated;
pub mod start;
pub mod view;
