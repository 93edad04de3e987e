//! The clock of one canner load: it starts at the full rolling boil and starts again when the boil is lost.
//!
//! A pure fold over what people touched: the same events give the same clock after a reload, a crash or a replay. A
//! pressure canner vents first, counts at pressure, and lets its pressure drop by itself; a steam canner counts at full
//! steam. Source of the rules: USDA Guide 1, from memory; of the steam canner's: university extension guidance of 2015,
//! from memory.

use crate::canner::events::{BoilEvent, Fate, HELD_OR_NOT, Happened, OutOfOrder, Phase};
use crate::measures::ids::JarId;
use crate::measures::moment::{Minutes, Moment};
use crate::measures::units::Time;
use crate::tables::process::Method;

/// Minutes the jars stand with the heat off and the lid off before they are lifted.
/// Source: USDA Guide 1, from memory.
pub const REST: Minutes = Minutes(5);
/// Minutes a pressure canner stands after its pressure is down, before its lid is opened.
/// Source: USDA Guide 1, from memory.
pub const REST_AFTER_PRESSURE: Minutes = Minutes(10);
/// Minutes a pressure canner vents before the weight goes on. Source: USDA Guide 1, from memory.
pub const VENT: Minutes = Minutes(10);

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
    /// Since when it boils, and since when nobody knows.
    Unwatched(Moment, Moment),
    /// The boil fell after its full time, with nobody at the heat yet.
    Full(Moment),
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

    /// Whether the pressure is up and counts: raising its pounds starts the time again.
    #[must_use]
    pub fn counts_at_pressure(&self) -> bool {
        self.method.is_pressure() && matches!(self.stage(), Stage::Counting(_))
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

    /// What was said last; that the machine's clock was set is noted, and nothing to take back.
    #[must_use]
    pub fn last_said(&self) -> Option<&Happened> {
        self.happened.iter().rfind(|item| item.event != BoilEvent::ClockSet)
    }

    /// What may be said at a moment, and the words for what comes next.
    fn allowed(&self, now: Moment) -> (&'static [BoilEvent], &'static str) {
        use BoilEvent::{
            BoilLost, Boils, HeatAgain, HeatOff, HeldOn, JarAdded, JarBroken, JarOut, JarsIn, Lifted,
            PressureDown, RanDry, ToppedUpBoiling, ToppedUpCold, Vents,
        };
        const AGAIN: &str = "\"Boil it again\", or \"Jars are out\"";
        let pressure = self.method.is_pressure();
        let water = self.method == Method::BoilingWater;
        let steam = self.method == Method::AtmosphericSteam;
        match self.phase(now) {
            Phase::Waiting if water => (&[JarsIn, Boils], "\"Jars are in\""),
            Phase::Waiting => (&[JarsIn], "\"Jars are in\""),
            Phase::Heating { .. } if pressure => (&[Vents, JarBroken], "\"Steam streams out\""),
            Phase::Heating { .. } if water => {
                (&[Boils, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded], "\"It boils\"")
            }
            Phase::Heating { .. } => (&[Boils, RanDry, JarBroken, JarOut, JarAdded], "\"Full steam\""),
            Phase::Venting { .. } => (&[JarBroken], "the full 10 minutes of venting, then the weight"),
            Phase::Vented { .. } => (&[Boils, JarBroken], "\"Pressure is up\""),
            Phase::Counting { .. } if steam => {
                (&[BoilLost, RanDry, HeatOff, JarBroken], "the end of the time, or \"lost\" when it falls")
            }
            // A closed pressure or steam canner is not opened while it counts.
            Phase::Counting { .. } if !water => {
                (&[BoilLost, HeatOff, JarBroken], "the end of the time, or \"lost\" when it falls")
            }
            Phase::Counting { .. } => (
                &[BoilLost, HeatOff, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded],
                "\"Boil lost\" or \"Heat off\"",
            ),
            Phase::Unwatched { .. } if steam => {
                (&[HeldOn, BoilLost, RanDry, HeatOff, JarBroken], HELD_OR_NOT)
            }
            Phase::Unwatched { .. } => (&[HeldOn, BoilLost, HeatOff, JarBroken], HELD_OR_NOT),
            Phase::BoilLost { .. } if steam => {
                (&[Boils, RanDry, HeatOff, JarBroken], "the return of it, or \"Heat off\"")
            }
            Phase::BoilLost { .. } if !water => {
                (&[Boils, HeatOff, JarBroken], "the return of it, or \"Heat off\"")
            }
            Phase::BoilLost { .. } => (
                &[Boils, HeatOff, ToppedUpBoiling, ToppedUpCold, JarBroken, JarOut, JarAdded],
                "\"It boils\" when the boil is back",
            ),
            Phase::TimeUp { .. } => (&[HeatOff, JarBroken], "\"Heat off\""),
            Phase::Dropping { .. } if !self.is_processed(now) => (&[PressureDown, HeatAgain], AGAIN),
            Phase::Dropping { .. } => (&[PressureDown], "\"Pressure is down\"; let it drop by itself"),
            Phase::Resting { .. } | Phase::Rested { .. } if !self.is_processed(now) => {
                (&[HeatAgain, Lifted, JarBroken], AGAIN)
            }
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
    /// jar, stop the boil: the time starts again, unless it was full already. What makes no sense at a stage leaves it as
    /// it is.
    const fn step(&self, stage: Stage, event: BoilEvent, at: Moment) -> Stage {
        let pressure = self.method.is_pressure();
        match (stage, event) {
            // Out is out.
            (Stage::Lifted(_), _) => stage,
            (_, BoilEvent::Lifted) => Stage::Lifted(at),
            (Stage::Waiting, BoilEvent::JarsIn) => Stage::Heating(at),
            (Stage::Heating(_), BoilEvent::Vents) if pressure => Stage::Venting(at),
            (
                Stage::Waiting
                | Stage::Heating(_)
                | Stage::Venting(_)
                | Stage::Unwatched(..)
                | Stage::Lost(_),
                BoilEvent::Boils,
            ) => Stage::Counting(at),
            (
                Stage::Counting(_) | Stage::Unwatched(..),
                BoilEvent::BoilLost
                | BoilEvent::RanDry
                | BoilEvent::PoundsRaised
                | BoilEvent::ToppedUpCold
                | BoilEvent::JarOut
                | BoilEvent::JarAdded,
            ) => match stage {
                Stage::Counting(since) if at.since_ms(since) >= self.required.ms() => {
                    Stage::Full(since.plus(self.required))
                }
                _ => Stage::Lost(at),
            },
            (Stage::Counting(since), BoilEvent::Unwatched) => Stage::Unwatched(since, at),
            // Whether the air was out cannot be known either; it is driven out once more.
            (Stage::Venting(_), BoilEvent::Unwatched) => Stage::Heating(at),
            (Stage::Unwatched(since, _), BoilEvent::HeldOn) => Stage::Counting(since),
            (Stage::Dropping(_) | Stage::Resting(_), BoilEvent::HeatAgain) => Stage::Heating(at),
            (
                Stage::Waiting
                | Stage::Heating(_)
                | Stage::Venting(_)
                | Stage::Counting(_)
                | Stage::Unwatched(..)
                | Stage::Full(_)
                | Stage::Lost(_),
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
            Stage::Unwatched(since, at) => Phase::Unwatched { since, at },
            Stage::Full(at) => Phase::TimeUp { at },
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

    /// Unbroken boils, first to last, each with what ended it; the last may still run.
    fn stretches(&self) -> Vec<(Moment, Option<Happened>)> {
        let mut stage = Stage::Waiting;
        let mut found: Vec<(Moment, Option<Happened>)> = Vec::new();
        for item in &self.happened {
            let next = self.step(stage, item.event, item.at);
            match (stage, next) {
                (Stage::Counting(_), Stage::Counting(_)) => {}
                (Stage::Counting(_), _) => {
                    if let Some(last) = found.last_mut() {
                        last.1 = Some(*item);
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
        let lasted = |(since, end): &(Moment, Option<Happened>)| match end {
            // How long it held is what nobody knows.
            Some(end) if end.event == BoilEvent::Unwatched => 0,
            _ => end.map_or(now, |end| end.at).since_ms(*since).max(0),
        };
        self.stretches().last().map_or(0, lasted)
    }

    /// Whether the last unbroken boil was as long as the process asks.
    #[must_use]
    pub fn is_processed(&self, now: Moment) -> bool {
        self.unbroken_ms(now) >= self.required.ms()
    }

    /// Whether the heat went off before the time was full, and nobody has put it on again: these jars are not processed,
    /// whatever else happens to them.
    #[must_use]
    pub fn ended_short(&self, now: Moment) -> bool {
        let is_over = matches!(self.stage(), Stage::Dropping(_) | Stage::Resting(_) | Stage::Lifted(_));
        is_over && !self.is_processed(now)
    }

    /// How often the boil was lost. Heat that somebody turned off too early is an end and not a loss.
    #[must_use]
    pub fn times_lost(&self) -> usize {
        let is_lost = |(since, end): &(Moment, Option<Happened>)| {
            end.is_some_and(|end| {
                !matches!(end.event, BoilEvent::HeatOff | BoilEvent::Unwatched)
                    && end.at.since_ms(*since) < self.required.ms()
            })
        };
        self.stretches().iter().filter(|stretch| is_lost(stretch)).count()
    }

    /// How long a jar that was lifted by itself had its boil until then; `None` of one that was not.
    #[must_use]
    pub fn held_before(&self, jar: JarId) -> Option<i64> {
        let is_out = |item: &Happened| item.event == BoilEvent::JarOut && item.jar == Some(jar);
        let place = self.happened.iter().position(is_out)?;
        let (before, from) = self.happened.split_at_checked(place)?;
        let until = Self { happened: before.to_vec(), ..self.clone() };
        Some(until.unbroken_ms(from.first()?.at))
    }

    /// What became of a jar that did not stay to the end.
    #[must_use]
    pub fn fate(&self, jar: JarId, own: Minutes) -> Fate {
        let broke = |item: &Happened| item.event == BoilEvent::JarBroken && item.jar == Some(jar);
        if self.happened.iter().any(broke) {
            return Fate::Broken;
        }
        match self.held_before(jar) {
            None => Fate::Stayed,
            Some(held) if held >= own.ms() => Fate::OutInTime,
            Some(_) => Fate::OutTooEarly,
        }
    }
}

#[cfg(test)]
mod tests;
