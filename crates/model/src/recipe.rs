//! A recipe as it is printed: its parts, what each does to the acid, its process.

pub mod acids;
pub mod part;
pub mod per_jar;
pub mod process;
pub mod source;
pub mod weights;
pub mod words;
