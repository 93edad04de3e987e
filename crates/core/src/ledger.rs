//! Where it all went: food is always somewhere, in some form, and nothing is made or lost on the way.
//!
//! Moves are told at the stations or follow from their records: fruit that a batch drew, jars that came out of the canner,
//! water that a kettle boiled away. [`book`] lays them out as one book; [`balance`] says whether a batch's page of it adds
//! up; how long what waits may wait is the model's ([`bodega_model::ledger::keep`]).

pub mod balance;
pub mod book;
pub mod day;
pub mod page;
