//! When the lids of cooling jars are judged, what may be found, and what is done about a lid that failed.

use bodega_model::judge::standing::{JarStanding, Mending};
use bodega_model::ledger::keep::FRIDGE_DAYS;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::{Length, inches};
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::towel::liquid::{HALF_GONE_DAYS, LiquidLost};
use bodega_model::towel::seal::{LidVerdict, Rescue};

vocabulary! {
    /// What is wrong with a jar on the towel, the worst first.
    "wrong", Wrong {
        /// It did not have its full time.
        Unprocessed = "unprocessed", "not processed";
        /// Its dose of acid is not in it.
        Undosed = "undosed", "no acid";
        /// Something else stands against it: what is in it, its jar, its canner.
        Stopped = "stopped", "not for the shelf";
        /// Its lid failed or is doubtful.
        Lid = "lid", "lid failed";
    }
}

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

/// Days that a jar is kept in the refrigerator, by what it lost of its liquid.
#[must_use]
pub const fn fridge_days(lost: Option<LiquidLost>) -> i64 {
    match lost {
        Some(LiquidLost::Half) => HALF_GONE_DAYS,
        Some(LiquidLost::Some) | None => FRIDGE_DAYS,
    }
}

/// Until when a jar in the refrigerator is eaten that is kept there for so many days.
#[must_use]
pub const fn fridge_until(since: Moment, days: i64) -> Moment {
    since.plus_minutes(days * 24 * 60)
}

/// How long jars straight from the canner stay hot enough to go back with their lids on. Common practice, no source.
pub const HOT_FOR: Minutes = Minutes(30);

/// How long food that was not processed in full stands at room temperature, before it is too late for anything but what was kept
/// cold. Source: USDA, the two hours for cooked food, from memory.
pub const STANDS_FOR: Minutes = Minutes(2 * 60);

/// A jar on the towel, as far as it decides what may be done with it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Cooling {
    /// What was found at its lid.
    pub verdict: Option<LidVerdict>,
    /// Whether it had its full time.
    pub processed: bool,
    /// Whether its dose of acid is in it.
    pub dosed: bool,
    /// Whether what stands against it can be put right.
    pub mending: Mending,
    /// When it came out of the canner.
    pub lifted_at: Moment,
    /// When it was put into the refrigerator; `None` while it stands.
    pub chilled_at: Option<Moment>,
}

/// Why a jar cannot be rescued so.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoRescue {
    /// Nothing is wrong with it.
    #[error(
        "nothing is wrong with it that anybody said: its lid did not fail, its time was full, its acid is in, nothing \
         stands against it"
    )]
    NothingWrong,
    /// What is wrong stays in it.
    #[error(
        "processing it again does not put it right: refrigerate it and eat it within days, freeze it, or discard it"
    )]
    NotPutRight,
    /// More than a day has passed.
    #[error("it came out more than 24 hours ago and is not processed again")]
    TooLate,
    /// It has stood too long, and nobody said where.
    #[error("it came out more than {hours} hours ago: say whether it was kept cold all that time")]
    WasItCold {
        /// For how long it may stand.
        hours: i64,
    },
    /// It stood warm for too long.
    #[error("it stood for more than {hours} hours and was not kept cold: discard it without tasting")]
    NotCold {
        /// For how long it may stand.
        hours: i64,
    },
}

impl Cooling {
    /// The same jar with what stands against it: what it lacks and whether that can be put right.
    #[must_use]
    pub fn with(self, standing: &JarStanding) -> Self {
        Self { dosed: self.dosed && !standing.lacks_acid(), mending: standing.mending(), ..self }
    }

    /// Whether something has to be done about it, and what about: the worst first. Broken glass is thrown away.
    #[must_use]
    pub fn wrong(&self) -> Option<Wrong> {
        match self.verdict {
            Some(LidVerdict::Broken) => None,
            _ if !self.processed => Some(Wrong::Unprocessed),
            _ if !self.dosed => Some(Wrong::Undosed),
            _ if self.mending != Mending::Nothing => Some(Wrong::Stopped),
            Some(LidVerdict::Failed | LidVerdict::Doubtful) => Some(Wrong::Lid),
            Some(LidVerdict::Holds) | None => None,
        }
    }

    /// How long it may stand before it is too late: two hours when it was not processed in full, else a day.
    #[must_use]
    pub fn stands_for(&self) -> Minutes {
        if self.wrong() == Some(Wrong::Unprocessed) { STANDS_FOR } else { CHECK_BY }
    }

    /// Until when something can be done about it as it stands.
    #[must_use]
    pub fn stands_until(&self) -> Moment {
        self.lifted_at.plus(self.stands_for())
    }

    /// Whether the time is over in which it can be put right as it stands. In the refrigerator in time, it has its whole day.
    #[must_use]
    pub fn is_late(&self, now: Moment) -> bool {
        let in_time = |at: Moment| at <= self.stands_until();
        now > if self.chilled_at.is_some_and(in_time) {
            window(self.lifted_at).1
        } else {
            self.stands_until()
        }
    }

    /// Whether it goes back into the canner with the lid that it has: only as long as it is hot, and only because of its
    /// time. A lid that failed is a new lid, and a dose goes in under one.
    #[must_use]
    pub fn keeps_its_lid(&self, now: Moment) -> bool {
        let is_only_short = self.wrong() == Some(Wrong::Unprocessed) && self.dosed;
        is_only_short && self.verdict.is_none() && now <= self.lifted_at.plus(HOT_FOR)
    }

    /// Whether it may be rescued so. Source: USDA Guide 1, from memory: within 24 hours by the full process or the cold;
    /// later it is eaten or frozen only when it was kept cold all that time. What was not processed in full stands for two
    /// hours at most, and within its day only what was cold since then is processed again.
    ///
    /// # Errors
    /// [`NoRescue`].
    pub fn may(&self, rescue: Rescue, kept_cold: Option<bool>, now: Moment) -> Result<(), NoRescue> {
        if self.wrong().is_none() {
            return Err(NoRescue::NothingWrong);
        }
        if rescue == Rescue::Reprocess {
            if self.mending == Mending::Never {
                return Err(NoRescue::NotPutRight);
            }
            if now > window(self.lifted_at).1 {
                return Err(NoRescue::TooLate);
            }
        }
        let hours = i64::from(self.stands_for().0 / 60);
        match kept_cold {
            _ if !self.is_late(now) => Ok(()),
            None => Err(NoRescue::WasItCold { hours }),
            Some(false) => Err(NoRescue::NotCold { hours }),
            Some(true) => Ok(()),
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
    use super::{Cooling, LidVerdict, Mending, NoRescue, Rescue, Wrong, is_provisional};
    use bodega_model::measures::moment::Moment;

    const LIFTED: Moment = Moment(1_790_000_000_000);

    fn cooling(verdict: Option<LidVerdict>, processed: bool) -> Cooling {
        let mending = if processed { Mending::Nothing } else { Mending::Again };
        Cooling { verdict, processed, dosed: true, mending, lifted_at: LIFTED, chilled_at: None }
    }

    #[test]
    fn a_frozen_jar_has_room_to_swell() {
        // USDA Guide 1, from memory: an inch and a half.
        assert_eq!(super::freezer_headspace(), bodega_model::measures::units::inches(1.5));
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
            (None, false, 2, Ok(())),
            (None, false, 3, Err(NoRescue::WasItCold { hours: 2 })),
            (Some(Holds), false, 13, Err(NoRescue::WasItCold { hours: 2 })),
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
            assert_eq!(jar.may(rescue, Some(false), late), Err(NoRescue::NotCold { hours: 24 }));
            assert_eq!(jar.may(rescue, None, late), Err(NoRescue::WasItCold { hours: 24 }));
        }
        assert_eq!(jar.may(Rescue::Reprocess, Some(true), late), Err(NoRescue::TooLate));
    }

    #[test]
    fn what_was_not_processed_stands_for_two_hours_and_in_the_cold_for_its_day() {
        let at = |minutes: i64| LIFTED.plus_minutes(minutes);
        let standing = cooling(None, false);
        for rescue in [Rescue::Reprocess, Rescue::Refrigerator, Rescue::Freezer] {
            assert_eq!(standing.may(rescue, None, at(120)), Ok(()), "{rescue}");
            assert_eq!(
                standing.may(rescue, None, at(121)),
                Err(NoRescue::WasItCold { hours: 2 }),
                "{rescue}"
            );
            assert_eq!(standing.may(rescue, Some(false), at(121)), Err(NoRescue::NotCold { hours: 2 }));
            assert_eq!(standing.may(rescue, Some(true), at(121)), Ok(()));
        }
        let chilled = |minutes: i64| Cooling { chilled_at: Some(at(minutes)), ..standing };
        assert_eq!(chilled(120).may(Rescue::Reprocess, None, at(24 * 60)), Ok(()));
        assert_eq!(chilled(120).may(Rescue::Reprocess, Some(true), at(24 * 60 + 1)), Err(NoRescue::TooLate));
        assert_eq!(chilled(121).may(Rescue::Reprocess, None, at(180)), Err(NoRescue::WasItCold { hours: 2 }));
        // A lid that failed on food that was processed has its whole day as it stands.
        let failed = cooling(Some(LidVerdict::Failed), true);
        assert_eq!((failed.stands_until(), standing.stands_until()), (at(24 * 60), at(120)));
    }

    #[test]
    fn what_is_in_the_food_is_not_processed_out_of_it() {
        let jar = Cooling { mending: Mending::Never, ..cooling(Some(LidVerdict::Holds), true) };
        assert_eq!(jar.wrong(), Some(Wrong::Stopped));
        let day = LIFTED.plus_minutes(24 * 60);
        assert_eq!(jar.may(Rescue::Reprocess, None, LIFTED), Err(NoRescue::NotPutRight));
        assert_eq!(jar.may(Rescue::Refrigerator, None, day), Ok(()));
        assert_eq!(
            jar.may(Rescue::Freezer, None, day.plus_minutes(1)),
            Err(NoRescue::WasItCold { hours: 24 })
        );
        let jar = Cooling { mending: Mending::Again, ..jar };
        assert_eq!(jar.may(Rescue::Reprocess, None, day), Ok(()));
        assert!(!jar.keeps_its_lid(LIFTED), "it is opened first");
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
            let jar = Cooling { dosed, ..cooling(verdict, processed) };
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
