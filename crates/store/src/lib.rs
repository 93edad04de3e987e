//! Records of a canning kitchen in one SQLite file: what came in, what was planned, what happened to every jar.
//!
//! What is acknowledged is on disk: WAL with `synchronous=FULL`. The store keeps records and refuses what would break
//! them; the rules of the job are `bodega-core`'s.

mod backup;
mod canner;
mod canners;
mod clock;
mod crates;
mod cupboard;
mod day;
mod error;
pub mod exchange;
mod files;
mod goals;
mod jars;
mod kettle;
mod kitchen;
mod lineup;
mod mend;
mod plan;
mod pot;
mod rows;
mod schema;
mod shelf;
mod store;
mod towel;

pub use backup::BackupFile;
pub use clock::KeptClock;
pub use error::{StoreError, if_readable};
pub use files::{FILE_NAME, check_file, restore};
pub use mend::{BrokenRecord, Choice};
pub use store::Store;
