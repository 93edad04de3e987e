//! The canner as a thing: its inside, the words of its boil, and the clock that folds them.

pub mod clock;
pub mod cover;
pub mod events;
pub mod outline;
