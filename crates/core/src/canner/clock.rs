//! The clock of one canner load: it starts at the full rolling boil and starts again when the boil is lost.
//!
//! A pure fold over what people touched: the same events give the same clock after a reload, a crash or a replay. A
//! pressure canner vents first, counts at pressure, and lets its pressure drop by itself; a steam canner counts at full
//! steam. Source of the rules: USDA Guide 1, from memory; of the steam canner's: university extension guidance of 2015,
//! from memory.

use crate::measures::ids::JarId;
use crate::measures::moment::{Minutes, Moment};
use crate::measures::units::Time;
use crate::measures::vocabulary::vocabulary;
use crate::tables::process::Method;

/// Minutes the jars stand with the heat off and the lid off before they are lifted.
/// Source: USDA Guide 1, from memory.
pub const REST: Minutes = Minutes(5);
/// Minutes a pressure canner stands after its pressure is down, before its lid is opened.
/// Source: USDA Guide 1, from memory.
pub const REST_AFTER_PRESSURE: Minutes = Minutes(10);
/// Minutes a pressure canner vents before the weight goes on. Source: USDA Guide 1, from memory.
pub const VENT: Minutes = Minutes(10);

vocabulary! {
    /// Something a person saw or did at the canner.
    "event", BoilEvent {
        /// The jars are in and the heat is on.
        JarsIn = "jars_in", "Jars are in";
        /// Steam streams from the vent of a pressure canner.
        Vents = "vents", "Steam streams out";
        /// A full rolling boil under a closed lid; full steam; the pressure is up.
        Boils = "boils", "It boils";
        /// The boil, the steam or the pressure fell before the time was up.
        BoilLost = "boil_lost", "Boil lost";
        /// Boiling water was poured in.
        ToppedUpBoiling = "topped_up_boiling", "Topped up, boiling";
        /// Cold water was poured in, which stops the boil.
        ToppedUpCold = "topped_up_cold", "Topped up, cold";
        /// A jar broke in the canner.
        JarBroken = "jar_broken", "A jar broke";
        /// A jar was lifted early.
        JarOut = "jar_out", "A jar was taken out";
        /// A jar was put in late.
        JarAdded = "jar_added", "A jar was put in";
        /// Heat off; in water and steam the lid comes off too and the rest begins.
        HeatOff = "heat_off", "Heat off, lid off";
        /// The pressure is down by itself and the weight is off.
        PressureDown = "pressure_down", "Pressure is down";
        /// The jars are out, on the towel.
        Lifted = "lifted", "Jars are out";
    }
}

impl BoilEvent {
    /// The words on the button for a canner.
    #[must_use]
    pub const fn says(self, method: Method) -> &'static str {
        let pressure = method.is_pressure();
        match self {
            Self::Boils if pressure => "Pressure is up",
            Self::BoilLost if pressure => "Pressure lost",
            Self::HeatOff if pressure => "Heat off",
            Self::Boils if matches!(method, Method::AtmosphericSteam) => "Full steam",
            Self::BoilLost if matches!(method, Method::AtmosphericSteam) => "Steam lost",
            _ => self.label(),
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
    /// The record of the jar it is about.
    pub jar: Option<JarId>,
}

/// Where the load stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize)]
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
    /// Steam drives the air out of a pressure canner.
    Venting {
        /// When it began to stream.
        since: Moment,
        /// When the air is out and the weight goes on.
        ends: Moment,
    },
    /// Vented; the weight goes on.
    Vented {
        /// When it was done.
        at: Moment,
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
    /// Heat off; the pressure drops by itself.
    Dropping {
        /// When the heat went off.
        since: Moment,
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
#[error("\"{said}\" does not follow here; next comes {next}")]
pub struct OutOfOrder {
    /// What was said, in this canner's words.
    pub said: &'static str,
    /// What would make sense, in words.
    pub next: &'static str,
}

/// The clock of one load: its canner, its required time and what happened so far.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BoilClock {
    method: Method,
    required: Minutes,
    happened: Vec<Happened>,
}

/// Where the fold stands after the events, before the present moment is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Stage {
    Waiting,
    Heating(Moment),
    Venting(Moment),
    Counting(Moment),
    Lost(Moment),
    Dropping(Moment),
    Resting(Moment),
    Lifted(Moment),
}

impl BoilClock {
    /// A clock that must count `required` minutes without a break.
    #[must_use]
    pub const fn new(method: Method, required: Minutes) -> Self {
        Self { method, required, happened: Vec::new() }
    }

    /// Rebuilds a clock from stored events, whatever they are.
    ///
    /// What is stored happened: only a new event can be refused ([`Self::after`]), an old one never. An event that says
    /// nothing where the load stands moves nothing, so that a load whose time was corrected later, or whose events were
    /// written by another program, still has a clock that never counts more than was boiled.
    #[must_use]
    pub fn replay(method: Method, required: Minutes, happened: &[Happened]) -> Self {
        let mut clock = Self::new(method, required);
        for item in happened {
            clock.push(*item);
        }
        clock
    }

    /// Adds an event. A time before the last event counts as the last event's time, so that a clock set back cannot
    /// make a boil last longer.
    fn push(&mut self, item: Happened) {
        let at = self.happened.last().map_or(item.at, |last| last.at.max(item.at));
        self.happened.push(Happened { at, ..item });
    }

    /// The same events against another time, as when the altitude is corrected in the middle of a load.
    #[must_use]
    pub fn retimed(&self, required: Minutes) -> Self {
        Self { required, ..self.clone() }
    }

    /// The minutes one unbroken boil must last.
    #[must_use]
    pub const fn required(&self) -> Minutes {
        self.required
    }

    /// Whether anything happened: its load is in the canner, or was.
    #[must_use]
    pub const fn has_begun(&self) -> bool {
        !self.happened.is_empty()
    }

    /// What happened, oldest first.
    #[must_use]
    pub fn happened(&self) -> &[Happened] {
        &self.happened
    }

    /// What may be said at a moment, and the words for what comes next.
    fn allowed(&self, now: Moment) -> (&'static [BoilEvent], &'static str) {
        use BoilEvent::{
            BoilLost, Boils, HeatOff, JarAdded, JarBroken, JarOut, JarsIn, Lifted, PressureDown,
            ToppedUpBoiling, ToppedUpCold, Vents,
        };
        let pressure = self.method.is_pressure();
        let water = self.method == Method::BoilingWater;
        match self.phase(now) {
            Phase::Waiting if water => (&[JarsIn, Boils], "\"Jars are in\""),
            Phase::Waiting => (&[JarsIn], "\"Jars are in\""),
            Phase::Heating { .. } if pressure => (&[Vents, JarBroken], "\"Steam streams out\""),
            Phase::Heating { .. } if water => {
                (&[Boils, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded], "\"It boils\"")
            }
            Phase::Heating { .. } => (&[Boils, JarBroken, JarOut, JarAdded], "\"Full steam\""),
            Phase::Venting { .. } => (&[JarBroken], "the full 10 minutes of venting, then the weight"),
            Phase::Vented { .. } => (&[Boils, JarBroken], "\"Pressure is up\""),
            // A closed pressure or steam canner is not opened while it counts.
            Phase::Counting { .. } if !water => {
                (&[BoilLost, HeatOff, JarBroken], "the end of the time, or \"lost\" when it falls")
            }
            Phase::Counting { .. } => (
                &[BoilLost, HeatOff, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded],
                "\"Boil lost\" or \"Heat off\"",
            ),
            Phase::BoilLost { .. } if !water => {
                (&[Boils, HeatOff, JarBroken], "the return of it, or \"Heat off\"")
            }
            Phase::BoilLost { .. } => (
                &[Boils, HeatOff, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded],
                "\"It boils\" when the boil is back",
            ),
            Phase::TimeUp { .. } => (&[HeatOff, JarBroken], "\"Heat off\""),
            Phase::Dropping { .. } => (&[PressureDown], "\"Pressure is down\"; let it drop by itself"),
            Phase::Resting { .. } | Phase::Rested { .. } => (&[Lifted, JarBroken], "\"Jars are out\""),
            Phase::Lifted { .. } => (&[], "nothing: this load is done"),
        }
    }

    /// The clock after one more event.
    ///
    /// # Errors
    /// [`OutOfOrder`] says what would make sense instead; the clock is unchanged.
    pub fn after(&self, event: BoilEvent, jar: Option<JarId>, at: Moment) -> Result<Self, OutOfOrder> {
        let (allowed, next) = self.allowed(self.happened.last().map_or(at, |last| last.at.max(at)));
        if !allowed.contains(&event) {
            return Err(OutOfOrder { said: event.says(self.method), next });
        }
        let mut clock = self.clone();
        clock.push(Happened { event, at, jar });
        Ok(clock)
    }

    /// The stage after one event; total, so that every stored history has a meaning. Cold water, and a lid opened for a
    /// jar, stop the boil: the time starts again. What makes no sense at a stage leaves it as it is.
    const fn step(&self, stage: Stage, event: BoilEvent, at: Moment) -> Stage {
        let pressure = self.method.is_pressure();
        match (stage, event) {
            // Out is out.
            (Stage::Lifted(_), _) => stage,
            (_, BoilEvent::Lifted) => Stage::Lifted(at),
            (Stage::Waiting, BoilEvent::JarsIn) => Stage::Heating(at),
            (Stage::Heating(_), BoilEvent::Vents) if pressure => Stage::Venting(at),
            (Stage::Waiting | Stage::Heating(_) | Stage::Venting(_) | Stage::Lost(_), BoilEvent::Boils) => {
                Stage::Counting(at)
            }
            (
                Stage::Counting(_),
                BoilEvent::BoilLost | BoilEvent::ToppedUpCold | BoilEvent::JarOut | BoilEvent::JarAdded,
            ) => Stage::Lost(at),
            (
                Stage::Waiting | Stage::Heating(_) | Stage::Venting(_) | Stage::Counting(_) | Stage::Lost(_),
                BoilEvent::HeatOff,
            ) => {
                if pressure {
                    Stage::Dropping(at)
                } else {
                    Stage::Resting(at)
                }
            }
            (Stage::Dropping(_), BoilEvent::PressureDown) => Stage::Resting(at),
            _ => stage,
        }
    }

    fn stage(&self) -> Stage {
        self.happened.iter().fold(Stage::Waiting, |stage, item| self.step(stage, item.event, item.at))
    }

    /// Where the load stands at a moment.
    #[must_use]
    pub fn phase(&self, now: Moment) -> Phase {
        match self.stage() {
            Stage::Waiting => Phase::Waiting,
            Stage::Heating(since) => Phase::Heating { since },
            Stage::Venting(since) => match since.plus(VENT) {
                ends if now >= ends => Phase::Vented { at: ends },
                ends => Phase::Venting { since, ends },
            },
            Stage::Counting(since) => match since.plus(self.required) {
                ends if now >= ends => Phase::TimeUp { at: ends },
                ends => Phase::Counting { since, ends },
            },
            Stage::Lost(at) => Phase::BoilLost { at },
            Stage::Dropping(since) => Phase::Dropping { since },
            Stage::Resting(since) => match since.plus(self.rest()) {
                ends if now >= ends => Phase::Rested { at: ends },
                ends => Phase::Resting { since, ends },
            },
            Stage::Lifted(at) => Phase::Lifted { at },
        }
    }

    /// How long the jars stand before they are lifted.
    #[must_use]
    pub const fn rest(&self) -> Minutes {
        if self.method.is_pressure() { REST_AFTER_PRESSURE } else { REST }
    }

    /// Time from the end of the rest until the jars were out; nothing until they are.
    #[must_use]
    pub fn lifting(&self) -> Option<Time> {
        let lifted = self.happened.iter().rfind(|item| item.event == BoilEvent::Lifted)?.at;
        let ends_heat = |item: &&Happened| matches!(item.event, BoilEvent::HeatOff | BoilEvent::PressureDown);
        let rests_from = self.happened.iter().rfind(ends_heat)?.at;
        Some(lifted.since(rests_from.plus(self.rest())))
    }

    /// Unbroken boils, first to last; the last may still run.
    fn stretches(&self) -> Vec<(Moment, Option<Moment>)> {
        let mut stage = Stage::Waiting;
        let mut found: Vec<(Moment, Option<Moment>)> = Vec::new();
        for item in &self.happened {
            let next = self.step(stage, item.event, item.at);
            match (stage, next) {
                (Stage::Counting(since), Stage::Counting(again)) if since == again => {}
                (Stage::Counting(_), _) => {
                    if let Some(last) = found.last_mut() {
                        last.1 = Some(item.at);
                    }
                }
                (_, Stage::Counting(since)) => found.push((since, None)),
                _ => {}
            }
            stage = next;
        }
        found
    }

    /// How long the boil that counts has lasted at a moment: the last unbroken stretch.
    #[must_use]
    pub fn unbroken_ms(&self, now: Moment) -> i64 {
        self.stretches().last().map_or(0, |(since, end)| end.unwrap_or(now).since_ms(*since).max(0))
    }

    /// Whether the last unbroken boil was as long as the process asks.
    #[must_use]
    pub fn is_processed(&self, now: Moment) -> bool {
        self.unbroken_ms(now) >= self.required.ms()
    }

    /// How often the boil was lost.
    #[must_use]
    pub fn times_lost(&self) -> usize {
        let held = self.stretches().into_iter().filter_map(|(since, end)| Some(end?.since_ms(since)));
        held.filter(|held| *held < self.required.ms()).count() - usize::from(self.ended_short())
    }

    /// Whether the heat went off before the time was up, which is an end and not a loss.
    fn ended_short(&self) -> bool {
        let off = self.happened.iter().find(|item| item.event == BoilEvent::HeatOff);
        let last = self.stretches().last().copied();
        off.zip(last).is_some_and(|(off, (since, end))| {
            end == Some(off.at) && off.at.since_ms(since) < self.required.ms()
        })
    }

    /// What became of a jar that did not stay to the end.
    #[must_use]
    pub fn fate(&self, jar: JarId, own: Minutes) -> Fate {
        let of_jar = |event: BoilEvent| {
            self.happened.iter().position(|item| item.event == event && item.jar == Some(jar))
        };
        if of_jar(BoilEvent::JarBroken).is_some() {
            return Fate::Broken;
        }
        match of_jar(BoilEvent::JarOut) {
            None => Fate::Stayed,
            Some(place) => {
                let until = Self { happened: self.happened[..place].to_vec(), ..self.clone() };
                let held = until.unbroken_ms(self.happened[place].at);
                if held >= own.ms() { Fate::OutInTime } else { Fate::OutTooEarly }
            }
        }
    }
}

/// What became of a jar in the canner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Fate {
    /// It stayed in with the load.
    Stayed,
    /// It broke.
    Broken,
    /// It was lifted early, after its own tested time.
    OutInTime,
    /// It was lifted before its own tested time: it is not processed.
    OutTooEarly,
}

#[cfg(test)]
mod tests {
    use super::{BoilClock, BoilEvent, Fate, Happened, Phase};
    use crate::measures::ids::JarId;
    use crate::measures::moment::{Minutes, Moment};
    use crate::tables::process::Method;

    const START: Moment = Moment(1_790_000_000_000);

    fn at(minute: i64) -> Moment {
        START.plus_minutes(minute)
    }

    fn run(events: &[(BoilEvent, i64)]) -> BoilClock {
        let happened: Vec<Happened> = events
            .iter()
            .map(|(event, minute)| Happened { event: *event, at: at(*minute), jar: None })
            .collect();
        BoilClock::replay(Method::BoilingWater, Minutes(50), &happened)
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
    fn lifting_counts_from_the_end_of_the_rest() {
        let off = [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 70)];
        assert_eq!(run(&off).lifting(), None);
        let out = run(&[off[0], off[1], off[2], (BoilEvent::Lifted, 83)]);
        // 5 min of rest, then 8 min to lift.
        assert_eq!(out.lifting(), Some(at(83).since(at(75))));
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
        let done = clock.after(BoilEvent::Lifted, None, at(56)).unwrap();
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
            let error = run(&before).after(event, None, at(60)).unwrap_err();
            assert_eq!(error.to_string(), next);
        }
    }

    #[test]
    fn a_clock_set_back_cannot_lengthen_a_boil() {
        let clock = run(&[(BoilEvent::Boils, 30), (BoilEvent::BoilLost, 10), (BoilEvent::Boils, 12)]);
        assert_eq!(clock.unbroken_ms(at(40)), Minutes(10).ms(), "the second boil counts from minute 30");
    }

    #[test]
    fn only_boiling_water_is_poured_in_without_starting_again() {
        let boiling = run(&[(BoilEvent::Boils, 0), (BoilEvent::ToppedUpBoiling, 20)]);
        assert_eq!(boiling.phase(at(30)), Phase::Counting { since: at(0), ends: at(50) });
        let cold = run(&[(BoilEvent::Boils, 0), (BoilEvent::ToppedUpCold, 20), (BoilEvent::Boils, 24)]);
        assert_eq!(cold.phase(at(30)), Phase::Counting { since: at(24), ends: at(74) });
        assert_eq!((boiling.times_lost(), cold.times_lost()), (0, 1));
        assert!(boiling.is_processed(at(50)) && !cold.is_processed(at(73)));
    }

    #[test]
    fn a_jar_in_the_middle_starts_the_others_again_and_is_judged_by_its_own_time() {
        let clock = run(&[(BoilEvent::Boils, 0)]).after(BoilEvent::JarOut, Some(JarId(7)), at(36)).unwrap();
        assert_eq!(clock.phase(at(37)), Phase::BoilLost { at: at(36) });
        assert_eq!(clock.fate(JarId(7), Minutes(35)), Fate::OutInTime);
        assert_eq!(clock.fate(JarId(7), Minutes(40)), Fate::OutTooEarly);
        assert_eq!(clock.fate(JarId(8), Minutes(40)), Fate::Stayed);
        let broken =
            run(&[(BoilEvent::Boils, 0)]).after(BoilEvent::JarBroken, Some(JarId(3)), at(9)).unwrap();
        assert_eq!(broken.phase(at(10)), Phase::Counting { since: at(0), ends: at(50) });
        assert_eq!(broken.fate(JarId(3), Minutes(50)), Fate::Broken);
    }

    #[test]
    fn a_pressure_canner_vents_ten_minutes_counts_at_pressure_and_drops_by_itself() {
        let mut clock = BoilClock::new(Method::PressureWeighted, Minutes(25));
        for (event, minute) in [(BoilEvent::JarsIn, 0), (BoilEvent::Vents, 12)] {
            clock = clock.after(event, None, at(minute)).unwrap();
        }
        let early = clock.after(BoilEvent::Boils, None, at(21)).unwrap_err();
        assert_eq!(
            early.to_string(),
            "\"Pressure is up\" does not follow here; next comes the full 10 minutes of venting, then the weight"
        );
        assert_eq!(clock.phase(at(22)), Phase::Vented { at: at(22) });
        for (event, minute) in [
            (BoilEvent::Boils, 26),
            (BoilEvent::BoilLost, 40),
            (BoilEvent::Boils, 44),
            (BoilEvent::HeatOff, 69),
        ] {
            clock = clock.after(event, None, at(minute)).unwrap();
        }
        assert!(clock.is_processed(at(70)) && clock.times_lost() == 1);
        assert!(clock.after(BoilEvent::Lifted, None, at(90)).is_err(), "not before the pressure is down");
        assert!(
            clock.after(BoilEvent::ToppedUpBoiling, None, at(90)).is_err(),
            "a closed canner is not opened"
        );
        clock = clock.after(BoilEvent::PressureDown, None, at(110)).unwrap();
        assert_eq!(clock.phase(at(115)), Phase::Resting { since: at(110), ends: at(120) });
    }
}
