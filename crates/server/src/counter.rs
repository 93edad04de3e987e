//! The line on top of every screen.

pub mod live;
pub mod routes;
pub mod view;
