//! How a jar leaves the shelf, and why one is thrown away.

use crate::measures::moment::Moment;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// How a jar leaves the shelf.
    "how", Leaving {
        /// Opened and eaten.
        Eaten = "eaten", "eaten";
        /// Given away.
        Given = "given", "given away";
        /// Thrown away, with a reason.
        Discarded = "discarded", "discarded";
    }
}

vocabulary! {
    /// Why a jar was thrown away.
    "why", Discard {
        /// It leaked.
        Leak = "leak", "it leaked";
        /// Its lid bulged.
        Bulge = "bulge", "lid bulged";
        /// The seal was broken.
        Unsealed = "unsealed", "seal broken";
        /// It spurted when it was opened.
        Spurt = "spurt", "it spurted";
        /// It smelled off.
        Smell = "smell", "smelled off";
        /// There was mould.
        Mould = "mould", "mould";
        /// Too old for anybody's liking.
        Old = "old", "too old";
        /// It was dropped.
        Dropped = "dropped", "dropped";
        /// It did not seal or was not processed, and nobody put it right in time.
        TooLate = "too_late", "not put right in time";
    }
}

impl Discard {
    /// Whether the contents spoiled, so that its sisters of the same batch are looked at.
    #[must_use]
    pub const fn is_spoilage(self) -> bool {
        !matches!(self, Self::Old | Self::Dropped | Self::TooLate)
    }
}

/// What became of the jars of one product in one size.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct History {
    /// When jars came to the shelf, and how many.
    pub came: Vec<(Moment, u32)>,
    /// When jars left, how, and how many.
    pub left: Vec<(Moment, Leaving, u32)>,
}
