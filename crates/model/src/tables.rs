//! The published processes: data files with their source beside every row, and the look-up of the tested process.

pub mod process;
