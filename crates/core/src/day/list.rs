//! The first plan, at once: tasks by their longest tail, each as early as it fits. When a task comes too late after
//! another, the other is held back and the plan begun anew.

use super::Day;
use super::bound::Bound;
use super::usage::Usage;

/// How often the plan of a day of a hundred tasks is begun anew before it is given up; larger days less often, so that the
/// first plan stays quick.
const ROUNDS: usize = 400;
/// See [`ROUNDS`].
const USUAL_TASKS: usize = 100;

/// A plan within a horizon, if the list finds one.
pub(super) fn schedule(day: &Day, bound: &Bound, horizon: u32) -> Option<Vec<u32>> {
    let mut release = bound.heads.clone();
    for _ in 0..ROUNDS * USUAL_TASKS / day.tasks.len().max(USUAL_TASKS) {
        match round(day, horizon, &release, &bound.tails)? {
            Ok(starts) => return Some(starts),
            Err((task, least)) => release[task] = least,
        }
    }
    None
}

type Held = (usize, u32);

/// One pass; `Err` names a task to hold back and until when, `None` gives up.
fn round(day: &Day, horizon: u32, release: &[u32], tails: &[u32]) -> Option<Result<Vec<u32>, Held>> {
    let count = day.tasks.len();
    let (mut usage, mut starts) = Usage::of_begun(day, horizon);
    while starts.iter().any(Option::is_none) {
        let ready = |number: &usize| {
            starts[*number].is_none()
                && day.tasks[*number].after.iter().all(|after| starts[after.task].is_some())
        };
        let next =
            (0..count).filter(ready).max_by_key(|number| (tails[*number], std::cmp::Reverse(*number)))?;
        let task = &day.tasks[next];
        let mut start = i64::from(release[next]);
        // Ready means that whatever comes before it has its place.
        let mut earlier = Vec::with_capacity(task.after.len());
        for after in &task.after {
            let end = i64::from(starts[after.task]? + day.tasks[after.task].minutes);
            start = start.max(end + after.least);
            earlier.push((after, end));
        }
        let mut start = u32::try_from(start.max(0)).ok()?;
        while let Some(later) = usage.clash(start, task.minutes, task.uses.each()) {
            start = later;
            if start + task.minutes > horizon {
                return None;
            }
        }
        for (after, end) in earlier {
            if let Some(most) = after.most
                && i64::from(start) > end + most
            {
                if day.tasks[after.task].has_begun() {
                    return None;
                }
                let held = i64::from(start) - most - i64::from(day.tasks[after.task].minutes);
                return Some(Err((after.task, u32::try_from(held).ok()?)));
            }
        }
        if task.between.is_some_and(|(_, latest)| start > latest) {
            return None;
        }
        usage.take(start, task.minutes, task.uses.each());
        starts[next] = Some(start);
    }
    Some(Ok(starts.into_iter().flatten().collect()))
}
