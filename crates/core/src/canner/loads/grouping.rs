//! The loads of least total time, and why they are as they are.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Minutes;

use super::super::room::{NoRoom, Room};
use super::load::{Group, Load, LoadPlan};
use super::search::Search;

/// Groups jars into loads of least total time.
///
/// Exact: some load must hold the longest-timed jar that is left; a load that holds it may be filled up for free, and of
/// two jars of one size the longer-timed goes first, because swapping them lengthens nothing. So a state is the count
/// left of each size, and the search tries every maximal filling that holds the longest jar. It looks for a plan that takes
/// no longer than a budget, from the proven bound on, and follows nothing whose own bound lies beyond it. When that takes
/// too many steps, looser budgets are tried, and `lower_bound` says how far off the best plan can be.
///
/// # Errors
/// [`NoRoom`] for a jar size the canner has no room for.
pub fn group(groups: &[Group], room: &dyn Room, turnaround: Minutes) -> Result<LoadPlan, NoRoom> {
    Search::new(groups, room, turnaround).map(Search::run)
}

/// Every way to fill a canner with jars of these sizes so that not one more goes in, as jars of each size.
///
/// # Errors
/// As [`group`].
pub fn fillings(sizes: &[JarSize], room: &dyn Room) -> Result<Vec<Vec<u32>>, NoRoom> {
    let full = |size: &JarSize| Ok(Group { jar: *size, minutes: Minutes(0), count: room.most_of(*size)? });
    let groups = sizes.iter().map(full).collect::<Result<Vec<_>, NoRoom>>()?;
    Search::new(&groups, room, Minutes(0)).map(Search::all_fillings)
}

/// Why a grouping is as it is, in one line.
#[must_use]
pub fn why(groups: &[Group], plan: &LoadPlan, room: &dyn Room, turnaround: Minutes) -> String {
    let in_use = || groups.iter().filter(|group| group.count > 0);
    let mut times: Vec<u32> = in_use().map(|group| group.minutes.0).collect();
    times.sort_unstable();
    times.dedup();
    let loads = plan.loads.len();
    if loads <= 1 {
        return "One load holds them all.".to_owned();
    }
    let [least, .., most] = times[..] else {
        let minutes = times.first().copied().unwrap_or_default();
        return format!("All need {minutes} min, and {loads} loads are the fewest that hold them.");
    };
    let is_mixed = |load: &Load| load.jars.iter().any(|(index, _)| groups[*index].minutes != load.minutes);
    if !plan.loads.iter().any(is_mixed) {
        return format!(
            "Kept apart by time: together, jars of {least} min would get up to {most} min and save no load."
        );
    }
    let apart: Option<u32> = times
        .iter()
        .map(|minutes| {
            let alike: Vec<Group> = in_use().filter(|group| group.minutes.0 == *minutes).copied().collect();
            self::group(&alike, room, turnaround).ok().map(|plan| plan.total.0)
        })
        .sum();
    let saved = apart.map_or(0, |apart| apart.saturating_sub(plan.total.0));
    format!(
        "Short jars ride along for the longest time: in loads of their own the day would take {saved} min more."
    )
}
