//! The towel: when lids are looked at and what is done about one that failed.

pub mod liquid;
pub mod seal;
pub mod ways_out;
