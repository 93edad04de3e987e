//! What the judge says, as data: findings, questions, and what stands against a jar.

pub mod finding;
pub mod question;
pub mod standing;
