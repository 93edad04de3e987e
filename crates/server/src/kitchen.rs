//! The kitchen: altitude, canners, containers, cupboard.

pub mod canners;
pub mod containers;
pub mod cupboard;
pub mod places;
pub mod routes;
