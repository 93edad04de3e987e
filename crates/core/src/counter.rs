//! The line on top of every screen: what calls somebody back, whichever station is open.

use serde::Serialize;

use crate::canner::beside::waits_too_long_from;
use crate::canner::events::Phase;
use crate::canner::moment::said;
use crate::canner::probe::Suggestion;
use crate::measures::moment::Moment;
use crate::records::load::CannerLoad;
use crate::towel::seal::Wrong;

/// Something that calls somebody back.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Call {
    /// What is said.
    pub text: String,
    /// From when on.
    pub from: Moment,
    /// Said once, and not again until it is dealt with.
    pub once: bool,
}

impl Call {
    fn new(text: impl Into<String>, from: Moment) -> Self {
        Self { text: text.into(), from, once: false }
    }

    fn once(text: impl Into<String>, from: Moment) -> Self {
        Self { text: text.into(), from, once: true }
    }
}

/// When the time that runs in a phase is over.
const fn ends(phase: Phase) -> Option<Moment> {
    match phase {
        Phase::Counting { ends, .. } | Phase::Venting { ends, .. } | Phase::Resting { ends, .. } => {
            Some(ends)
        }
        _ => None,
    }
}

/// What a load in a canner calls for now, or will when its time is over. With several canners each names itself.
#[must_use]
pub fn of_canner(load: &CannerLoad, suggests: Option<Suggestion>, is_one: bool, now: Moment) -> Vec<Call> {
    let phase = load.clock.phase(now);
    let (here, then) = said(load, None, now);
    let probe = match (phase, suggests) {
        (Phase::Counting { .. }, Some(Suggestion::BoilLost)) => Some("The probe fell: look for the boil"),
        (Phase::Heating { .. } | Phase::BoilLost { .. }, Some(Suggestion::Boils)) => {
            Some("The probe holds the boil: look")
        }
        _ => None,
    };
    let name = |text: &str| if is_one { text.to_owned() } else { format!("{}: {text}", load.canner.name) };
    let at_once = here.call.into_iter().chain(probe).map(|text| Call::new(name(text), now));
    let later = then.and_then(|then| then.call).zip(ends(phase));
    at_once.chain(later.map(|(text, ends)| Call::new(name(text), ends))).collect()
}

/// Filled jars on the bench: hot packs go in at once.
#[must_use]
pub fn of_bench(load: &CannerLoad) -> Option<Call> {
    Some(Call::once("Filled jars wait for the canner", waits_too_long_from(load)?))
}

/// Juice is held between these, in degrees Celsius: 190 and 200 °F. Common practice, no source.
const HOLD_FROM_C: f64 = 87.8;
const HOLD_TO_C: f64 = 93.3;

/// What a kettle calls for: its mark at its expected finish, and what a probe in it reads.
#[must_use]
pub fn of_kettle(finish: Moment, temp_c: Option<f64>, now: Moment) -> Vec<Call> {
    let hot = match temp_c {
        Some(celsius) if celsius >= HOLD_TO_C => Some("The kettle is at 200 °F, 93 °C: turn it down"),
        Some(celsius) if celsius >= HOLD_FROM_C => Some("The kettle is at 190 °F, 88 °C"),
        _ => None,
    };
    let mark = Call::new("The kettle is at its mark", finish);
    std::iter::once(mark).chain(hot.map(|text| Call::once(text, now))).collect()
}

/// Jars on the towel with something wrong that cannot wait; a lid that failed waits for whoever looks at lids.
#[must_use]
pub fn of_towel(wrong: Wrong, since: Moment) -> Option<Call> {
    let text = match wrong {
        Wrong::Unprocessed => "Jars on the towel are not processed",
        Wrong::Undosed => "Jars on the towel have no acid",
        Wrong::Lid => return None,
    };
    Some(Call::once(text, since))
}

/// The lids that may be looked at from a moment on.
#[must_use]
pub fn of_lids(check_from: Moment) -> Call {
    Call::once("The lids can be checked", check_from)
}
