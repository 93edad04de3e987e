//! What the checks of the project's structure are made of.

pub mod share;
