//! The best split: how much of each lot goes to which product in which jars, within jars, lids, acid and hours.
//!
//! A mixed-integer model, solved exactly. Jars and canner loads are whole; fruit, drained juice and hours are not. A jar
//! counts its volume times the preference of its goal until the goal is met, and a little beyond it, so that fruit is
//! used rather than left. Jars of several products may share a load.

mod answer;
mod loads;
mod model;
mod question;

pub use answer::{limits, split};
pub use question::{Choice, Limit, NoSplit, Question, Resource, Share, Split, Stock};
