//! The plan: what the fruit becomes, how much of it, and what to do in which order.

pub mod batch;
pub mod by_recipe;
pub mod checklist;
pub mod first;
pub mod judged;
pub mod outlook;
pub mod packs;
pub mod split;
pub mod stuff;
pub mod yields;
