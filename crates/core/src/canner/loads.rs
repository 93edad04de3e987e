//! Which jars go into the canner together, so that the canner is busy for the shortest time.
//!
//! A load fits when its jars' shares of the canner (count over capacity) add up to at most one. Every jar in a load gets
//! the longest time any of them needs (common practice, no source; it follows from "never shorter than tested").

use std::collections::HashMap;

use crate::jars::size::JarSize;
use crate::measures::moment::Minutes;

/// How many jars of one size a canner holds when it holds nothing else.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Capacity {
    /// Size of jar.
    pub jar: JarSize,
    /// Jars of it that fit, at least one.
    pub count: u32,
}

/// Slack for a sum of shares that is exactly one.
const SHARE_SLACK: f64 = 1e-9;

/// Whether a canner holds these jars in one load: the sum of count over capacity is at most one. A size that the canner
/// holds none of never fits.
#[must_use]
pub fn fits(capacity: &[Capacity], jars: &[(JarSize, u32)]) -> bool {
    let share = |(size, count): &(JarSize, u32)| {
        let most = capacity.iter().find(|capacity| capacity.jar == *size && capacity.count > 0);
        most.map_or(f64::INFINITY, |most| f64::from(*count) / f64::from(most.count))
    };
    jars.iter().filter(|(_, count)| *count > 0).map(share).sum::<f64>() <= 1.0 + SHARE_SLACK
}

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

/// The canner's capacity for a jar size is not known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("the canner's capacity for {} is not given; say how many fit", .0.plural())]
pub struct NoCapacity(pub JarSize);

/// States the exact search may visit before it settles for the best plan found; keeps the answer well under a second.
const STATE_LIMIT: usize = 300_000;

/// Groups jars into loads of least total time.
///
/// Exact: some load must hold the longest-timed jar that is left; a load that holds it may be filled up for free, and of
/// two jars of one size the longer-timed goes first, because swapping them lengthens nothing. So a state is the count
/// left of each size, and the search tries every maximal filling that holds the longest jar. When it would visit too
/// many states, the plan is the best found and `lower_bound` says how far off it can be.
///
/// # Errors
/// [`NoCapacity`] for a jar size the canner has no capacity for.
pub fn group(groups: &[Group], capacity: &[Capacity], turnaround: Minutes) -> Result<LoadPlan, NoCapacity> {
    let mut search = Search::new(groups, capacity, turnaround)?;
    let start: Vec<usize> = vec![0; search.lanes.len()];
    let bound = search.bound(&start);
    let total = search.best(&start);
    let loads = search.unroll(start);
    let lower_bound = if search.cut { bound } else { total };
    Ok(LoadPlan { loads, total: Minutes(total), lower_bound: Minutes(lower_bound) })
}

/// Jars of one size, longest time first.
struct Lane {
    share: u64,
    /// Index of the group and minutes, for each jar.
    jars: Vec<(usize, u32)>,
}

struct Search {
    lanes: Vec<Lane>,
    /// The whole canner, in the unit of the lanes' shares.
    whole: u64,
    turnaround: u32,
    /// Distinct times, longest first.
    times: Vec<u32>,
    /// Least minutes from a state on, with the filling that reaches it.
    known: HashMap<Vec<usize>, (u32, Vec<usize>)>,
    /// Whether the state limit kept the search from trying everything.
    cut: bool,
}

impl Search {
    fn new(groups: &[Group], capacity: &[Capacity], turnaround: Minutes) -> Result<Self, NoCapacity> {
        let mut sizes: Vec<JarSize> =
            groups.iter().filter(|group| group.count > 0).map(|group| group.jar).collect();
        sizes.sort_unstable();
        sizes.dedup();
        let held = |jar: JarSize| {
            capacity
                .iter()
                .find(|cap| cap.jar == jar && cap.count > 0)
                .map(|cap| u64::from(cap.count))
                .ok_or(NoCapacity(jar))
        };
        let counts: Vec<u64> = sizes.iter().map(|jar| held(*jar)).collect::<Result<_, _>>()?;
        let whole = counts.iter().copied().fold(1, least_common_multiple);
        let lanes = sizes
            .iter()
            .zip(counts)
            .map(|(size, count)| {
                let mut jars: Vec<(usize, u32)> = groups
                    .iter()
                    .enumerate()
                    .filter(|(_, group)| group.jar == *size)
                    .flat_map(|(index, group)| (0..group.count).map(move |_| (index, group.minutes.0)))
                    .collect();
                jars.sort_by_key(|(index, minutes)| (std::cmp::Reverse(*minutes), *index));
                Lane { share: whole / count, jars }
            })
            .collect();
        let mut times: Vec<u32> =
            groups.iter().filter(|group| group.count > 0).map(|group| group.minutes.0).collect();
        times.sort_unstable_by(|a, b| b.cmp(a));
        times.dedup();
        Ok(Self { lanes, whole, turnaround: turnaround.0, times, known: HashMap::new(), cut: false })
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
            if best.is_some() && self.known.len() >= STATE_LIMIT {
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

    /// Every maximal filling that holds a jar of the lane `must`, fullest first.
    fn fillings(&self, taken: &[usize], must: usize) -> Vec<Vec<usize>> {
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
        &self,
        taken: &[usize],
        must: usize,
        lane: usize,
        room: u64,
        filling: &mut Vec<usize>,
        found: &mut Vec<Vec<usize>>,
    ) {
        if lane == self.lanes.len() {
            let could_add =
                |l: usize| self.lanes[l].share <= room && taken[l] + filling[l] < self.lanes[l].jars.len();
            if filling[must] > 0 && !(0..self.lanes.len()).any(could_add) {
                found.push(filling.clone());
            }
            return;
        }
        let share = self.lanes[lane].share;
        let left = self.lanes[lane].jars.len() - taken[lane];
        let fits = usize::try_from(room / share).unwrap_or(usize::MAX);
        for count in (0..=left.min(fits)).rev() {
            filling[lane] = count;
            self.extend(taken, must, lane + 1, room - share * count as u64, filling, found);
        }
        filling[lane] = 0;
    }

    fn unroll(&self, mut taken: Vec<usize>) -> Vec<Load> {
        let mut loads = Vec::new();
        while let Some((longest, minutes)) = self.longest_lane(&taken) {
            let filling = match self.known.get(&taken) {
                Some((_, filling)) => filling.clone(),
                None => self.fillings(&taken, longest).swap_remove(0),
            };
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
pub fn why(groups: &[Group], plan: &LoadPlan, capacity: &[Capacity], turnaround: Minutes) -> String {
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
            self::group(&alike, capacity, turnaround).ok().map(|plan| plan.total.0)
        })
        .sum();
    let saved = apart.map_or(0, |apart| apart.saturating_sub(plan.total.0));
    format!(
        "Short jars ride along for the longest time: in loads of their own the day would take {saved} min more."
    )
}

fn least_common_multiple(a: u64, b: u64) -> u64 {
    let (mut x, mut y) = (a, b);
    while y != 0 {
        (x, y) = (y, x % y);
    }
    a / x * b
}
