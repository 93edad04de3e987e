//! Recipes: the household's book, how often one is made, and what stands in its bowls.

pub(crate) mod begin;
pub mod bowls;
pub mod cold;
pub mod history;
pub mod ph_bench;
pub mod plan;
pub mod routes;
pub mod view;
