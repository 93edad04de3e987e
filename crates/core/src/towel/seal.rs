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

vocabulary! {
    /// What is wrong with a jar on the towel, the worst first.
    "wrong", Wrong {
        /// It did not have its full time.
        Unprocessed = "unprocessed", "not processed";
        /// Its dose of acid is not in it.
        Undosed = "undosed", "no acid";
        /// Its lid failed or is doubtful.
        Lid = "lid", "lid failed";
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

/// How long jars straight from the canner stay hot enough to go back with their lids on. Common practice, no source.
pub const HOT_FOR: Minutes = Minutes(30);

/// A jar on the towel, as far as it decides what may be done with it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Cooling {
    /// What was found at its lid.
    pub verdict: Option<LidVerdict>,
    /// Whether it had its full time.
    pub processed: bool,
    /// Whether its dose of acid is in it.
    pub dosed: bool,
    /// When it came out of the canner.
    pub lifted_at: Moment,
}

/// Why a jar cannot be rescued so.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoRescue {
    /// Nothing is wrong with it.
    #[error(
        "nothing is wrong with it that anybody said: its lid did not fail, its time was full, its acid is in"
    )]
    NothingWrong,
    /// More than a day has passed.
    #[error("it came out more than 24 hours ago and is not processed again")]
    TooLate,
    /// More than a day has passed, and nobody said where it stood.
    #[error("it came out more than 24 hours ago: say whether it was kept cold all that time")]
    WasItCold,
    /// It stood warm for more than a day.
    #[error("it stood unsealed for more than 24 hours and was not kept cold: discard it without tasting")]
    NotCold,
}

impl Cooling {
    /// Whether something has to be done about it, and what about: the worst first. Broken glass is thrown away.
    #[must_use]
    pub fn wrong(&self) -> Option<Wrong> {
        match self.verdict {
            Some(LidVerdict::Broken) => None,
            _ if !self.processed => Some(Wrong::Unprocessed),
            _ if !self.dosed => Some(Wrong::Undosed),
            Some(LidVerdict::Failed | LidVerdict::Doubtful) => Some(Wrong::Lid),
            Some(LidVerdict::Holds) | None => None,
        }
    }

    /// Whether the day is over within which it can be processed again.
    #[must_use]
    pub fn is_late(&self, now: Moment) -> bool {
        now > window(self.lifted_at).1
    }

    /// Whether it goes back into the canner with the lid that it has: only as long as it is hot, and only because of its
    /// time. A lid that failed is a new lid, and a dose goes in under one.
    #[must_use]
    pub fn keeps_its_lid(&self, now: Moment) -> bool {
        self.dosed && self.verdict.is_none() && now <= self.lifted_at.plus(HOT_FOR)
    }

    /// Whether it may be rescued so. Source: USDA Guide 1, from memory: within 24 hours by the full process or the cold;
    /// later it is eaten or frozen only when it was kept cold all that time.
    ///
    /// # Errors
    /// [`NoRescue`].
    pub fn may(&self, rescue: Rescue, kept_cold: Option<bool>, now: Moment) -> Result<(), NoRescue> {
        match rescue {
            _ if self.wrong().is_none() => Err(NoRescue::NothingWrong),
            _ if !self.is_late(now) => Ok(()),
            Rescue::Reprocess => Err(NoRescue::TooLate),
            Rescue::Refrigerator | Rescue::Freezer => match kept_cold {
                None => Err(NoRescue::WasItCold),
                Some(false) => Err(NoRescue::NotCold),
                Some(true) => Ok(()),
            },
        }
    }
}

/// Whether a lid that is judged at a moment has to be looked at a second time: it may still pull down, or let go.
#[must_use]
pub fn is_provisional(verdict: LidVerdict, lifted_at: Moment, judged_at: Moment) -> bool {
    verdict == LidVerdict::Holds && judged_at < window(lifted_at).0
}

#[cfg(test)]
mod tests {
    use super::{Cooling, LidVerdict, NoRescue, Rescue, Wrong, is_provisional};
    use crate::measures::moment::Moment;

    const LIFTED: Moment = Moment(1_790_000_000_000);

    fn cooling(verdict: Option<LidVerdict>, processed: bool) -> Cooling {
        Cooling { verdict, processed, dosed: true, lifted_at: LIFTED }
    }

    #[test]
    fn a_frozen_jar_has_room_to_swell() {
        // USDA Guide 1, from memory: an inch and a half.
        assert_eq!(super::freezer_headspace(), crate::measures::units::inches(1.5));
    }

    #[test]
    fn what_is_wrong_is_put_right_within_a_day() {
        use LidVerdict::{Broken, Doubtful, Failed, Holds};
        let at = |hours: i64| LIFTED.plus_minutes(hours * 60);
        for (verdict, processed, hours, expected) in [
            (Some(Failed), true, 13, Ok(())),
            (Some(Doubtful), true, 24, Ok(())),
            (Some(Failed), true, 25, Err(NoRescue::TooLate)),
            (Some(Broken), true, 1, Err(NoRescue::NothingWrong)),
            (Some(Broken), false, 1, Err(NoRescue::NothingWrong)),
            (Some(Holds), true, 13, Err(NoRescue::NothingWrong)),
            (None, true, 13, Err(NoRescue::NothingWrong)),
            (None, false, 1, Ok(())),
            (Some(Holds), false, 13, Ok(())),
            (None, false, 25, Err(NoRescue::TooLate)),
        ] {
            let jar = cooling(verdict, processed);
            assert_eq!(jar.may(Rescue::Reprocess, None, at(hours)), expected, "{verdict:?} after {hours} h");
        }
    }

    #[test]
    fn after_a_day_only_what_was_kept_cold_is_eaten() {
        let late = LIFTED.plus_minutes(24 * 60 + 1);
        let jar = cooling(Some(LidVerdict::Failed), true);
        for rescue in [Rescue::Refrigerator, Rescue::Freezer] {
            assert_eq!(jar.may(rescue, None, LIFTED.plus_minutes(24 * 60)), Ok(()));
            assert_eq!(jar.may(rescue, Some(true), late), Ok(()));
            assert_eq!(jar.may(rescue, Some(false), late), Err(NoRescue::NotCold));
            assert_eq!(jar.may(rescue, None, late), Err(NoRescue::WasItCold));
        }
        assert_eq!(jar.may(Rescue::Reprocess, Some(true), late), Err(NoRescue::TooLate));
    }

    #[test]
    fn hot_jars_go_back_as_they_are_and_cooled_ones_under_new_lids() {
        let unprocessed = cooling(None, false);
        assert!(unprocessed.keeps_its_lid(LIFTED.plus_minutes(30)));
        assert!(!unprocessed.keeps_its_lid(LIFTED.plus_minutes(31)));
        assert!(!cooling(Some(LidVerdict::Failed), true).keeps_its_lid(LIFTED.plus_minutes(1)));
        let undosed = Cooling { dosed: false, ..unprocessed };
        assert!(!undosed.keeps_its_lid(LIFTED.plus_minutes(1)), "its dose goes in under a new lid");
    }

    #[test]
    fn the_worst_is_said_first_and_a_lid_that_holds_hides_nothing() {
        use LidVerdict::{Broken, Failed, Holds};
        for (verdict, processed, dosed, expected) in [
            (None, false, false, Some(Wrong::Unprocessed)),
            (Some(Holds), true, false, Some(Wrong::Undosed)),
            (Some(Failed), true, false, Some(Wrong::Undosed)),
            (Some(Failed), true, true, Some(Wrong::Lid)),
            (Some(Broken), false, false, None),
            (Some(Holds), true, true, None),
            (None, true, true, None),
        ] {
            let jar = Cooling { verdict, processed, dosed, lifted_at: LIFTED };
            assert_eq!(jar.wrong(), expected, "{jar:?}");
        }
        let undosed = Cooling { dosed: false, ..cooling(Some(Holds), true) };
        assert_eq!(undosed.may(Rescue::Reprocess, None, LIFTED.plus_minutes(24 * 60)), Ok(()));
        let late = LIFTED.plus_minutes(24 * 60 + 1);
        assert_eq!(undosed.may(Rescue::Reprocess, Some(true), late), Err(NoRescue::TooLate));
        assert_eq!(undosed.may(Rescue::Freezer, Some(true), late), Ok(()));
    }

    #[test]
    fn a_lid_that_holds_before_twelve_hours_is_looked_at_again() {
        let judged = |hours: i64| is_provisional(LidVerdict::Holds, LIFTED, LIFTED.plus_minutes(hours * 60));
        assert!(judged(0) && judged(11) && !judged(12));
        assert!(!is_provisional(LidVerdict::Failed, LIFTED, LIFTED));
    }
}
