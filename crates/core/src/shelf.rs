//! The shelf: labels, how jars leave, and what to put up next season.

pub mod label_sheet;
pub mod label_words;
pub mod pantry;
