//! The API from outside, station by station.

mod acid;
mod addresses;
mod api;
mod bounds;
mod canner;
mod common;
mod contract;
mod day;
mod door;
mod fed;
mod first;
mod food;
mod fuzz;
mod input;
mod live;
mod old_kitchens;
mod ph_bench;
mod plans;
mod recipe;
mod recipe_batch;
mod recipe_cold;
mod recipe_fit;
mod shelf;
mod wrong_ways;
