//! What came in from the garden.

pub mod fruit;
