//! The plan: what the fruit becomes, how much of it, and what to do in which order.

pub mod batch;
pub mod checklist;
pub mod outlook;
pub mod split;
pub mod yields;
