//! The server of Bodega: API, live events and the embedded front end.
//!
//! Handlers are thin: decode, call the core or the store, encode.

pub mod api;
pub mod app;
pub mod assets;
pub mod clock;
pub mod demo;
pub mod json;
pub mod judging;
pub mod live;
pub mod problem;
