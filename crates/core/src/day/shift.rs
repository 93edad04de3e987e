//! How far single tasks can move while the others stay and the day ends no later.

use super::Day;
use super::task::end;
use super::usage::Usage;

/// Rounds over all tasks: one may make room for another that was looked at before it.
const ROUNDS: usize = 2;

/// From when to when a task may start by what it must follow and what must follow it; empty when it may not move.
fn window(day: &Day, starts: &[u32], number: usize, last: u32) -> (i64, i64) {
    let task = &day.tasks[number];
    let (from, to) = task.between.unwrap_or((0, u32::MAX));
    let (mut from, mut to) = (i64::from(from), i64::from(to.min(last.saturating_sub(task.minutes))));
    for after in &task.after {
        let ends = i64::from(starts[after.task] + day.tasks[after.task].minutes);
        from = from.max(ends + after.least);
        to = to.min(after.most.map_or(i64::MAX, |most| ends + most));
    }
    for (later, other) in day.tasks.iter().enumerate() {
        for after in other.after.iter().filter(|after| after.task == number) {
            let latest_end = i64::from(starts[later]) - i64::from(task.minutes);
            to = to.min(latest_end - after.least);
            from = from.max(after.most.map_or(i64::MIN, |most| latest_end - most));
        }
    }
    (from, to)
}

fn in_order(day: &Day, starts: &[u32]) -> Vec<usize> {
    let mut order: Vec<usize> = (0..starts.len()).filter(|task| !day.tasks[*task].has_begun()).collect();
    order.sort_by_key(|task| starts[*task]);
    order
}

/// Moves everything that has not begun as early as it goes, but no task before the minute that `not_before` names for it.
pub(super) fn earlier(day: &Day, starts: &[u32], not_before: impl Fn(usize, &[u32]) -> u32) -> Vec<u32> {
    let mut early = starts.to_vec();
    let last = end(day, starts);
    for number in in_order(day, starts).repeat(ROUNDS) {
        let task = &day.tasks[number];
        let usage = Usage::of_others(day, &early, number, last);
        let (from, _) = window(day, &early, number, last);
        let least = u32::try_from(from).unwrap_or(0).max(not_before(number, &early));
        let mut start = least.min(early[number]);
        while start < early[number] {
            match usage.clash(start, task.minutes, task.uses.each()) {
                None => break,
                Some(next) => start = next,
            }
        }
        early[number] = start.min(early[number]);
    }
    early
}

/// Moves everything that has not begun as early as it goes without a later end.
#[must_use]
pub fn earlier_starts(day: &Day, starts: &[u32]) -> Vec<u32> {
    earlier(day, starts, |_, _| 0)
}

/// Starts what may start sooner so many minutes sooner, so that a small delay does not make the evening later.
#[must_use]
pub fn with_reserve(day: &Day, starts: &[u32], minutes: u32) -> Vec<u32> {
    earlier(day, starts, |task, _| starts[task].saturating_sub(minutes))
}

/// Moves one task as near to a minute as it goes while the others stay.
#[must_use]
pub fn near_minute(day: &Day, starts: &[u32], number: usize, wanted: u32) -> Vec<u32> {
    let mut moved = starts.to_vec();
    let last = end(day, starts);
    let task = &day.tasks[number];
    let usage = Usage::of_others(day, starts, number, last);
    let (from, to) = window(day, starts, number, last);
    let from = u32::try_from(from).unwrap_or(0);
    let may = (from..=u32::try_from(to).unwrap_or(0)).filter(|start| {
        *start == starts[number] || usage.clash(*start, task.minutes, task.uses.each()).is_none()
    });
    moved[number] = may.min_by_key(|start| start.abs_diff(wanted)).unwrap_or(starts[number]);
    moved
}

/// Moves everything that has not begun as late as it goes without a later end.
#[must_use]
pub fn later_starts(day: &Day, starts: &[u32]) -> Vec<u32> {
    let mut late = starts.to_vec();
    let last = end(day, starts);
    let mut order = in_order(day, starts);
    order.reverse();
    for number in order.repeat(ROUNDS) {
        let task = &day.tasks[number];
        let usage = Usage::of_others(day, &late, number, last);
        let (_, to) = window(day, &late, number, last);
        let latest = u32::try_from(to).unwrap_or(0);
        let fits = |start: &u32| usage.clash(*start, task.minutes, task.uses.each()).is_none();
        late[number] = (late[number] + 1..=latest).rev().find(fits).unwrap_or(late[number]);
    }
    late
}
