//! How short a day can be at best: the longest chain of tasks, and the work that each resource has to do.

use super::{Day, Needs};

/// Earliest start of every task by the lags alone.
///
/// # Errors
/// Says in words when tasks wait for one another, or one has begun before it could.
fn earliest(day: &Day) -> Result<Vec<u32>, String> {
    let count = day.tasks.len();
    let mut start: Vec<i64> =
        day.tasks.iter().map(|task| task.between.map_or(0, |(earliest, _)| i64::from(earliest))).collect();
    // Bellman-Ford over start differences: more than as many rounds as tasks means a circle.
    for _ in 0..=count {
        let mut moved = false;
        for (later, task) in day.tasks.iter().enumerate() {
            for after in &task.after {
                let length = i64::from(day.tasks[after.task].minutes);
                let least = start[after.task] + length + after.least;
                if start[later] < least {
                    start[later] = least;
                    moved = true;
                }
                if let Some(most) = after.most {
                    let pulled = start[later] - most - length;
                    if start[after.task] < pulled {
                        start[after.task] = pulled;
                        moved = true;
                    }
                }
            }
        }
        if !moved {
            let held = day
                .tasks
                .iter()
                .zip(&start)
                .all(|(task, start)| task.between.is_none_or(|(_, latest)| *start <= i64::from(latest)));
            if !held {
                return Err("something would have to start before what must come first is done".to_owned());
            }
            return start
                .into_iter()
                .map(|start| u32::try_from(start).map_err(|_| "a task would start before the day".to_owned()))
                .collect();
        }
    }
    Err("some tasks wait for one another, so none of them can begin".to_owned())
}

/// Minutes from each task's start to the end of everything that must follow it.
pub(super) fn tails(day: &Day) -> Vec<u32> {
    let mut tail: Vec<i64> = day.tasks.iter().map(|task| i64::from(task.minutes)).collect();
    for _ in 0..day.tasks.len() {
        let mut moved = false;
        for (later, task) in day.tasks.iter().enumerate() {
            for after in &task.after {
                let length = i64::from(day.tasks[after.task].minutes);
                let through = length + after.least + tail[later];
                if tail[after.task] < through {
                    tail[after.task] = through;
                    moved = true;
                }
            }
        }
        if !moved {
            break;
        }
    }
    tail.into_iter().map(|tail| u32::try_from(tail.max(0)).unwrap_or(u32::MAX)).collect()
}

/// What the lags and the resources alone say of a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Bound {
    /// No plan ends before this minute.
    pub minutes: u32,
    /// What makes it so, in words.
    pub limit: &'static str,
    /// Earliest start of every task.
    pub heads: Vec<u32>,
    /// Minutes from every task's start to the end of all that must follow it.
    pub tails: Vec<u32>,
}

/// No plan ends before this minute.
///
/// # Errors
/// Says in words why there is no plan at all.
pub(super) fn bound(day: &Day) -> Result<Bound, String> {
    let has = day.has.each();
    for task in &day.tasks {
        for (place, need) in task.uses.each().into_iter().enumerate() {
            if need > has[place] {
                return Err(format!(
                    "a task needs {need} {name}, and there are {have}",
                    name = Needs::NAMES[place],
                    have = has[place]
                ));
            }
        }
    }
    let heads = earliest(day)?;
    let tails = tails(day);
    let chain = heads.iter().zip(&tails).map(|(head, tail)| head + tail).max().unwrap_or(0);
    const LIMITS: [&str; 4] = ["the hands need", "the burners need", "the kettles need", "the canner needs"];
    let mut found = (chain, chain_limit(day, &heads, &tails, chain));
    for (place, limit) in LIMITS.into_iter().enumerate() {
        let minutes = machine_bound(day, &heads, &tails, place, has[place]);
        if minutes > found.0 {
            found = (minutes, limit);
        }
    }
    let (minutes, limit) = found;
    Ok(Bound { minutes, limit, heads, tails })
}

/// What the longest chain of tasks spends its time on: the kettle, the canner, or neither of them for the most part.
fn chain_limit(day: &Day, heads: &[u32], tails: &[u32], chain: u32) -> &'static str {
    let on_chain =
        || day.tasks.iter().enumerate().filter(|(place, _)| heads[*place] + tails[*place] == chain);
    let minutes = |takes: fn(&Needs) -> u32| -> u32 {
        // Of tasks beside one another on the chain the longest counts once.
        let mut spans: Vec<(u32, u32)> = on_chain()
            .filter(|(_, task)| takes(&task.uses) > 0)
            .map(|(place, task)| (heads[place], heads[place] + task.minutes))
            .collect();
        spans.sort_unstable();
        let mut covered = 0;
        let mut until = 0;
        for (from, to) in spans {
            covered += to.saturating_sub(from.max(until));
            until = until.max(to);
        }
        covered
    };
    let (kettle, canner) = (minutes(|uses| uses.kettles), minutes(|uses| uses.canners));
    if kettle * 2 > chain {
        "the cooking down takes"
    } else if canner * 2 > chain {
        "one canner load after another takes"
    } else {
        "one thing after another takes"
    }
}

/// The m-machine bound of one resource: over every threshold of heads and tails, the work that must fit between, spread
/// over the machines, with the smallest heads before and tails after it.
fn machine_bound(day: &Day, heads: &[u32], tails: &[u32], place: usize, machines: u32) -> u32 {
    if machines == 0 {
        return 0;
    }
    // Each unit that a task needs counts as a task of its own.
    let units: Vec<(u32, u32, u32)> = day
        .tasks
        .iter()
        .enumerate()
        .filter(|(_, task)| task.minutes > 0)
        .flat_map(|(number, task)| {
            let after = tails[number].saturating_sub(task.minutes);
            (0..task.uses.each()[place]).map(move |_| (number, task.minutes, after))
        })
        .map(|(number, minutes, after)| (heads[number], minutes, after))
        .collect();
    let mut best = 0;
    let mut head_marks: Vec<u32> = units.iter().map(|unit| unit.0).collect();
    head_marks.sort_unstable();
    head_marks.dedup();
    let mut tail_marks: Vec<u32> = units.iter().map(|unit| unit.2).collect();
    tail_marks.sort_unstable();
    tail_marks.dedup();
    let least = |mut values: Vec<u32>| {
        values.sort_unstable();
        values.into_iter().take(machines as usize).map(u64::from).sum::<u64>()
    };
    for from in &head_marks {
        for to in &tail_marks {
            let inside: Vec<&(u32, u32, u32)> =
                units.iter().filter(|unit| unit.0 >= *from && unit.2 >= *to).collect();
            if inside.len() < machines as usize {
                continue;
            }
            let work: u64 = inside.iter().map(|unit| u64::from(unit.1)).sum();
            let sum = least(inside.iter().map(|unit| unit.0).collect())
                + work
                + least(inside.iter().map(|unit| unit.2).collect());
            best = best.max(u32::try_from(sum.div_ceil(u64::from(machines))).unwrap_or(u32::MAX));
        }
    }
    best
}
