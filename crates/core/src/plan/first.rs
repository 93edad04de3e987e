//! The first answer: what so many tomatoes could be, before a kitchen has said anything else.

use bodega_model::crates::fruit::Kind;
use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::{Altitude, WaterBand};
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::measures::teaspoons::Teaspoons;
use bodega_model::measures::units::Mass;
use bodega_model::plan::making::{Making, usual_jar};
use bodega_model::tables::process::{Method, Refusal};
use uom::si::time::minute;

use crate::canner::room::Room;
use crate::plan::outlook;
use crate::plan::outlook::{Ground, Outlook};
use crate::plan::yields::learn::Household;

/// What is known when the first question is asked.
#[derive(Debug, Clone, Copy)]
pub struct FirstGround<'a> {
    /// How the jars are heated.
    pub method: Method,
    /// Height of the kitchen; without it every altitude that has a tested process is answered for.
    pub altitude: Option<Altitude>,
    /// What the canner holds.
    pub room: &'a dyn Room,
    /// Minutes between two loads.
    pub turnaround: Minutes,
    /// Acid of choice.
    pub agent: Agent,
    /// Yields of the household.
    pub household: &'a Household,
}

/// What the tomatoes would be as one product; ranges over what has not been said: the kind of tomatoes, and the altitude
/// when it is not known.
#[derive(Debug, Clone, PartialEq)]
pub struct FirstAnswer {
    /// What.
    pub making: Making,
    /// In which jars.
    pub jar: JarSize,
    /// Full jars.
    pub jars: Range<u32>,
    /// Acid for one jar.
    pub acid: Teaspoons,
    /// Minutes of a load from the least to the most, or why there is no tested process.
    pub minutes: Result<(Minutes, Minutes), Refusal>,
    /// Canner loads for the jars that are expected.
    pub loads: u32,
    /// Minutes of the canner, turnarounds included, from the least to the most.
    pub canner: (Minutes, Minutes),
    /// Hands-on minutes.
    pub hands: Minutes,
    /// Minutes of one burner.
    pub stove: Minutes,
}

/// The altitudes that stand for all that are not known: the upper edge of every band.
fn heights(known: Option<Altitude>) -> Vec<Altitude> {
    known.map_or_else(
        || WaterBand::EDGES_FT.iter().filter_map(|(_, edge)| Altitude::from_feet(*edge).ok()).collect(),
        |altitude| vec![altitude],
    )
}

/// What `mass` of fresh tomatoes could be as one product in its usual jar.
#[must_use]
pub fn first_answer(making: Making, mass: Mass, ground: &FirstGround<'_>) -> FirstAnswer {
    let jar = usual_jar(&making);
    let seen = |kind: Kind, altitude: Altitude| {
        let on = Ground {
            method: ground.method,
            altitude,
            room: ground.room,
            turnaround: ground.turnaround,
            agent: ground.agent,
            household: ground.household,
        };
        outlook::outlook(making, jar, &[Stuff::fruit(kind, mass)], &on)
    };
    let heights = heights(ground.altitude);
    let by_height: Vec<Outlook> = heights.iter().map(|altitude| seen(Kind::Mixed, *altitude)).collect();
    let middle = &by_height[0];
    let kinds: Vec<Outlook> = Kind::TOMATOES.iter().map(|kind| seen(*kind, heights[0])).collect();
    let jars = Range {
        low: kinds.iter().map(|one| one.jars.low).min().unwrap_or(0),
        expected: middle.jars.expected,
        high: kinds.iter().map(|one| one.jars.high).max().unwrap_or(0),
    };
    let times = by_height.iter().map(|one| one.process.as_ref().map(|option| option.minutes));
    let minutes = times.collect::<Result<Vec<Minutes>, _>>().map(|all| ends(&all)).map_err(Clone::clone);
    let canner: Vec<Minutes> = by_height.iter().map(|one| one.canner).collect();
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // minutes of some tonnes of fruit
    let stove = Minutes(middle.stove.get::<minute>().ceil() as u32);
    FirstAnswer {
        making,
        jar,
        jars,
        acid: acid::per_jar(ground.agent, jar),
        minutes,
        loads: middle.loads,
        canner: ends(&canner),
        hands: middle.hands,
        stove,
    }
}

/// The least and the most of some minutes.
fn ends(all: &[Minutes]) -> (Minutes, Minutes) {
    let of = |pick: fn(u32, u32) -> u32| all.iter().map(|one| one.0).reduce(pick).unwrap_or(0);
    (Minutes(of(u32::min)), Minutes(of(u32::max)))
}
