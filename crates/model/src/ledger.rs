//! Food in whatever form.

pub mod food;
pub mod keep;
