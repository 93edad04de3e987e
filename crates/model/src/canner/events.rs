//! What people see and do at the canner, in each canner's words, and where a load can stand.

use crate::measures::ids::JarId;
use crate::measures::moment::Moment;
use crate::measures::vocabulary::vocabulary;
use crate::tables::process::Method;

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
        /// A steam canner ran dry.
        RanDry = "ran_dry", "It ran dry";
        /// The machine that counts was off for a while: nobody knows whether the boil held.
        Unwatched = "unwatched", "The machine was off";
        /// Somebody knows that the boil held all the while.
        HeldOn = "held_on", "It boiled all the time";
        /// The wall clock of the machine was set: the count went on by another one.
        ClockSet = "clock_set", "The machine's clock was set";
        /// The pounds were raised; minutes counted below them do not count.
        PoundsRaised = "pounds_raised", "Pounds raised";
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
        /// The heat is on again under jars that were not processed in full.
        HeatAgain = "heat_again", "Boil it again";
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
            Self::HeldOn if pressure => "The pressure held all the time",
            Self::HeatOff if pressure => "Heat off",
            Self::HeatAgain if !matches!(method, Method::BoilingWater) => "Process it again",
            Self::Boils if matches!(method, Method::AtmosphericSteam) => "Full steam",
            Self::BoilLost if matches!(method, Method::AtmosphericSteam) => "Steam lost",
            Self::HeldOn if matches!(method, Method::AtmosphericSteam) => "It steamed all the time",
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
    /// The machine was off while it counted: nothing counts until somebody says whether the boil held.
    Unwatched {
        /// When this boil began.
        since: Moment,
        /// When the machine was back.
        at: Moment,
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

impl OutOfOrder {
    /// That the machine was off is not taken back, but answered.
    #[must_use]
    pub const fn unwatched() -> Self {
        Self { said: BoilEvent::Unwatched.label(), next: HELD_OR_NOT }
    }
}

/// What comes next when nobody timed a boil.
pub const HELD_OR_NOT: &str = "whether the boil held while the machine was off";

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
