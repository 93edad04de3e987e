//! The rules against what lies outside of them: published tables, other solvers, facts of the trade.

mod amounts;
mod boundaries;
mod canner;
mod clock;
mod day;
mod edges;
mod figures;
mod finish;
mod first;
mod instances;
mod judge;
mod kettle;
mod kitchen;
mod ledger;
mod limits;
mod loads;
mod messages;
mod mixed;
mod recipe;
mod recipe_plan;
mod recipe_ways;
mod room;
mod split;
mod tables;
mod worlds;
mod yields;
