//! When the lids of cooling jars are judged, what may be found, and what is done about a lid that failed.

use crate::measures::moment::{Minutes, Moment};
use crate::measures::units::{Length, inches};
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

/// Days that an unsealed jar is kept in the refrigerator. Common practice, no source: "use within days".
pub const FRIDGE_DAYS: i64 = 4;
/// Headspace of a jar that is frozen. Source: USDA Guide 1, from memory.
#[must_use]
pub fn freezer_headspace() -> Length {
    inches(1.5)
}
/// Months that a sealed jar is at its best. Source: USDA Guide 1, from memory.
pub const BEST_MONTHS: i32 = 12;

/// Jars cool untouched for this long before a lid is judged. Source: USDA Guide 1, from memory.
pub const CHECK_FROM: Minutes = Minutes(12 * 60);
/// After this long a jar whose lid failed is no longer processed again. Source: USDA Guide 1, from memory.
pub const CHECK_BY: Minutes = Minutes(24 * 60);

/// From when to when the lids of jars lifted at a moment are judged.
#[must_use]
pub const fn window(lifted_at: Moment) -> (Moment, Moment) {
    (lifted_at.plus(CHECK_FROM), lifted_at.plus(CHECK_BY))
}

/// Until when a jar in the refrigerator is eaten.
#[must_use]
pub const fn fridge_until(since: Moment) -> Moment {
    since.plus_minutes(FRIDGE_DAYS * 24 * 60)
}

/// Whether a jar may still be processed again: its lid failed or is doubtful, and the day is not over.
#[must_use]
pub fn may_reprocess(verdict: LidVerdict, lifted_at: Moment, now: Moment) -> bool {
    matches!(verdict, LidVerdict::Failed | LidVerdict::Doubtful) && now <= window(lifted_at).1
}

#[cfg(test)]
mod tests {
    use super::{LidVerdict, may_reprocess};
    use crate::measures::moment::Moment;

    #[test]
    fn a_failed_lid_is_processed_again_within_a_day_and_a_broken_jar_never() {
        let lifted = Moment(1_790_000_000_000);
        for (verdict, hours, expected) in [
            (LidVerdict::Failed, 13, true),
            (LidVerdict::Doubtful, 24, true),
            (LidVerdict::Failed, 25, false),
            (LidVerdict::Broken, 1, false),
            (LidVerdict::Holds, 13, false),
        ] {
            assert_eq!(
                may_reprocess(verdict, lifted, lifted.plus_minutes(hours * 60)),
                expected,
                "{verdict}"
            );
        }
    }
}
