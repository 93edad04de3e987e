//! The server of Bodega: API, live events and the embedded front end.
//!
//! Handlers are thin: decode, call the core or the store, encode. One room a station: what it shows is its `view`, what
//! it is asked is its `routes`.

#![deny(missing_docs, clippy::missing_errors_doc)]

pub mod admission;
pub mod age;
pub mod almanac;
pub mod answers;
pub mod assets;
pub mod bounds;
pub mod canner;
pub mod clock;
pub mod compute;
pub mod counter;
pub mod crates;
pub mod created;
pub mod day;
pub mod demo;
pub mod door;
pub mod food;
pub mod health;
pub mod jars;
pub mod json;
pub mod kettle;
pub mod kitchen;
pub mod live;
pub mod named;
pub mod network;
pub mod plan;
pub mod problem;
pub mod qr;
pub mod recipe;
pub mod routes;
pub mod safe;
pub mod serve;
pub mod shelf;
pub mod state;
pub mod towel;
pub mod watch;
pub mod weight;
pub mod who;
pub mod words;
