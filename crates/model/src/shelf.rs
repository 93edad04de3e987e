//! How jars leave the shelf.

pub mod leaving;
