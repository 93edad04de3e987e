//! What the canner's screen says at each phase: the words, the touches, and the call that brings somebody back.
//!
//! A phase that ends by itself says what it turns into as well, so that a screen which lost its connection still turns
//! over at the right second.

use bodega_model::canner::cover::{COVER_IN, WaterOver};
use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::Time;
use bodega_model::records::load::CannerLoad;
use bodega_model::tables::process::Method;
use serde::Serialize;

use super::over::{cover_of, look_again_from};

/// The figure that a phase shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "shows", rename_all = "snake_case")]
pub enum Figure {
    /// The whole time, standing still.
    Minutes {
        /// The time.
        minutes: Minutes,
    },
    /// What is left, running down.
    Left {
        /// When it began.
        since: Moment,
        /// When it is over.
        ends: Moment,
    },
    /// A word.
    Word {
        /// The word.
        word: &'static str,
    },
}

/// How much a touch stands out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Look {
    /// The next thing to do.
    Main,
    /// Something that may happen.
    Plain,
    /// About the heat.
    Heat,
    /// It ends a part well.
    Done,
}

/// What of the time would be missing if a touch were given now.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "lacks", rename_all = "snake_case")]
pub enum Lacks {
    /// The minutes until then.
    Until {
        /// When nothing is missing any more.
        ends: Moment,
    },
    /// All of it.
    All {
        /// The whole time.
        minutes: Minutes,
    },
}

/// A touch that may be given.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Touch {
    /// What it says happened.
    pub event: BoilEvent,
    /// The words on it, in this canner's language.
    pub says: &'static str,
    /// Its key.
    pub key: char,
    /// How much it stands out.
    pub look: Look,
    /// What of the time it would leave out; `null` when nothing.
    pub lacks: Option<Lacks>,
    /// How much water over the lids it says there is; `null` when it says nothing of it.
    pub water: Option<WaterOver>,
}

/// What a phase says.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Said {
    /// The figure.
    pub figure: Figure,
    /// The words beside it; `{at}` stands for the clock time of `at`.
    pub words: String,
    /// A moment in the words.
    pub at: Option<Moment>,
    /// What may be touched.
    pub touches: Vec<Touch>,
    /// What was done well.
    pub good: Option<String>,
    /// What to keep in mind meanwhile.
    pub mind: Option<&'static str>,
    /// What calls somebody back to the stove.
    pub call: Option<&'static str>,
    /// From when on somebody looks at the water over the lids again; `null` when nobody has to.
    pub look_again: Option<Moment>,
    /// Whether it boils.
    pub boiling: bool,
    /// Whether a clock or a flame runs, so that the screen stays awake.
    pub running: bool,
}

/// The words that differ from one kind of canner to another.
struct Words {
    goes_in: &'static str,
    heats: &'static str,
    counts: &'static str,
    keep: &'static str,
    lost: &'static str,
    unwatched: &'static str,
    off: &'static str,
    unbroken: &'static str,
    not_processed: &'static str,
    again: &'static str,
}

const WATER: Words = Words {
    goes_in: "Lower the jars into hot water. The clock starts at the full rolling boil, not before.",
    heats: "Heating up. Touch “It boils” at a full rolling boil under the lid.",
    counts: "left at a full rolling boil.",
    keep: "Keep it boiling. Top up only with boiling water.",
    lost: "The boil was lost. Bring it back to a full boil; the whole time counts again from there.",
    unwatched: "The machine was off while it counted. Did it boil without a break from {at} on? If you do not know, it was lost: the whole time counts again.",
    off: "Turn the heat off and take the lid off, away from you.",
    unbroken: "at an unbroken boil",
    not_processed: "Not processed: boil it again",
    again: "Boil it again: lid on, back to a full boil, and the whole time counts from there.",
};
const STEAM: Words = Words {
    goes_in: "Stand the jars on the rack over hot water. The clock starts at full steam, not before.",
    heats: "Heating up. Touch “Full steam” when an unbroken column streams out.",
    counts: "left at full steam.",
    keep: "Leave the lid on and do not top up; the water must last.",
    lost: "The steam was lost. Bring it back; the whole time counts again from there.",
    unwatched: "The machine was off while it counted. Did it steam without a break from {at} on? If you do not know, it was lost: the whole time counts again.",
    off: "Turn the heat off and take the lid off, away from you.",
    unbroken: "at full steam",
    not_processed: "Not processed: steam it again",
    again: "Process it again: lid on, back to full steam, and the whole time counts from there.",
};
const PRESSURE: Words = Words {
    goes_in: "Stand the jars on the rack in 2 to 3 in of hot water and lock the lid, the vent open.",
    heats: "Heating up. Touch “Steam streams out” when a steady jet leaves the open vent.",
    counts: "left at pressure.",
    keep: "Hold it at or a little above the pressure; below it, the time starts again.",
    lost: "The pressure was lost. Bring it back; the whole time counts again from there.",
    unwatched: "The machine was off while it counted. Did the pressure hold from {at} on? If you do not know, it was lost: the whole time counts again.",
    off: "Turn the heat off. Let the pressure drop by itself; never cool it with water.",
    unbroken: "at pressure without a break",
    not_processed: "Not processed: bring it back to pressure",
    again: "Process it again: vent, bring it back to pressure, and the whole time counts from there.",
};

const fn words_of(method: Method) -> &'static Words {
    match method {
        Method::BoilingWater => &WATER,
        Method::AtmosphericSteam => &STEAM,
        Method::PressureDial | Method::PressureWeighted => &PRESSURE,
    }
}

/// How the minutes that count are called on a canner.
#[must_use]
pub const fn unbroken(method: Method) -> &'static str {
    words_of(method).unbroken
}

/// What a steam canner that ran dry is told.
const RAN_DRY: &str = "It ran dry. Heat off, and let it cool before water goes in. Then a full base of water, back to full \
    steam, and the whole time counts again from there.";

/// The letter that works a touch of the canner, which means nothing else at any station; `X` for what is said in a sheet of its
/// own and has no touch.
#[must_use]
pub const fn key(event: BoilEvent) -> char {
    match event {
        BoilEvent::JarsIn => 'J',
        BoilEvent::Vents => 'V',
        BoilEvent::Boils => 'B',
        BoilEvent::BoilLost => 'L',
        BoilEvent::ToppedUpBoiling => 'T',
        BoilEvent::ToppedUpCold => 'C',
        BoilEvent::HeatOff => 'H',
        BoilEvent::HeatAgain => 'G',
        BoilEvent::PressureDown => 'D',
        BoilEvent::Lifted => 'O',
        BoilEvent::PoundsRaised => 'P',
        BoilEvent::HeldOn => 'Y',
        BoilEvent::RanDry => 'E',
        BoilEvent::JarBroken
        | BoilEvent::JarOut
        | BoilEvent::JarAdded
        | BoilEvent::Unwatched
        | BoilEvent::ClockSet => 'X',
    }
}

/// What is said of a load: its method and time, and what is known about its come-up.
struct Speaker<'a> {
    load: &'a CannerLoad,
    /// Time from the jars going in to the boil.
    come_up: Option<Time>,
    now: Moment,
}

impl Speaker<'_> {
    fn touch(&self, event: BoilEvent, look: Look) -> Touch {
        Touch {
            event,
            says: event.says(self.load.batch.method),
            key: key(event),
            look,
            lacks: None,
            water: None,
        }
    }

    /// A phase in which turning the heat off leaves some of the time out, and the touch says so.
    fn off_too_early(&self, said: Said, lacks: Lacks) -> Said {
        let with =
            |touch: Touch| Touch { lacks: (touch.event == BoilEvent::HeatOff).then_some(lacks), ..touch };
        Said { touches: said.touches.into_iter().map(with).collect(), ..said }
    }

    fn words(&self) -> &'static Words {
        words_of(self.load.batch.method)
    }

    fn still(&self, figure: Figure, words: impl Into<String>, touches: &[(BoilEvent, Look)]) -> Said {
        Said {
            figure,
            words: words.into(),
            at: None,
            touches: touches.iter().map(|(event, look)| self.touch(*event, *look)).collect(),
            good: None,
            mind: None,
            call: None,
            look_again: None,
            boiling: false,
            running: false,
        }
    }

    /// The touch that says the jars are in: under water it says how much stands over the lids as well, enough first.
    fn goes_in(&self) -> Vec<Touch> {
        let plain = self.touch(BoilEvent::JarsIn, Look::Main);
        if self.load.batch.method != Method::BoilingWater {
            return vec![plain];
        }
        let with = |water: WaterOver, says: &'static str, key: char, look: Look| Touch {
            says,
            key,
            look,
            water: Some(water),
            ..plain
        };
        let less = [
            with(WaterOver::Low, "Jars are in, less than 1 in", 'W', Look::Plain),
            with(WaterOver::Unknown, "Jars are in, water not looked at", 'Q', Look::Plain),
        ];
        let enough = if cover_of(self.load) < COVER_IN {
            vec![with(WaterOver::Some, "Jars are in, 1 in over the lids", 'J', Look::Main)]
        } else {
            vec![
                with(WaterOver::Well, "Jars are in, 2 in over the lids", 'J', Look::Main),
                with(WaterOver::Some, "Jars are in, only 1 to 2 in", 'K', Look::Plain),
            ]
        };
        enough.into_iter().chain(less).collect()
    }

    /// What may be said of a boil that counts or was lost, beside what comes first: topping up where water takes it, and a steam
    /// canner that ran dry.
    fn with_water(&self, first: &[(BoilEvent, Look)]) -> Vec<(BoilEvent, Look)> {
        let mut all = self.with_top_ups(first);
        if self.load.batch.method == Method::AtmosphericSteam {
            all.push((BoilEvent::RanDry, Look::Plain));
        }
        all
    }

    fn whole(&self) -> Figure {
        Figure::Minutes { minutes: self.load.clock.required() }
    }

    /// The touches, and those for topping up, which only water takes.
    fn with_top_ups(&self, first: &[(BoilEvent, Look)]) -> Vec<(BoilEvent, Look)> {
        let mut all = first.to_vec();
        if self.load.batch.method == Method::BoilingWater {
            all.extend([(BoilEvent::ToppedUpBoiling, Look::Plain), (BoilEvent::ToppedUpCold, Look::Plain)]);
        }
        all
    }

    fn heating(&self, since: Moment) -> Said {
        let first = if self.load.batch.method.is_pressure() { BoilEvent::Vents } else { BoilEvent::Boils };
        let boils_at = self.come_up.map(|come_up| since.plus_time(come_up)).filter(|at| *at > self.now);
        let expected = if boils_at.is_some() { " Expect it about {at}." } else { "" };
        Said {
            at: boils_at,
            running: true,
            ..self.still(
                self.whole(),
                format!("{}{expected}", self.words().heats),
                &self.with_top_ups(&[(first, Look::Heat)]),
            )
        }
    }

    fn counting(&self, since: Moment, ends: Moment) -> Said {
        let rest = self.load.clock.rest();
        let (after, at) = if self.load.batch.method.is_pressure() {
            (" Heat off at {at}.".to_owned(), ends)
        } else {
            (format!(" Lift at {{at}}, after {} minutes with the lid off.", rest.0), ends.plus(rest))
        };
        let said = Said {
            at: Some(at),
            mind: Some(self.words().keep),
            look_again: look_again_from(self.load, self.now),
            boiling: true,
            running: true,
            ..self.still(
                Figure::Left { since, ends },
                format!("{}{after}", self.words().counts),
                &self.with_water(&[(BoilEvent::BoilLost, Look::Heat), (BoilEvent::HeatOff, Look::Plain)]),
            )
        };
        self.off_too_early(said, Lacks::Until { ends })
    }

    /// Nothing counts until somebody says whether the boil held while nobody timed it.
    fn unwatched(&self, since: Moment) -> Said {
        let touches = [
            (BoilEvent::HeldOn, Look::Done),
            (BoilEvent::BoilLost, Look::Heat),
            (BoilEvent::HeatOff, Look::Plain),
        ];
        let said = Said {
            at: Some(since),
            call: Some("The machine was off: did the boil hold?"),
            running: true,
            ..self.still(Figure::Word { word: "Did it hold?" }, self.words().unwatched, &touches)
        };
        self.off_too_early(said, Lacks::All { minutes: self.load.clock.required() })
    }

    fn time_up(&self) -> Said {
        let words =
            format!("The full {} minutes are done. {}", self.load.clock.required().0, self.words().off);
        Said {
            boiling: true,
            running: true,
            call: Some("Time is up: heat off"),
            ..self.still(Figure::Word { word: "Heat off" }, words, &[(BoilEvent::HeatOff, Look::Done)])
        }
    }

    fn vented(&self) -> Said {
        Said {
            boiling: true,
            running: true,
            call: Some("Vented: put the weight on"),
            ..self.still(
                Figure::Word { word: "Close it" },
                "Vented the full 10 minutes. Put the weight on; touch “Pressure is up” when it is there.",
                &[(BoilEvent::Boils, Look::Heat)],
            )
        }
    }

    /// The heat went off too early: it is said before anything else, until the full time was counted.
    fn not_processed(&self, touches: &[(BoilEvent, Look)]) -> Said {
        let clock = &self.load.clock;
        let held = clock.unbroken_ms(self.now) / Minutes(1).ms();
        let is_out = matches!(clock.phase(self.now), Phase::Lifted { .. });
        let next =
            if is_out { "The jars are on the towel; it says what to do now." } else { self.words().again };
        let words = format!("{held} of {} minutes {}. {next}", clock.required().0, self.words().unbroken);
        Said {
            call: Some(self.words().not_processed),
            ..self.still(Figure::Word { word: "Not processed" }, words, touches)
        }
    }

    fn rested(&self) -> Said {
        let clock = &self.load.clock;
        if clock.ended_short(self.now) {
            return self
                .not_processed(&[(BoilEvent::HeatAgain, Look::Main), (BoilEvent::Lifted, Look::Plain)]);
        }
        let good = format!(
            "Processed: {} minutes {}, {} were needed.",
            clock.unbroken_ms(self.now) / Minutes(1).ms(),
            self.words().unbroken,
            clock.required().0
        );
        let words = "Lift the jars straight up onto the towel, gaps between them, no draught.";
        Said {
            call: Some("Rested: lift the jars"),
            good: Some(good),
            ..self.still(Figure::Word { word: "Lift" }, words, &[(BoilEvent::Lifted, Look::Done)])
        }
    }

    fn resting(&self, since: Moment, ends: Moment) -> Said {
        if self.load.clock.ended_short(self.now) {
            return self.rested();
        }
        let words = if self.load.batch.method.is_pressure() {
            "The pressure is down: wait before the lid is opened, away from you."
        } else {
            "Heat off, lid off: the jars rest before they are lifted."
        };
        Said {
            figure: Figure::Left { since, ends },
            words: words.to_owned(),
            running: true,
            call: None,
            ..self.rested()
        }
    }

    /// What a phase says, and what it turns into by itself when its time is over.
    fn said(&self, phase: Phase) -> (Said, Option<Said>) {
        match phase {
            Phase::Waiting => {
                let said = self.still(self.whole(), self.words().goes_in, &[]);
                (Said { touches: self.goes_in(), ..said }, None)
            }
            Phase::Heating { since } => (self.heating(since), None),
            Phase::Venting { since, ends } => {
                let words = "of venting left: steam drives the air out. Then the weight goes on.";
                let venting = self.still(Figure::Left { since, ends }, words, &[]);
                (Said { boiling: true, running: true, ..venting }, Some(self.vented()))
            }
            Phase::Vented { .. } => (self.vented(), None),
            Phase::Counting { since, ends } => (self.counting(since, ends), Some(self.time_up())),
            Phase::TimeUp { .. } => (self.time_up(), None),
            Phase::Unwatched { since, .. } => (self.unwatched(since), None),
            Phase::BoilLost { .. } => {
                let first = [(BoilEvent::Boils, Look::Heat), (BoilEvent::HeatOff, Look::Plain)];
                let is_dry = self.load.clock.last_said().is_some_and(|last| last.event == BoilEvent::RanDry);
                let words = if is_dry { RAN_DRY } else { self.words().lost };
                let lost = self.still(self.whole(), words, &self.with_water(&first));
                let lacks = Lacks::All { minutes: self.load.clock.required() };
                (self.off_too_early(Said { running: true, ..lost }, lacks), None)
            }
            Phase::Dropping { .. } if self.load.clock.ended_short(self.now) => {
                let touches = [(BoilEvent::HeatAgain, Look::Main), (BoilEvent::PressureDown, Look::Plain)];
                (Said { running: true, ..self.not_processed(&touches) }, None)
            }
            Phase::Dropping { .. } => {
                let words = "The pressure drops by itself. When it is down, take the weight off.";
                let touches = [(BoilEvent::PressureDown, Look::Main)];
                let dropping = self.still(Figure::Word { word: "Wait" }, words, &touches);
                (Said { running: true, ..dropping }, None)
            }
            Phase::Resting { since, ends } => (self.resting(since, ends), Some(self.rested())),
            Phase::Rested { .. } => (self.rested(), None),
            Phase::Lifted { .. } if self.load.clock.ended_short(self.now) => (self.not_processed(&[]), None),
            Phase::Lifted { .. } => {
                (self.still(Figure::Word { word: "Out" }, "The jars are on the towel.", &[]), None)
            }
        }
    }
}

/// What a load's phase says at a moment, and what it turns into by itself when its time is over.
#[must_use]
pub fn said(load: &CannerLoad, come_up: Option<Time>, now: Moment) -> (Said, Option<Said>) {
    Speaker { load, come_up, now }.said(load.clock.phase(now))
}
