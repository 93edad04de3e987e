//! The plan: a batch, side by side, the best split, checklists.

pub mod batches;
pub mod compare;
pub mod first;
pub mod goals;
pub mod ground;
pub mod routes;
pub mod split;
pub mod split_model;
pub mod split_view;
pub mod table;
pub mod view;
