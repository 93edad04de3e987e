//! What a comparison or a split is laid out on.

use actix_web::web;
use bodega_core::canner::room::CannerRoom;
use bodega_core::canner::room::room_of;
use bodega_core::plan::yields::learn::Household;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::LotId;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::lot::Lot;
use bodega_model::records::shelf::Goal;
use bodega_model::records::stock::Cupboard;

use crate::plan::ground::waiting_lots;
use crate::problem::ApiError;
use crate::state::{Shared, altitude_of, read};

pub(crate) struct Table {
    pub(crate) kitchen: Kitchen,
    pub(crate) altitude: Altitude,
    pub(crate) room: CannerRoom,
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
        room: room_of(&kitchen.canner, &kitchen.outsides()),
        household: Household { finished },
        lots: waiting_lots(&all, lots)?,
        kitchen,
        cupboard,
        goals,
    })
}
