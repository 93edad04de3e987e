//! Records of a canning kitchen in one SQLite file: what came in, what was planned, what happened to every jar.
//!
//! What is acknowledged is on disk: WAL with `synchronous=FULL`. The store keeps records and refuses what would break
//! them; the rules of the job are `bodega-core`'s.

#![deny(missing_docs, clippy::missing_errors_doc)]

mod assignment;
mod at_home;
mod backup;
mod cache;
mod canner;
mod canners;
mod checklist;
mod clock;
mod copy;
mod corrections;
mod crates;
mod cupboard;
mod day;
mod error;
pub mod exchange;
mod files;
mod goals;
mod import;
mod import_checks;
mod integrity;
mod jars;
mod kettle;
mod kitchen;
mod lock;
mod mend;
mod moves;
mod ph;
mod ph_bench;
mod plan;
mod pot;
mod recipe;
mod restore;
mod rows;
mod safe;
mod schema;
mod shelf;
mod standings;
mod store;
mod towel;
mod trouble;

pub use backup::backup;
pub use clock::KeptClock;
pub use corrections::ToldBy;
pub use error::{StoreError, if_readable};
pub use files::{FILE_NAME, write_private};
pub use integrity::{check_file, newest_good};
pub use lock::DataLock;
pub use mend::{BrokenRecord, Choice};
pub use restore::{begin_anew, restore};
pub use safe::BackupFile;
pub use standings::AtHome;
pub use store::Store;
pub use trouble::Trouble;
