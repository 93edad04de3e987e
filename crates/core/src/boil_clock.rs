//! The clock of one canner load: it starts at the full rolling boil and starts again when the boil is lost.
//!
//! A pure fold over what people touched: the same events give the same clock after a reload, a crash or a replay.
//! Source of the restart rule: USDA Guide 1, from memory.

use serde::{Deserialize, Serialize};

use crate::moment::{Minutes, Moment};

/// Minutes the jars stand in the canner with the heat off and the lid off before they are lifted.
/// Source: USDA Guide 1, from memory.
pub const REST: Minutes = Minutes(5);

/// Something a person saw or did at the canner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BoilEvent {
    /// The jars are in and the heat is on.
    JarsIn,
    /// A full rolling boil under a closed lid.
    Boils,
    /// The boil stopped before the time was up.
    BoilLost,
    /// Heat off and lid off; the rest begins.
    HeatOff,
    /// The jars are out, on the towel.
    Lifted,
}

impl BoilEvent {
    /// Every event.
    pub const ALL: [Self; 5] = [Self::JarsIn, Self::Boils, Self::BoilLost, Self::HeatOff, Self::Lifted];

    /// The words on the button.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::JarsIn => "Jars are in",
            Self::Boils => "It boils",
            Self::BoilLost => "Boil lost",
            Self::HeatOff => "Heat off, lid off",
            Self::Lifted => "Jars are out",
        }
    }
}

/// An event with its time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Happened {
    /// What.
    pub event: BoilEvent,
    /// When.
    pub at: Moment,
}

/// Where the load stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "phase", rename_all = "snake_case")]
pub enum Phase {
    /// Jars are not in yet.
    Waiting,
    /// Jars are in, no full boil yet.
    Heating {
        /// When the jars went in.
        since: Moment,
    },
    /// At a full rolling boil, the clock runs.
    Counting {
        /// When this unbroken boil began.
        since: Moment,
        /// When the time is up if the boil holds.
        ends: Moment,
    },
    /// The boil was lost; nothing counts until it is back.
    BoilLost {
        /// When it was lost.
        at: Moment,
    },
    /// The full time is done; heat off.
    TimeUp {
        /// When it was done.
        at: Moment,
    },
    /// Heat off, lid off, jars rest.
    Resting {
        /// When the rest began.
        since: Moment,
        /// When the jars may be lifted.
        ends: Moment,
    },
    /// Rested; lift the jars.
    Rested {
        /// When the rest was over.
        at: Moment,
    },
    /// Out of the canner.
    Lifted {
        /// When.
        at: Moment,
    },
}

/// An event that makes no sense where the load stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("\"{}\" does not follow here; next comes {}", .event.label(), .next)]
pub struct OutOfOrder {
    /// What was said.
    pub event: BoilEvent,
    /// What would make sense, in words.
    pub next: &'static str,
}

/// The clock of one load: its required time and what happened so far.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BoilClock {
    required: Minutes,
    happened: Vec<Happened>,
}

impl BoilClock {
    /// A clock that must count `required` minutes without a break.
    #[must_use]
    pub const fn new(required: Minutes) -> Self {
        Self { required, happened: Vec::new() }
    }

    /// Rebuilds a clock from stored events.
    ///
    /// # Errors
    /// [`OutOfOrder`] when the stored events do not follow one another.
    pub fn replay(required: Minutes, happened: &[Happened]) -> Result<Self, OutOfOrder> {
        happened.iter().try_fold(Self::new(required), |clock, item| clock.after(item.event, item.at))
    }

    /// The minutes one unbroken boil must last.
    #[must_use]
    pub const fn required(&self) -> Minutes {
        self.required
    }

    /// What happened, oldest first.
    #[must_use]
    pub fn happened(&self) -> &[Happened] {
        &self.happened
    }

    /// The clock after one more event. A time before the last event counts as the last event's time, so that a clock
    /// set back cannot make a boil last longer.
    ///
    /// # Errors
    /// [`OutOfOrder`] says what would make sense instead; the clock is unchanged.
    pub fn after(&self, event: BoilEvent, at: Moment) -> Result<Self, OutOfOrder> {
        let at = self.happened.last().map_or(at, |last| last.at.max(at));
        let (allowed, next): (&[BoilEvent], _) = match self.phase(at) {
            Phase::Waiting => (&[BoilEvent::JarsIn, BoilEvent::Boils], "\"Jars are in\""),
            Phase::Heating { .. } => (&[BoilEvent::Boils], "\"It boils\""),
            Phase::Counting { .. } => {
                (&[BoilEvent::BoilLost, BoilEvent::HeatOff], "\"Boil lost\" or \"Heat off\"")
            }
            Phase::BoilLost { .. } => {
                (&[BoilEvent::Boils, BoilEvent::HeatOff], "\"It boils\" when the boil is back")
            }
            Phase::TimeUp { .. } => (&[BoilEvent::HeatOff], "\"Heat off, lid off\""),
            Phase::Resting { .. } | Phase::Rested { .. } => (&[BoilEvent::Lifted], "\"Jars are out\""),
            Phase::Lifted { .. } => (&[], "nothing: this load is done"),
        };
        if !allowed.contains(&event) {
            return Err(OutOfOrder { event, next });
        }
        let mut happened = self.happened.clone();
        happened.push(Happened { event, at });
        Ok(Self { required: self.required, happened })
    }

    /// Where the load stands at a moment.
    #[must_use]
    pub fn phase(&self, now: Moment) -> Phase {
        let Some(last) = self.happened.last() else { return Phase::Waiting };
        let since = last.at;
        match last.event {
            BoilEvent::JarsIn => Phase::Heating { since },
            BoilEvent::Boils => {
                let ends = Moment(since.0 + self.required.ms());
                if now >= ends { Phase::TimeUp { at: ends } } else { Phase::Counting { since, ends } }
            }
            BoilEvent::BoilLost => Phase::BoilLost { at: since },
            BoilEvent::HeatOff => {
                let ends = Moment(since.0 + REST.ms());
                if now >= ends { Phase::Rested { at: ends } } else { Phase::Resting { since, ends } }
            }
            BoilEvent::Lifted => Phase::Lifted { at: since },
        }
    }

    /// How long the boil that counts has lasted at a moment: the last unbroken stretch.
    #[must_use]
    pub fn unbroken_ms(&self, now: Moment) -> i64 {
        let Some(start) = self.happened.iter().rposition(|item| item.event == BoilEvent::Boils) else {
            return 0;
        };
        let end = self.happened.get(start + 1).map_or(now, |next| next.at);
        end.since_ms(self.happened[start].at).max(0)
    }

    /// Whether the last unbroken boil was as long as the process asks.
    #[must_use]
    pub fn is_processed(&self, now: Moment) -> bool {
        self.unbroken_ms(now) >= self.required.ms()
    }

    /// How often the boil was lost.
    #[must_use]
    pub fn times_lost(&self) -> usize {
        self.happened.iter().filter(|item| item.event == BoilEvent::BoilLost).count()
    }
}

#[cfg(test)]
mod tests {
    use super::{BoilClock, BoilEvent, Happened, Phase};
    use crate::moment::{Minutes, Moment};

    const START: Moment = Moment(1_790_000_000_000);

    fn at(minute: i64) -> Moment {
        START.plus_minutes(minute)
    }

    fn run(events: &[(BoilEvent, i64)]) -> BoilClock {
        let happened: Vec<Happened> =
            events.iter().map(|(event, minute)| Happened { event: *event, at: at(*minute) }).collect();
        BoilClock::replay(Minutes(50), &happened).unwrap()
    }

    #[test]
    fn clock_starts_at_the_boil_and_not_when_the_jars_go_in() {
        let clock = run(&[(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 22)]);
        assert_eq!(clock.phase(at(40)), Phase::Counting { since: at(22), ends: at(72) });
        assert!(!clock.is_processed(Moment(at(72).0 - 1)), "a millisecond early is early");
        assert!(clock.is_processed(at(72)));
        assert_eq!(clock.phase(at(72)), Phase::TimeUp { at: at(72) });
    }

    #[test]
    fn lost_boil_starts_again_from_zero() {
        let clock = run(&[
            (BoilEvent::JarsIn, 0),
            (BoilEvent::Boils, 20),
            (BoilEvent::BoilLost, 69),
            (BoilEvent::Boils, 75),
        ]);
        assert_eq!(clock.phase(at(80)), Phase::Counting { since: at(75), ends: at(125) });
        assert!(!clock.is_processed(at(124)));
        assert!(clock.is_processed(at(125)));
        assert_eq!(clock.times_lost(), 1);
    }

    #[test]
    fn heat_off_too_early_is_recorded_and_not_processed() {
        let clock = run(&[(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 49)]);
        assert!(!clock.is_processed(at(200)), "time after the heat is off does not count");
    }

    #[test]
    fn rest_then_lifted() {
        let clock = run(&[(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50)]);
        assert_eq!(clock.phase(at(54)), Phase::Resting { since: at(50), ends: at(55) });
        assert_eq!(clock.phase(at(55)), Phase::Rested { at: at(55) });
        let done = clock.after(BoilEvent::Lifted, at(56)).unwrap();
        assert_eq!(done.phase(at(99)), Phase::Lifted { at: at(56) });
        assert!(done.is_processed(at(99)));
    }

    #[test]
    fn events_out_of_order_are_refused_with_what_comes_next() {
        for (before, event, next) in [
            (vec![], BoilEvent::BoilLost, "\"Boil lost\" does not follow here; next comes \"Jars are in\""),
            (
                vec![(BoilEvent::JarsIn, 0)],
                BoilEvent::Lifted,
                "\"Jars are out\" does not follow here; next comes \"It boils\"",
            ),
            (
                vec![(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)],
                BoilEvent::Boils,
                "\"It boils\" does not follow here; next comes nothing: this load is done",
            ),
        ] {
            let error = run(&before).after(event, at(60)).unwrap_err();
            assert_eq!(error.to_string(), next);
        }
    }

    #[test]
    fn a_clock_set_back_cannot_lengthen_a_boil() {
        let clock = run(&[(BoilEvent::Boils, 30), (BoilEvent::BoilLost, 10), (BoilEvent::Boils, 12)]);
        assert_eq!(clock.unbroken_ms(at(40)), Minutes(10).ms(), "the second boil counts from minute 30");
    }
}
