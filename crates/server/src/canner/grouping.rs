//! The waiting loads of one canner, put together anew.

use actix_web::{get, post, web};
use bodega_core::canner::loads::{Group, LoadPlan, group, why};
use bodega_core::measures::ids::LoadId;
use bodega_core::measures::moment::Minutes;
use bodega_core::records::jar::Jar;
use bodega_core::records::kitchen::Kitchen;
use bodega_core::records::load::{CannerLoad, NewGroup};
use serde::Serialize;
use utoipa::ToSchema;

use crate::canner::routes::views;
use crate::canner::view::LoadView;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, altitude_of, change, read};

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

pub(crate) struct Grouping {
    pub(crate) loads: Vec<LoadId>,
    pub(crate) now: u32,
    pub(crate) best: Vec<NewGroup>,
    pub(crate) plan: LoadPlan,
    pub(crate) why: String,
}

/// Jars of the waiting loads in the canner that is planned for; under pressure only those at the first one's pressure.
pub(crate) fn work_out_grouping(
    kitchen: &Kitchen,
    all: Vec<CannerLoad>,
) -> Result<Option<Grouping>, ApiError> {
    let altitude = altitude_of(kitchen)?;
    let mut loads: Vec<CannerLoad> = all
        .into_iter()
        .filter(|load| load.canner.id == kitchen.canner.id && !load.clock.has_begun())
        .filter(|load| !load.jars.is_empty())
        .collect();
    let psi = loads.first().and_then(|load| load.psi);
    loads.retain(|load| load.psi == psi);
    let mut groups: Vec<Group> = Vec::new();
    let mut members: Vec<Vec<&Jar>> = Vec::new();
    for (load, jar) in loads.iter().flat_map(|load| load.jars.iter().map(move |jar| (load, jar))) {
        let tested = load
            .own_process(jar, altitude)
            .map_err(|refusal| ApiError::field("altitude_ft", refusal.message))?;
        let like = Group { jar: jar.size, minutes: tested.minutes, count: 0 };
        let place = groups.iter().position(|group| group.jar == like.jar && group.minutes == like.minutes);
        let place = place.unwrap_or_else(|| {
            groups.push(like);
            members.push(Vec::new());
            groups.len() - 1
        });
        groups[place].count += 1;
        members[place].push(jar);
    }
    let capacity = kitchen.canner.capacities();
    let turnaround = Minutes(kitchen.turnaround_minutes);
    let plan = group(&groups, &capacity, turnaround).map_err(|error| ApiError::field("capacity", error))?;
    let mut waiting: Vec<std::vec::IntoIter<&Jar>> = members.into_iter().map(Vec::into_iter).collect();
    let best = plan
        .loads
        .iter()
        .filter_map(|load| {
            let jars: Vec<&Jar> = load
                .jars
                .iter()
                .flat_map(|(place, count)| waiting[*place].by_ref().take(*count as usize).collect::<Vec<_>>())
                .collect();
            let batch = jars.first()?.batch;
            let jars = jars.iter().map(|jar| jar.id).collect();
            Some(NewGroup { batch, minutes: load.minutes, psi, jars })
        })
        .collect();
    let now = loads.iter().map(|load| load.clock.required().0 + turnaround.0).sum();
    let why = why(&groups, &plan, &capacity, turnaround);
    Ok((!loads.is_empty()).then(|| Grouping {
        loads: loads.iter().map(|load| load.id).collect(),
        now,
        best,
        plan,
        why,
    }))
}

pub(crate) async fn grouping(shared: &web::Data<Shared>) -> Result<Option<Grouping>, ApiError> {
    let (kitchen, loads) =
        read(shared, |shared| Ok((shared.store.kitchen()?, shared.store.open_loads()?))).await?;
    work_out_grouping(&kitchen, loads)
}

/// How the waiting loads of every batch would go together in the least time; `null` when none waits.
#[utoipa::path(responses((status = 200, body = Option<GroupingView>), (status = 409, body = Problem)))]
#[get("/api/loads/grouping")]
pub async fn get_grouping(shared: web::Data<Shared>) -> Result<web::Json<Option<GroupingView>>, ApiError> {
    let view = grouping(&shared).await?.map(|grouping| GroupingView {
        loads_now: grouping.loads.len(),
        minutes_now: grouping.now,
        loads_best: grouping.best.len(),
        minutes_best: grouping.plan.total.0,
        lower_bound_minutes: grouping.plan.lower_bound.0,
        why: grouping.why,
    });
    Ok(web::Json(view))
}

/// Puts the waiting loads together anew.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>), (status = 409, body = Problem)))]
#[post("/api/loads/grouping")]
pub async fn regroup(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    let grouping = grouping(&shared).await?;
    let done = change(&shared, move |shared| {
        if let Some(grouping) = grouping {
            shared.store.regroup(&grouping.loads, &grouping.best)?;
        }
        views(shared, shared.store.open_loads()?)
    });
    Ok(web::Json(done.await?))
}
