//! What tomatoes can become.

pub mod making;
