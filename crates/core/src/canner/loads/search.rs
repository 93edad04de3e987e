//! The search for the loads of least total time.

use std::collections::HashMap;
use std::rc::Rc;

use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Minutes;
use foldhash::fast::FixedState;

use super::{Group, Load, LoadPlan};
use crate::canner::room::{NoRoom, Room, Shares};

/// Steps that the proof may take, a filling looked at being one. Counted and not timed, so that the same question has the
/// same answer everywhere; together with the looser budgets it keeps to about a second.
const PROOF_STEPS: u64 = 6_000_000;
/// Steps that each looser budget may take after that.
const LOOSE_STEPS: u64 = 1_500_000;
/// Looser budgets that are tried.
const LOOSE_TRIES: u32 = 5;
/// States that are remembered as having failed; each takes a hundred bytes.
const MOST_FAILED: usize = 300_000;

/// What is looked up at every step. Its keys are counts of jars, which nobody chooses to collide.
type Known<K, V> = HashMap<K, V, FixedState>;

/// Jars of one size, longest time first.
struct Lane {
    size: JarSize,
    share: u64,
    /// Index of the group and minutes, for each jar.
    jars: Vec<(usize, u32)>,
    /// How many of them need at least each of the times, in the order of the times.
    upto: Vec<usize>,
    /// Most of them that the canner holds when it holds nothing else.
    most: usize,
}

/// How many jars of each lane: those that are in a load already, or those of one load.
type Counts = Vec<usize>;

/// A state on the way of a search.
struct State {
    taken: Counts,
    budget: u32,
    /// What the budget leaves after the load that is filled here.
    rest: u32,
    fillings: Rc<[Counts]>,
    /// How many of the fillings were tried; the last of them is the one that is followed.
    tried: usize,
}

impl State {
    /// The filling that is followed.
    fn filling(self) -> Counts {
        self.fillings[self.tried - 1].clone()
    }
}

/// What a state comes to within a budget.
enum Entered {
    /// No jar is left.
    Done,
    /// It cannot come in within it.
    Beyond,
    /// It has to be tried.
    Open(State),
}

pub(super) struct Search<'a> {
    room: &'a dyn Room,
    lanes: Vec<Lane>,
    /// The whole canner, in the unit of the lanes' shares.
    whole: u64,
    turnaround: u32,
    /// Distinct times, longest first.
    times: Vec<u32>,
    /// No plan takes a time that is not a multiple of this.
    step: u32,
    /// Budgets that were proven not to do from a state on.
    failed: Known<Counts, u32>,
    /// Maximal fillings, fullest first, by what is left and the lane that one of its jars must be of.
    fillings: Known<(Counts, usize), Rc<[Counts]>>,
    /// Steps that were taken.
    steps: u64,
    /// Steps that may be taken.
    limit: u64,
}

fn greatest_common_divisor(a: u32, b: u32) -> u32 {
    if b == 0 { a } else { greatest_common_divisor(b, a % b) }
}

impl<'a> Search<'a> {
    pub(super) fn new(groups: &[Group], room: &'a dyn Room, turnaround: Minutes) -> Result<Self, NoRoom> {
        let in_use = || groups.iter().filter(|group| group.count > 0);
        let mut sizes: Vec<JarSize> = in_use().map(|group| group.jar).collect();
        sizes.sort_unstable();
        sizes.dedup();
        let mut times: Vec<u32> = in_use().map(|group| group.minutes.0).collect();
        times.sort_unstable_by(|a, b| b.cmp(a));
        times.dedup();
        let Shares { whole, each } = room.shares(&sizes)?;
        let lane = |(size, share): (&JarSize, u64)| {
            let mut jars: Vec<(usize, u32)> = groups
                .iter()
                .enumerate()
                .filter(|(_, group)| group.jar == *size)
                .flat_map(|(index, group)| (0..group.count).map(move |_| (index, group.minutes.0)))
                .collect();
            jars.sort_by_key(|(index, minutes)| (std::cmp::Reverse(*minutes), *index));
            let upto =
                times.iter().map(|time| jars.partition_point(|(_, minutes)| minutes >= time)).collect();
            Ok(Lane { size: *size, share, jars, upto, most: room.most_of(*size)? as usize })
        };
        let lanes = sizes.iter().zip(each).map(lane).collect::<Result<Vec<_>, NoRoom>>()?;
        // Every load takes one of the times and a turnaround.
        let step = times.iter().map(|time| time + turnaround.0).fold(0, greatest_common_divisor).max(1);
        Ok(Self {
            room,
            lanes,
            whole,
            turnaround: turnaround.0,
            times,
            step,
            failed: Known::default(),
            fillings: Known::default(),
            steps: 0,
            limit: PROOF_STEPS,
        })
    }

    pub(super) fn run(mut self) -> LoadPlan {
        let start: Counts = vec![0; self.lanes.len()];
        let mut low = self.next_multiple(self.bound(&start));
        let mut best = self.within(&start, u32::MAX).expect("the longest jar always fits by itself");
        let mut total = self.cost(&best);
        // From below every budget is proven not to do, as long as the steps last.
        while low < total {
            if let Some(found) = self.within(&start, low) {
                (best, total) = (found, low);
            } else if self.is_cut() {
                break;
            } else {
                low += self.step;
            }
        }
        // Then what lies between is halved.
        let mut open = low;
        for _ in 0..LOOSE_TRIES {
            if open >= total {
                break;
            }
            self.limit = self.steps + LOOSE_STEPS;
            let middle = self.next_multiple(open + (total - open) / 2).min(total - self.step);
            match self.within(&start, middle) {
                Some(found) => (total, best) = (self.cost(&found), found),
                None => open = middle + self.step,
            }
        }
        LoadPlan { loads: self.unroll(&best), total: Minutes(total), lower_bound: Minutes(low.min(total)) }
    }

    /// Every maximal filling of the empty canner, as jars of each size.
    pub(super) fn all_fillings(mut self) -> Vec<Vec<u32>> {
        let nothing: Counts = vec![0; self.lanes.len()];
        let all: Vec<Rc<[Counts]>> =
            (0..self.lanes.len()).map(|lane| self.fillings(&nothing, lane)).collect();
        let count = |jars: &usize| u32::try_from(*jars).unwrap_or(u32::MAX);
        let mut all: Vec<Vec<u32>> = all
            .iter()
            .flat_map(|some| some.iter())
            .map(|filling| filling.iter().map(count).collect())
            .collect();
        all.sort_unstable();
        all.dedup();
        all
    }

    fn next_multiple(&self, minutes: u32) -> u32 {
        minutes.next_multiple_of(self.step)
    }

    const fn is_cut(&self) -> bool {
        self.steps >= self.limit
    }

    /// Proven bound: the jars that need at least `t` minutes fill at least so many loads, for every `t`.
    fn bound(&self, taken: &[usize]) -> u32 {
        let mut total = 0;
        for (place, time) in self.times.iter().enumerate() {
            let left = self.lanes.iter().zip(taken);
            let share: u64 =
                left.map(|(lane, from)| lane.share * (lane.upto[place].saturating_sub(*from) as u64)).sum();
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

    /// Where a state stands within a budget.
    fn enter(&mut self, taken: Counts, budget: u32) -> Entered {
        let Some((longest, minutes)) = self.longest_lane(&taken) else { return Entered::Done };
        if self.bound(&taken) > budget || self.failed.get(&taken).is_some_and(|failed| *failed >= budget) {
            return Entered::Beyond;
        }
        let rest = budget - minutes - self.turnaround;
        let fillings = self.fillings(&taken, longest);
        Entered::Open(State { taken, budget, rest, fillings, tried: 0 })
    }

    /// Fillings that take no longer than a budget together, from a state on; none when there are none or the steps ran out.
    /// The way is a list and no recursion: somebody may ask about ten thousand loads.
    fn within(&mut self, taken: &Counts, budget: u32) -> Option<Vec<Counts>> {
        let mut way: Vec<State> = Vec::new();
        let mut entered = self.enter(taken.clone(), budget);
        loop {
            match entered {
                Entered::Done => return Some(way.into_iter().map(State::filling).collect()),
                Entered::Open(state) => way.push(state),
                Entered::Beyond => {}
            }
            // Back to the last state of which a filling is left.
            while let Some(state) = way.pop_if(|last| last.tried == last.fillings.len()) {
                if self.failed.len() < MOST_FAILED {
                    self.failed.insert(state.taken, state.budget);
                }
            }
            let last = way.last_mut()?;
            if self.is_cut() {
                return None;
            }
            self.steps += 1;
            let filling = &last.fillings[last.tried];
            let after: Counts = last.taken.iter().zip(filling).map(|(from, more)| from + more).collect();
            let rest = last.rest;
            last.tried += 1;
            entered = self.enter(after, rest);
        }
    }

    /// Whether the canner holds so many jars of each lane.
    fn holds(&self, filling: &[usize]) -> bool {
        let count = |jars: usize| u32::try_from(jars).unwrap_or(u32::MAX);
        let jars: Vec<(JarSize, u32)> =
            self.lanes.iter().zip(filling).map(|(lane, jars)| (lane.size, count(*jars))).collect();
        self.room.holds(&jars)
    }

    /// Every maximal filling that holds a jar of the lane `must`, fullest first. What is left beyond what a canner holds of
    /// a size makes no difference.
    fn fillings(&mut self, taken: &[usize], must: usize) -> Rc<[Counts]> {
        let lanes = self.lanes.iter().zip(taken);
        let left: Counts = lanes.map(|(lane, from)| (lane.jars.len() - from).min(lane.most)).collect();
        let key = (left, must);
        if let Some(known) = self.fillings.get(&key) {
            return Rc::clone(known);
        }
        let mut found = Vec::new();
        let mut filling = vec![0; self.lanes.len()];
        self.extend(&key.0, must, 0, self.whole, &mut filling, &mut found);
        let share = |filling: &Counts| {
            filling.iter().zip(&self.lanes).map(|(count, lane)| lane.share * *count as u64).sum::<u64>()
        };
        found.sort_by_key(|filling| std::cmp::Reverse(share(filling)));
        let found: Rc<[Counts]> = found.into();
        self.fillings.insert(key, Rc::clone(&found));
        found
    }

    fn extend(
        &mut self,
        left: &[usize],
        must: usize,
        lane: usize,
        room: u64,
        filling: &mut Counts,
        found: &mut Vec<Counts>,
    ) {
        if lane == self.lanes.len() {
            if filling[must] > 0 && !(0..lane).any(|more| self.could_add(left, more, filling)) {
                found.push(filling.clone());
            }
            return;
        }
        let share = self.lanes[lane].share;
        let fits = usize::try_from(room / share).unwrap_or(usize::MAX);
        // Where one jar more has no place, two more have none: looking for a place is dear where there is none.
        let mut holds = |count: &usize| {
            filling[lane] = *count;
            self.holds(filling)
        };
        let most = (0..=left[lane].min(fits)).take_while(&mut holds).last();
        for count in (0..=most.unwrap_or(0)).rev() {
            filling[lane] = count;
            self.extend(left, must, lane + 1, room - share * count as u64, filling, found);
        }
        filling[lane] = 0;
    }

    fn could_add(&mut self, left: &[usize], lane: usize, filling: &mut [usize]) -> bool {
        if filling[lane] >= left[lane] {
            return false;
        }
        filling[lane] += 1;
        let could = self.holds(filling);
        filling[lane] -= 1;
        could
    }

    /// Minutes of fillings one after the other.
    fn cost(&self, fillings: &[Counts]) -> u32 {
        self.unroll(fillings).iter().map(|load| load.minutes.0 + self.turnaround).sum()
    }

    /// The loads of fillings one after the other.
    fn unroll(&self, fillings: &[Counts]) -> Vec<Load> {
        let mut taken: Counts = vec![0; self.lanes.len()];
        let mut loads = Vec::new();
        for filling in fillings {
            let minutes = self.longest_lane(&taken).map_or(0, |(_, minutes)| minutes);
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
