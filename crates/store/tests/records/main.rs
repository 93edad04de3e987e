//! The records hold together whatever is asked of them.

mod canners;
mod common;
mod day_notes;
mod power_cut;
mod safe_keeping;
mod shelf;
mod store;
