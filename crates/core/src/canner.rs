//! The canner: which jars go in together, in how much water, and the clock that counts from the full boil.

pub mod beside;
pub mod heat;
pub mod loads;
pub mod moment;
pub mod over;
pub mod pot;
pub mod probe;
pub mod regroup;
pub mod room;
pub mod standing;
pub mod water;
