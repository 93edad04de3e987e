//! Whether a plan keeps every rule of its day; nothing is shown that does not pass.

use super::{Day, Needs};

/// What is wrong with a plan; empty when it keeps every rule.
#[must_use]
pub fn faults(day: &Day, starts: &[u32], horizon: u32) -> Vec<String> {
    if starts.len() != day.tasks.len() {
        return vec!["a start is missing".to_owned()];
    }
    let mut found = Vec::new();
    let begin = |task: usize| i64::from(starts[task]);
    let end = |task: usize| begin(task) + i64::from(day.tasks[task].minutes);
    for (number, task) in day.tasks.iter().enumerate() {
        if end(number) > i64::from(horizon) {
            found.push(format!("task {number} ends after the day"));
        }
        if task.between.is_some_and(|(earliest, latest)| !(earliest..=latest).contains(&starts[number])) {
            found.push(format!("task {number} starts outside of its time"));
        }
        for after in &task.after {
            let lag = begin(number) - end(after.task);
            if lag < after.least {
                found.push(format!("task {number} starts too soon after task {}", after.task));
            }
            if after.most.is_some_and(|most| lag > most) {
                found.push(format!("task {number} starts too late after task {}", after.task));
            }
        }
    }
    // Use only rises where a task starts.
    for at in 0..day.tasks.len() {
        let moment = begin(at);
        if day.tasks[at].minutes == 0 {
            continue;
        }
        let mut used = [0_u64; 4];
        for (number, task) in day.tasks.iter().enumerate() {
            if begin(number) <= moment && moment < end(number) {
                for (place, need) in task.uses.each().into_iter().enumerate() {
                    used[place] += u64::from(need);
                }
            }
        }
        for (place, have) in day.has.each().into_iter().enumerate() {
            if used[place] > u64::from(have) {
                found.push(format!(
                    "at minute {moment} {} {} are needed, {have} are there",
                    used[place],
                    Needs::NAMES[place]
                ));
            }
        }
    }
    found
}
