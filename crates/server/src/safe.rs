//! Safe keeping: backups, and everything out and in.

pub mod backups;
pub mod broken;
pub mod exchange;
pub mod rescue;
pub(crate) mod streamed;
