//! What a comparison or a split is laid out on.

use actix_web::web;
use bodega_core::canner::loads::Capacity;
use bodega_core::jars::acid::{self, Agent};
use bodega_core::jars::size::JarSize;
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::ids::LotId;
use bodega_core::plan::yields::learn::Household;
use bodega_core::records::kitchen::Kitchen;
use bodega_core::records::lot::Lot;
use bodega_core::records::shelf::Goal;
use bodega_core::records::stock::Cupboard;

use crate::plan::ground::waiting_lots;
use crate::problem::ApiError;
use crate::state::{Shared, altitude_of, read};

pub(crate) struct Table {
    pub(crate) kitchen: Kitchen,
    pub(crate) altitude: Altitude,
    pub(crate) capacity: Vec<Capacity>,
    pub(crate) household: Household,
    pub(crate) cupboard: Cupboard,
    pub(crate) goals: Vec<Goal>,
    pub(crate) lots: Vec<Lot>,
}

pub(crate) async fn set_table(shared: &web::Data<Shared>, lots: &[LotId]) -> Result<Table, ApiError> {
    let (kitchen, all, finished, cupboard, goals) = read(shared, |shared| {
        let store = &shared.store;
        Ok((store.kitchen()?, store.lots()?, store.finished()?, store.cupboard()?, store.goals()?))
    })
    .await?;
    Ok(Table {
        altitude: altitude_of(&kitchen)?,
        capacity: kitchen.canner.capacities(),
        household: Household { finished },
        lots: waiting_lots(&all, lots)?,
        kitchen,
        cupboard,
        goals,
    })
}

/// Why a number of jars of one size cannot be filled out of the cupboard, in words.
pub(crate) fn missing(cupboard: &Cupboard, agent: Agent, jar: JarSize, count: u32) -> Vec<String> {
    let mut words = Vec::new();
    let line = cupboard.jars.iter().find(|line| line.jar == jar);
    let mut short = |needed: u32, left: Option<u32>, one: &str| {
        if let Some(short) = left.and_then(|left| needed.checked_sub(left)).filter(|short| *short > 0) {
            words.push(if short == 1 { format!("1 {one}") } else { format!("{short} {one}s") });
        }
    };
    short(count, line.and_then(bodega_core::records::stock::JarStock::left), jar.label());
    let lids = cupboard.lids.iter().find(|lids| line.is_some_and(|line| line.mouth == lids.mouth));
    short(count, lids.and_then(bodega_core::records::stock::LidStock::left), "lid");
    let acid = cupboard.acids.iter().find(|line| line.agent == agent);
    let needed = acid::measured(agent, acid::per_jar(agent, jar).times(count));
    if acid.and_then(bodega_core::records::stock::AcidStock::left).is_some_and(|left| left < needed) {
        words.push(agent.label().to_owned());
    }
    words
}
