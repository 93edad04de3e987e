//! The waiting loads of one canner, put together anew.

use actix_web::{get, put, web};
use bodega_core::canner::regroup::{NoRegrouping, Regrouping, regroup as regroup_loads};
use bodega_model::measures::moment::Minutes;
use serde::Serialize;
use utoipa::ToSchema;

use crate::canner::routes::views;
use crate::canner::view::LoadView;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, altitude_of, change, off_thread, read};

/// The waiting loads of one canner, put together anew.
#[derive(Debug, Serialize, ToSchema)]
pub struct GroupingView {
    /// Loads as they are.
    pub loads_now: usize,
    /// Canner minutes as they are, turnarounds with them.
    pub minutes_now: u32,
    /// Loads put together anew.
    pub loads_best: usize,
    /// Canner minutes of those.
    pub minutes_best: u32,
    /// Proven: no grouping takes less.
    pub lower_bound_minutes: u32,
    /// Why this grouping, in one line.
    pub why: String,
}

pub(crate) async fn grouping(shared: &web::Data<Shared>) -> Result<Option<Regrouping>, ApiError> {
    let (kitchen, loads) =
        read(shared, |shared| Ok((shared.store.kitchen()?, shared.store.open_loads()?))).await?;
    let turnaround = Minutes(kitchen.turnaround_minutes);
    off_thread(move || {
        let altitude = altitude_of(&kitchen)?;
        regroup_loads(loads, &kitchen.canner, &kitchen.outsides(), altitude, turnaround).map_err(|error| {
            match error {
                NoRegrouping::Refused(_) => ApiError::field("altitude_ft", error),
                NoRegrouping::NoRoom(_) => ApiError::field("capacity", error),
            }
        })
    })
    .await?
}

/// How the waiting loads of every batch would go together in the least time; `null` when none waits.
#[utoipa::path(responses((status = 200, body = Option<GroupingView>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[get("/api/loads/grouping")]
pub async fn get_grouping(shared: web::Data<Shared>) -> Result<web::Json<Option<GroupingView>>, ApiError> {
    let view = grouping(&shared).await?.map(|grouping| GroupingView {
        loads_now: grouping.loads.len(),
        minutes_now: grouping.now.0,
        loads_best: grouping.best.len(),
        minutes_best: grouping.plan.total.0,
        lower_bound_minutes: grouping.plan.lower_bound.0,
        why: grouping.why,
    });
    Ok(web::Json(view))
}

/// Puts the waiting loads together anew.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[put("/api/loads/grouping")]
pub async fn regroup(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    let grouping = grouping(&shared).await?;
    let done = change(&shared, Topic::Canner, move |shared| {
        if let Some(grouping) = grouping {
            shared.store.regroup(&grouping.loads, &grouping.best)?;
        }
        views(shared, shared.store.open_loads()?)
    });
    Ok(web::Json(done.await?))
}
