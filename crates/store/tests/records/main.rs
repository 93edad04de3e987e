//! The records hold together whatever is asked of them.

mod acid;
mod broken;
mod canners;
mod common;
mod day_notes;
mod old_kitchens;
mod power_cut;
mod refusals;
mod safe_keeping;
mod shelf;
mod store;
mod undo;
mod walks;
