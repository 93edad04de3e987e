//! Safe keeping: backups, and everything out and in.

pub mod backups;
pub mod broken;
pub mod exchange;
