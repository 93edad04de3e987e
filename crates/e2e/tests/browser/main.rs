//! The real interface in a real browser. One program, so that it is linked once and its tests share the processors.

mod access;
mod canner;
mod day;
mod door;
mod first;
mod food;
mod kettle;
mod line;
mod network;
mod plan;
mod recipe;
mod rules;
mod shelf;
mod small;
mod told;
mod typed;
mod views;
mod wrong;
