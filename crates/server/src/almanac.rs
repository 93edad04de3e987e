//! The rule book.

pub mod routes;
pub mod view;
