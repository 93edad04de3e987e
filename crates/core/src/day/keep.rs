//! A plan that is made again does not swap what has not begun, unless that makes the day shorter.

use super::{After, Day};

/// The day with the order of the plan before as a rule: of two tasks that need like things, the one that was to start
/// first starts first. `None` when nothing is left of that plan.
pub(super) fn in_order_of(day: &Day, before: &[Option<i64>]) -> Option<Day> {
    let mut kept = day.clone();
    let waits = |number: &usize| !day.tasks[*number].has_begun();
    let known: Vec<(usize, i64)> = (0..day.tasks.len())
        .filter(waits)
        .filter_map(|number| Some((number, (*before.get(number)?)?)))
        .collect();
    let share = |one: usize, other: usize| {
        let needs = day.tasks[one].uses.each().into_iter().zip(day.tasks[other].uses.each());
        needs.into_iter().any(|(one, other)| one > 0 && other > 0)
    };
    let mut found = false;
    for (later, at) in &known {
        for (earlier, _) in known.iter().filter(|(earlier, start)| start < at && share(*earlier, *later)) {
            let least = -i64::from(day.tasks[*earlier].minutes);
            kept.tasks[*later].after.push(After { task: *earlier, least, most: None });
            found = true;
        }
    }
    found.then_some(kept)
}
