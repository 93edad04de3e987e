//! The rules against what lies outside of them: published tables, other solvers, facts of the trade.

mod day;
mod instances;
mod judge;
mod kettle;
mod loads;
mod split;
mod tables;
