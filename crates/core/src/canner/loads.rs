//! Which jars go into the canner together, so that the canner is busy for the shortest time.
//!
//! What goes in together is the [`Room`]'s to say. Every jar in a load gets the longest time any of them needs (common
//! practice, no source; it follows from "never shorter than tested").

use std::collections::HashMap;

use super::room::{NoRoom, Room, Shares};
use crate::jars::size::JarSize;
use crate::measures::moment::Minutes;

/// Like jars that need the same time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Group {
    /// Size of jar.
    pub jar: JarSize,
    /// Tested time.
    pub minutes: Minutes,
    /// How many.
    pub count: u32,
}

/// One filling of the canner.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Load {
    /// Index into the groups asked about, and how many of it go in.
    pub jars: Vec<(usize, u32)>,
    /// The longest time among the jars.
    pub minutes: Minutes,
}

/// Loads with the time they take together and the time no grouping can beat.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LoadPlan {
    /// Longest first.
    pub loads: Vec<Load>,
    /// Sum of the loads' minutes and one turnaround for each.
    pub total: Minutes,
    /// Proven: no grouping takes less. Equal to `total` when the plan is proven shortest.
    pub lower_bound: Minutes,
}

/// States the exact search may visit before it settles for the best plan found.
const STATE_LIMIT: usize = 300_000;
/// Fillings it may try: with many sizes it is these that take the time. Counted and not timed, so that the same question
/// has the same answer everywhere; together they keep it to about a second.
const TRY_LIMIT: u64 = 8_000_000;

/// Groups jars into loads of least total time.
///
/// Exact: some load must hold the longest-timed jar that is left; a load that holds it may be filled up for free, and of
/// two jars of one size the longer-timed goes first, because swapping them lengthens nothing. So a state is the count
/// left of each size, and the search tries every maximal filling that holds the longest jar. When it would visit too
/// many states, the plan is the best found and `lower_bound` says how far off it can be.
///
/// # Errors
/// [`NoRoom`] for a jar size the canner has no room for.
pub fn group(groups: &[Group], room: &dyn Room, turnaround: Minutes) -> Result<LoadPlan, NoRoom> {
    let mut search = Search::new(groups, room, turnaround)?;
    let start: Vec<usize> = vec![0; search.lanes.len()];
    let bound = search.bound(&start);
    let total = search.best(&start);
    let loads = search.unroll(start);
    let lower_bound = if search.cut { bound } else { total };
    Ok(LoadPlan { loads, total: Minutes(total), lower_bound: Minutes(lower_bound) })
}

/// Jars of one size, longest time first.
struct Lane {
    size: JarSize,
    share: u64,
    /// Index of the group and minutes, for each jar.
    jars: Vec<(usize, u32)>,
}

struct Search<'a> {
    room: &'a dyn Room,
    lanes: Vec<Lane>,
    /// The whole canner, in the unit of the lanes' shares.
    whole: u64,
    turnaround: u32,
    /// Distinct times, longest first.
    times: Vec<u32>,
    /// Least minutes from a state on, with the filling that reaches it.
    known: HashMap<Vec<usize>, (u32, Vec<usize>)>,
    /// Fillings that were tried, and whether the canner holds them.
    tried: HashMap<Vec<usize>, bool>,
    /// How many fillings were tried, known ones too.
    tries: u64,
    /// Whether a limit kept the search from trying everything.
    cut: bool,
}

impl<'a> Search<'a> {
    fn new(groups: &[Group], room: &'a dyn Room, turnaround: Minutes) -> Result<Self, NoRoom> {
        let mut sizes: Vec<JarSize> =
            groups.iter().filter(|group| group.count > 0).map(|group| group.jar).collect();
        sizes.sort_unstable();
        sizes.dedup();
        let Shares { whole, each } = room.shares(&sizes)?;
        let lanes = sizes
            .iter()
            .zip(each)
            .map(|(size, share)| {
                let mut jars: Vec<(usize, u32)> = groups
                    .iter()
                    .enumerate()
                    .filter(|(_, group)| group.jar == *size)
                    .flat_map(|(index, group)| (0..group.count).map(move |_| (index, group.minutes.0)))
                    .collect();
                jars.sort_by_key(|(index, minutes)| (std::cmp::Reverse(*minutes), *index));
                Lane { size: *size, share, jars }
            })
            .collect();
        let mut times: Vec<u32> =
            groups.iter().filter(|group| group.count > 0).map(|group| group.minutes.0).collect();
        times.sort_unstable_by(|a, b| b.cmp(a));
        times.dedup();
        Ok(Self {
            room,
            lanes,
            whole,
            turnaround: turnaround.0,
            times,
            known: HashMap::new(),
            tried: HashMap::new(),
            tries: 0,
            cut: false,
        })
    }

    /// Proven bound: the jars that need at least `t` minutes fill at least so many loads, for every `t`.
    fn bound(&self, taken: &[usize]) -> u32 {
        let mut total = 0;
        for (place, time) in self.times.iter().enumerate() {
            let share: u64 = self
                .lanes
                .iter()
                .zip(taken)
                .map(|(lane, from)| {
                    let upto = lane.jars.partition_point(|(_, minutes)| minutes >= time);
                    lane.share * (upto.saturating_sub(*from) as u64)
                })
                .sum();
            let loads = u32::try_from(share.div_ceil(self.whole)).unwrap_or(u32::MAX);
            let next = self.times.get(place + 1).copied();
            // Each load of this level costs the step down to the next shorter time; the last level also its turnaround.
            total += loads * next.map_or(time + self.turnaround, |shorter| time - shorter);
        }
        total
    }

    fn longest_lane(&self, taken: &[usize]) -> Option<(usize, u32)> {
        (0..self.lanes.len())
            .filter_map(|lane| self.lanes[lane].jars.get(taken[lane]).map(|(_, minutes)| (lane, *minutes)))
            .max_by_key(|(lane, minutes)| (*minutes, std::cmp::Reverse(*lane)))
    }

    /// Least minutes from this state on, or the least found before the state limit cut the search.
    fn best(&mut self, taken: &[usize]) -> u32 {
        let Some((longest, minutes)) = self.longest_lane(taken) else { return 0 };
        if let Some((known, _)) = self.known.get(taken) {
            return *known;
        }
        let bound = self.bound(taken);
        let mut best: Option<(u32, Vec<usize>)> = None;
        for filling in self.fillings(taken, longest) {
            if best.is_some() && (self.known.len() >= STATE_LIMIT || self.tries >= TRY_LIMIT) {
                self.cut = true;
                break;
            }
            let after: Vec<usize> = taken.iter().zip(&filling).map(|(from, more)| from + more).collect();
            let cost = minutes + self.turnaround + self.best(&after);
            if best.as_ref().is_none_or(|(least, _)| cost < *least) {
                best = Some((cost, filling));
            }
            if cost == bound {
                break;
            }
        }
        let (cost, filling) = best.expect("the longest jar always fits by itself");
        self.known.insert(taken.to_vec(), (cost, filling));
        cost
    }

    /// Whether the canner holds so many jars of each lane.
    fn holds(&mut self, filling: &[usize]) -> bool {
        self.tries += 1;
        if let Some(known) = self.tried.get(filling) {
            return *known;
        }
        let count = |jars: usize| u32::try_from(jars).unwrap_or(u32::MAX);
        let jars: Vec<(JarSize, u32)> =
            self.lanes.iter().zip(filling).map(|(lane, jars)| (lane.size, count(*jars))).collect();
        let held = self.room.holds(&jars);
        self.tried.insert(filling.to_vec(), held);
        held
    }

    /// Every maximal filling that holds a jar of the lane `must`, fullest first.
    fn fillings(&mut self, taken: &[usize], must: usize) -> Vec<Vec<usize>> {
        let mut found = Vec::new();
        let mut filling = vec![0; self.lanes.len()];
        self.extend(taken, must, 0, self.whole, &mut filling, &mut found);
        found.sort_by_key(|filling: &Vec<usize>| {
            std::cmp::Reverse(
                filling.iter().zip(&self.lanes).map(|(count, lane)| lane.share * *count as u64).sum::<u64>(),
            )
        });
        found
    }

    fn extend(
        &mut self,
        taken: &[usize],
        must: usize,
        lane: usize,
        room: u64,
        filling: &mut Vec<usize>,
        found: &mut Vec<Vec<usize>>,
    ) {
        if lane == self.lanes.len() {
            if filling[must] > 0 && !(0..lane).any(|more| self.could_add(taken, more, filling)) {
                found.push(filling.clone());
            }
            return;
        }
        let share = self.lanes[lane].share;
        let left = self.lanes[lane].jars.len() - taken[lane];
        let fits = usize::try_from(room / share).unwrap_or(usize::MAX);
        for count in (0..=left.min(fits)).rev() {
            filling[lane] = count;
            if self.holds(filling) {
                self.extend(taken, must, lane + 1, room - share * count as u64, filling, found);
            }
        }
        filling[lane] = 0;
    }

    fn could_add(&mut self, taken: &[usize], lane: usize, filling: &mut [usize]) -> bool {
        if taken[lane] + filling[lane] >= self.lanes[lane].jars.len() {
            return false;
        }
        filling[lane] += 1;
        let could = self.holds(filling);
        filling[lane] -= 1;
        could
    }

    fn unroll(&mut self, mut taken: Vec<usize>) -> Vec<Load> {
        let mut loads = Vec::new();
        while let Some((longest, minutes)) = self.longest_lane(&taken) {
            let known = self.known.get(&taken).map(|(_, filling)| filling.clone());
            let filling = known.unwrap_or_else(|| self.fillings(&taken, longest).swap_remove(0));
            let mut jars: Vec<(usize, u32)> = Vec::new();
            for (lane, count) in filling.iter().enumerate() {
                for (index, _) in &self.lanes[lane].jars[taken[lane]..taken[lane] + count] {
                    match jars.iter_mut().find(|(group, _)| group == index) {
                        Some((_, held)) => *held += 1,
                        None => jars.push((*index, 1)),
                    }
                }
                taken[lane] += count;
            }
            jars.sort_unstable();
            loads.push(Load { jars, minutes: Minutes(minutes) });
        }
        loads
    }
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
