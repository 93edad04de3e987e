//! The API from outside, station by station.

mod api;
mod canner;
mod common;
mod day;
mod shelf;
