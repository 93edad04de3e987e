//! Tested recipes: proportions that hold, with a process of their own.
//!
//! A tested recipe is kept whole or changed in the safe direction only, every amount in proportion to the tomatoes: acid
//! never down, low-acid things never up. [`compare`] holds what is in the bowls against the recipe, [`back`] finds the
//! nearest way back, [`process`](bodega_model::recipe::process) has the printed minutes. Nothing here ever computes a time for a recipe. Source: USDA
//! Guide 3 and extension guidance, from memory.

pub mod back;
pub mod bowls;
pub mod compare;
pub mod line;
pub mod packet;
pub mod page;
pub mod role;
pub mod scale;
pub mod shipped;
pub mod source;
pub mod swap;
