//! The waiting loads of one canner, put together anew.

use crate::canner::room::room_of;
use bodega_model::canner::outline::Outsides;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::LoadId;
use bodega_model::measures::moment::Minutes;
use bodega_model::records::canner::Canner;
use bodega_model::records::jar::Jar;
use bodega_model::records::load::{CannerLoad, NewGroup};
use bodega_model::tables::process::Refusal;

use super::loads::{Group, LoadPlan, group, why};
use super::room::NoRoom;

/// How waiting loads would go together in the least time.
#[derive(Debug, Clone, PartialEq)]
pub struct Regrouping {
    /// The loads as they are.
    pub loads: Vec<LoadId>,
    /// Canner minutes as they are, turnarounds with them.
    pub now: Minutes,
    /// The loads put together anew.
    pub best: Vec<NewGroup>,
    /// How long those take, and the bound.
    pub plan: LoadPlan,
    /// Why, in one line.
    pub why: String,
}

/// Why loads cannot be put together.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoRegrouping {
    /// A jar has no tested process at this altitude.
    #[error("{}", .0.message)]
    Refused(Refusal),
    /// The canner's capacity for a size is not known.
    #[error(transparent)]
    NoRoom(#[from] NoRoom),
}

/// Puts the waiting loads of a canner together anew; under pressure only those at the first one's pressure. `None` when
/// none waits.
///
/// # Errors
/// [`NoRegrouping`].
pub fn regroup(
    open: Vec<CannerLoad>,
    canner: &Canner,
    outsides: &Outsides,
    altitude: Altitude,
    turnaround: Minutes,
) -> Result<Option<Regrouping>, NoRegrouping> {
    let mut loads: Vec<CannerLoad> = open
        .into_iter()
        .filter(|load| load.canner.id == canner.id && !load.clock.has_begun() && !load.jars.is_empty())
        .collect();
    let Some(psi) = loads.first().map(|load| load.psi) else { return Ok(None) };
    loads.retain(|load| load.psi == psi);
    let mut groups: Vec<Group> = Vec::new();
    let mut members: Vec<Vec<&Jar>> = Vec::new();
    for (load, jar) in loads.iter().flat_map(|load| load.jars.iter().map(move |jar| (load, jar))) {
        let tested = load.own_process(jar, altitude).map_err(NoRegrouping::Refused)?;
        let is_like = |group: &Group| group.jar == jar.size && group.minutes == tested.minutes;
        let place = groups.iter().position(is_like).unwrap_or_else(|| {
            groups.push(Group { jar: jar.size, minutes: tested.minutes, count: 0 });
            members.push(Vec::new());
            groups.len() - 1
        });
        groups[place].count += 1;
        members[place].push(jar);
    }
    let room = &room_of(canner, outsides);
    let plan = group(&groups, room, turnaround)?;
    let mut waiting: Vec<std::vec::IntoIter<&Jar>> = members.into_iter().map(Vec::into_iter).collect();
    let best = plan.loads.iter().filter_map(|load| {
        let mut jars: Vec<&Jar> = Vec::new();
        for (place, count) in &load.jars {
            jars.extend(waiting[*place].by_ref().take(*count as usize));
        }
        let batch = jars.first()?.batch;
        Some(NewGroup { batch, minutes: load.minutes, psi, jars: jars.iter().map(|jar| jar.id).collect() })
    });
    Ok(Some(Regrouping {
        best: best.collect(),
        loads: loads.iter().map(|load| load.id).collect(),
        now: Minutes(loads.iter().map(|load| load.clock.required().0 + turnaround.0).sum()),
        why: why(&groups, &plan, room, turnaround),
        plan,
    }))
}
