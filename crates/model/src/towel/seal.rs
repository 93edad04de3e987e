//! What was found at a lid, and what is done with a jar that cannot stay on the shelf.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// What was found at a lid.
    "verdict", LidVerdict {
        /// It holds.
        Holds = "holds", "lid holds";
        /// It does not.
        Failed = "failed", "lid failed";
        /// The jar is broken.
        Broken = "broken", "jar broken";
        /// Nobody is sure; it is not shelved.
        Doubtful = "doubtful", "doubtful";
    }
}

vocabulary! {
    /// What is done with a jar whose lid failed.
    "rescue", Rescue {
        /// Rim checked, new lid, the full time again.
        Reprocess = "reprocess", "process again";
        /// Kept cold and eaten within days.
        Refrigerator = "refrigerator", "refrigerator";
        /// Frozen, with headspace.
        Freezer = "freezer", "freezer";
    }
}
