//! The line on top of every screen: what calls somebody back, whichever station is open.

use bodega_model::canner::events::Phase;
use bodega_model::kettle::words::TargetKind;
use bodega_model::kitchen::ways::HeatIn;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::Temperature;
use bodega_model::records::load::CannerLoad;
use serde::Serialize;

use crate::canner::beside::waits_too_long_from;
use crate::canner::moment::said;
use crate::canner::probe::Suggestion;
use crate::kettle::goal::{Held, Timer, held};
use crate::plan::checklist::Station;
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
    /// Where it is answered.
    pub station: Station,
}

impl Call {
    fn new(station: Station, text: impl Into<String>, from: Moment) -> Self {
        Self { text: text.into(), from, once: false, station }
    }

    fn once(station: Station, text: impl Into<String>, from: Moment) -> Self {
        Self { once: true, ..Self::new(station, text, from) }
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
    let at_once = here.call.into_iter().chain(probe).map(|text| Call::new(Station::Canner, name(text), now));
    let look = here.look_again.filter(|_| load.water_asked);
    let look = look
        .map(|from| Call::once(Station::Canner, name("Half time: look at the water over the lids"), from));
    let later = then.and_then(|then| then.call).zip(ends(phase));
    let later = later.map(|(text, ends)| Call::new(Station::Canner, name(text), ends));
    at_once.chain(later).chain(look).collect()
}

/// Filled jars on the bench: hot packs go in at once.
#[must_use]
pub fn of_bench(load: &CannerLoad) -> Option<Call> {
    Some(Call::once(Station::Jars, "Filled jars wait for the canner", waits_too_long_from(load)?))
}

/// A kettle on the stove, as far as it calls for somebody.
#[derive(Debug, Clone, PartialEq)]
pub struct Cooking {
    /// What the household calls it.
    pub name: String,
    /// What its target means.
    pub goal: TargetKind,
    /// The clock of a goal that has one.
    pub timer: Option<Timer>,
    /// When it is done.
    pub finish: Moment,
    /// What a probe in it reads.
    pub temp: Option<Temperature>,
}

/// What a kettle calls for: its mark at its expected finish, the end of its time once that runs, and what a probe says of
/// juice that is to be held hot; never of anything else. With several kettles each names itself.
#[must_use]
pub fn of_kettle(
    cooking: &Cooking,
    between: (Temperature, Temperature),
    heat: HeatIn,
    is_one: bool,
    now: Moment,
) -> Vec<Call> {
    let name = |text: String| {
        if is_one {
            text
        } else {
            format!("{}: {}", cooking.name, text.replacen("The kettle is", "It is", 1))
        }
    };
    let done = match (cooking.goal, cooking.timer) {
        (TargetKind::HoldMinutes, Some(timer)) => timer.since.map(|_| "The juice was held hot for its time"),
        (TargetKind::BoilMinutes, Some(timer)) => timer.since.map(|_| "It has simmered for its time"),
        (TargetKind::ToBoil, Some(timer)) => timer.since.map(|_| "It boils: take it off and fill"),
        _ => Some("The kettle is at its mark"),
    };
    let done = done.map(|text| Call::new(Station::Kettle, name(text.to_owned()), cooking.finish));
    let holds = cooking.goal == TargetKind::HoldMinutes;
    let probe = cooking.temp.filter(|_| holds).and_then(|temp| match held(temp, between) {
        // Its clock runs, and it is not as hot as it was.
        Held::Cool => cooking
            .timer
            .is_some_and(|timer| timer.since.is_some())
            .then(|| format!("The juice fell under {}: turn it up", heat.text(between.0))),
        Held::Hot => {
            // Once its clock runs it is known to be hot.
            let is_news = cooking.timer.is_some_and(|timer| timer.since.is_none());
            is_news.then(|| format!("The juice is at {}: hot enough", heat.text(between.0)))
        }
        Held::TooHot => Some(format!("The juice is at {}: turn it down", heat.text(between.1))),
    });
    done.into_iter().chain(probe.map(|text| Call::once(Station::Kettle, name(text), now))).collect()
}

/// Jars on the towel with something wrong that cannot wait; a lid that failed waits for whoever looks at lids.
#[must_use]
pub fn of_towel(wrong: Wrong, since: Moment) -> Option<Call> {
    let text = match wrong {
        Wrong::Unprocessed => "Jars on the towel are not processed",
        Wrong::Undosed => "Jars on the towel have no acid",
        Wrong::Stopped => "Jars that must not go on the shelf",
        Wrong::Lid => return None,
    };
    Some(Call::once(Station::Towel, text, since))
}

/// The lids that may be looked at from a moment on.
#[must_use]
pub fn of_lids(check_from: Moment) -> Call {
    Call::once(Station::Towel, "The lids can be checked", check_from)
}
