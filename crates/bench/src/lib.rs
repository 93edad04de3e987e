//! How fast the program is: kitchens of many years, and the same questions asked of them over and over.

pub mod calculators;
pub mod client;
pub mod echo;
pub mod history;
pub mod large;
pub mod program;
pub mod screens;
pub mod spread;
