//! The kettle as a thing: the words of its log and what is in it.

pub mod contents;
pub mod words;
