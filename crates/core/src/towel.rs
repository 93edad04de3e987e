//! The towel: when lids are looked at and what is done about one that failed.

pub mod moment;
pub mod seal;
pub mod ways_out;
