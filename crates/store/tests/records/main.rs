//! The records hold together whatever is asked of them.

mod acid;
mod broken;
mod canners;
mod common;
mod day_notes;
mod food;
mod old_kitchens;
mod open;
mod power_cut;
mod refusals;
mod safe_keeping;
mod safe_restore;
mod shelf;
mod store;
mod taken_in;
mod undo;
mod walks;
