//! A shorter day by trying other orders. What must follow closely, as a load follows the filling of its jars, is laid out
//! as one knot; knots go in one after the other, each as early as it fits, and the order in which they do is changed again
//! and again. An order that is no worse than the one some steps ago is kept, so that the search does not stop at the first
//! good one (late acceptance, Burke and Bykov 2017).

use std::collections::BTreeSet;

use fastrand::Rng;
use pumpkin_core::termination::TerminationCondition;

use super::Day;
use super::bound::Bound;
use super::task::end;
use super::usage::Usage;

/// How many steps ago an order has to be beaten.
const AGO: usize = 1000;
/// How far a knot usually moves in the order.
const NEAR: usize = 6;
/// How often a knot is laid out anew because one of its tasks came too late after another.
const TRIES: usize = 60;
/// The same orders every time, so that a counted budget has one answer.
const SEED: u64 = 1;

/// How good an order is: when the day ends; and for the same end, how early its knots do.
type Cost = (u32, u64);

/// Tasks of which one must not come too late after another.
struct Knot {
    /// In an order in which they can be laid out.
    tasks: Vec<usize>,
    /// Knots that come before it.
    after: Vec<usize>,
}

pub(super) struct Orders<'a> {
    day: &'a Day,
    bound: &'a Bound,
    room: u32,
    knots: Vec<Knot>,
}

impl<'a> Orders<'a> {
    /// None when the tasks have no order.
    pub(super) fn new(day: &'a Day, bound: &'a Bound, room: u32) -> Option<Self> {
        let order = in_order(day)?;
        let mut knot_of: Vec<usize> = (0..day.tasks.len()).collect();
        for (later, task) in day.tasks.iter().enumerate() {
            for after in task.after.iter().filter(|after| after.most.is_some()) {
                let (from, to) = (knot_of[later], knot_of[after.task]);
                knot_of.iter_mut().filter(|knot| **knot == from).for_each(|knot| *knot = to);
            }
        }
        let names: Vec<usize> = knot_of.iter().copied().collect::<BTreeSet<usize>>().into_iter().collect();
        let place = |task: usize| names.binary_search(&knot_of[task]).unwrap_or(0);
        let knots = names.iter().map(|name| {
            let tasks: Vec<usize> = order.iter().copied().filter(|task| knot_of[*task] == *name).collect();
            let before = tasks.iter().flat_map(|task| &day.tasks[*task].after).map(|after| after.task);
            let after: BTreeSet<usize> = before.filter(|task| knot_of[*task] != *name).map(place).collect();
            Knot { tasks, after: after.into_iter().collect() }
        });
        Some(Self { day, bound, room, knots: knots.collect() })
    }

    /// Tries orders until the budget is spent. `found` is told of every plan that is shorter than the first and those before.
    pub(super) fn try_out(
        &self,
        spending: &mut impl TerminationCondition,
        first: Option<&[u32]>,
        found: impl Fn(Vec<u32>),
    ) {
        let mut rng = Rng::with_seed(SEED);
        let mut order: Vec<usize> = (0..self.knots.len()).collect();
        match first {
            Some(starts) => order.sort_by_key(|knot| self.first(*knot, starts)),
            None => order.sort_by_key(|knot| std::cmp::Reverse(self.tail(*knot))),
        }
        let worst = (u32::MAX, u64::MAX);
        let mut now = self.lay_out(&order, self.room).map_or(worst, |starts| self.cost(&starts));
        let mut ago = vec![now; AGO];
        let mut least = first.map_or(u32::MAX, |starts| end(self.day, starts));
        for step in (0..AGO).cycle() {
            if spending.should_stop() || order.len() < 2 {
                return;
            }
            let before = order.clone();
            self.change(&mut order, &mut rng);
            let bar = ago[step].max(now);
            let tried = self.lay_out(&order, bar.0.min(self.room)).map(|starts| (self.cost(&starts), starts));
            match tried {
                Some((cost, starts)) if cost <= bar => {
                    now = cost;
                    if cost.0 < least {
                        least = cost.0;
                        found(starts);
                    }
                }
                _ => order = before,
            }
            ago[step] = now;
        }
    }

    fn change(&self, order: &mut Vec<usize>, rng: &mut Rng) {
        let from = rng.usize(0..order.len());
        let to = if rng.u8(0..5) == 0 {
            rng.usize(0..order.len())
        } else {
            (from + rng.usize(0..=2 * NEAR)).saturating_sub(NEAR).min(order.len() - 1)
        };
        if rng.bool() {
            order.swap(from, to);
        } else {
            let knot = order.remove(from);
            order.insert(to, knot);
        }
    }

    fn first(&self, knot: usize, starts: &[u32]) -> u32 {
        self.knots[knot].tasks.iter().map(|task| starts[*task]).min().unwrap_or(0)
    }

    fn tail(&self, knot: usize) -> u32 {
        self.knots[knot].tasks.iter().map(|task| self.bound.tails[*task]).max().unwrap_or(0)
    }

    fn cost(&self, starts: &[u32]) -> Cost {
        let ends = |task: &usize| u64::from(starts[*task] + self.day.tasks[*task].minutes);
        let knots = self.knots.iter().filter_map(|knot| knot.tasks.iter().map(ends).max());
        (end(self.day, starts), knots.sum())
    }

    /// Lays the knots out in an order, as far as what comes before them allows; none when the day would end later than
    /// `latest` or the order does not do.
    fn lay_out(&self, order: &[usize], latest: u32) -> Option<Vec<u32>> {
        let (mut usage, mut starts) = Usage::of_begun(self.day, self.room);
        let mut is_out = vec![false; self.knots.len()];
        let mut waiting: Vec<usize> = order.to_vec();
        while !waiting.is_empty() {
            let ready = |knot: &usize| self.knots[*knot].after.iter().all(|before| is_out[*before]);
            let next = waiting.remove(waiting.iter().position(ready)?);
            self.knot(&self.knots[next], &mut usage, &mut starts, latest)?;
            is_out[next] = true;
        }
        starts.into_iter().collect()
    }

    /// Lays one knot out as early as it fits.
    fn knot(&self, knot: &Knot, usage: &mut Usage, starts: &mut [Option<u32>], latest: u32) -> Option<()> {
        let mut release: Vec<u32> = knot.tasks.iter().map(|task| self.bound.heads[*task]).collect();
        let open: Vec<bool> = knot.tasks.iter().map(|task| starts[*task].is_none()).collect();
        'again: for _ in 0..TRIES {
            for (place, number) in knot.tasks.iter().enumerate().filter(|(place, _)| open[*place]) {
                let task = &self.day.tasks[*number];
                let mut start = i64::from(release[place]);
                for after in &task.after {
                    start = start.max(i64::from(self.ends(after.task, starts)?) + after.least);
                }
                let mut start = u32::try_from(start.max(0)).ok()?;
                while let Some(later) = usage.clash(start, task.minutes, task.uses.each()) {
                    start = later;
                    if start + self.bound.tails[*number] > latest {
                        return None;
                    }
                }
                let is_too_late = task.between.is_some_and(|(_, latest)| start > latest);
                if is_too_late || start + self.bound.tails[*number] > latest {
                    return None;
                }
                for after in &task.after {
                    let Some(most) = after.most else { continue };
                    if i64::from(start) <= i64::from(self.ends(after.task, starts)?) + most {
                        continue;
                    }
                    let held = knot.tasks.iter().position(|other| *other == after.task)?;
                    if !open[held] {
                        return None;
                    }
                    let length = i64::from(self.day.tasks[after.task].minutes);
                    release[held] = u32::try_from(i64::from(start) - most - length).ok()?;
                    self.take_back(knot, &open, usage, starts);
                    continue 'again;
                }
                usage.take(start, task.minutes, task.uses.each());
                starts[*number] = Some(start);
            }
            return Some(());
        }
        None
    }

    fn ends(&self, task: usize, starts: &[Option<u32>]) -> Option<u32> {
        Some(starts[task]? + self.day.tasks[task].minutes)
    }

    fn take_back(&self, knot: &Knot, open: &[bool], usage: &mut Usage, starts: &mut [Option<u32>]) {
        for (number, _) in knot.tasks.iter().zip(open).filter(|(_, open)| **open) {
            if let Some(start) = starts[*number].take() {
                let task = &self.day.tasks[*number];
                usage.give_back(start, task.minutes, task.uses.each());
            }
        }
    }
}

/// Tasks behind all that they come after; none when they wait for one another.
fn in_order(day: &Day) -> Option<Vec<usize>> {
    let mut order = Vec::with_capacity(day.tasks.len());
    let mut is_in = vec![false; day.tasks.len()];
    while order.len() < day.tasks.len() {
        let before = order.len();
        for (number, task) in day.tasks.iter().enumerate() {
            if !is_in[number] && task.after.iter().all(|after| is_in[after.task]) {
                is_in[number] = true;
                order.push(number);
            }
        }
        if order.len() == before {
            return None;
        }
    }
    Some(order)
}
