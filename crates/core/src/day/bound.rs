//! How short a day can be at best: the longest chain of tasks, and the work that each resource has to do.

use std::collections::BTreeSet;

use super::{After, Day, Needs};

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
        let all = stretches(day, place);
        let announced = announced_bound(day, &heads, &tails, &all, has[place]);
        let minutes = energy_bound(&heads, &tails, &all, has[place], found.0).max(announced.unwrap_or(0));
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

/// Energetic reasoning over one resource: between a minute and so many minutes before the end lies at least what every stretch
/// cannot do before, even when it begins as early as it may, or after, even when it ends as late as it may; and so much of
/// the resource has to be there in between (Baptiste, Le Pape and Nuijten 1999). `known` is a bound already.
fn energy_bound(heads: &[u32], tails: &[u32], all: &[Stretch], have: u32, known: u32) -> u32 {
    if have == 0 {
        return known;
    }
    struct Work {
        need: u64,
        minutes: u32,
        head: u32,
        /// Minutes that must follow it.
        tail: u32,
    }
    let work: Vec<Work> = all
        .iter()
        .map(|stretch| Work {
            need: stretch.need.into(),
            minutes: stretch.minutes,
            head: heads[stretch.task],
            tail: stretch.tail(tails),
        })
        .collect();
    let marks = |of: fn(&Work) -> u32| {
        work.iter().flat_map(|work| [of(work), of(work) + work.minutes]).collect::<BTreeSet<u32>>()
    };
    let (from_marks, to_marks) = (marks(|work| work.head), marks(|work| work.tail));
    let mut best = known;
    for from in &from_marks {
        // Only where the two do not overlap in any plan: then what lies between lies there.
        for to in to_marks.iter().take_while(|to| from + **to <= known) {
            let between: Vec<(u64, u64)> = work
                .iter()
                .map(|work| {
                    let (before, after) = (from.saturating_sub(work.head), to.saturating_sub(work.tail));
                    (work.need, work.minutes.saturating_sub(before.max(after)).into())
                })
                .collect();
            // Nothing takes longer than what there is between; the shortest time that holds them all.
            let mut length = u64::from(best - from - to);
            loop {
                let energy: u64 = between.iter().map(|(need, minutes)| need * (*minutes).min(length)).sum();
                if energy <= length * u64::from(have) {
                    break;
                }
                length = energy.div_ceil(u64::from(have));
            }
            best = u32::try_from(length).unwrap_or(u32::MAX).saturating_add(from + to);
        }
    }
    best
}

/// What cannot be done before the first long stretches, as loads are: until then there are only short ones that announce
/// them, as the heating of a canner does, and each of those has its long one soon after.
///
/// Let a long stretch start first on each of the `m` units at `s_1 <= .. <= s_m`. A short one before that ends by `s_m`, and
/// what it announces starts within the lag `g` of that; a unit starts at most `1 + (s_m + g - s_c) / b` long ones of `b`
/// minutes or more until then. So more than `m` short ones come before only when the first units are far ahead of the last,
/// which leaves that one idle for longer: of `e` more of them, `(s_m - s_1) + .. >= e b - (m - 1) g`.
fn announced_bound(day: &Day, heads: &[u32], tails: &[u32], all: &[Stretch], units: u32) -> Option<u32> {
    // What a stretch announces, and how long after its end that may start.
    let announces = |of: &Stretch| {
        let lag = |later: &Stretch| {
            let after = day.tasks[later.task].after.iter().find(|after| after.task == of.task);
            after.and_then(|after| after.most).map(|most| (later.task, most))
        };
        all.iter().filter(|later| later.task != of.task).find_map(lag)
    };
    let (short, long): (Vec<&Stretch>, Vec<&Stretch>) =
        all.iter().partition(|stretch| announces(stretch).is_some());
    let (announced, lags): (BTreeSet<usize>, Vec<i64>) =
        short.iter().filter_map(|stretch| announces(stretch)).unzip();
    let lag = lags.into_iter().max()?;
    let least = long.iter().map(|stretch| i64::from(stretch.minutes)).min()?;
    let most = short.iter().map(|stretch| i64::from(stretch.minutes)).max()?;
    let m = i64::from(units);
    let is_known = all.iter().all(|stretch| stretch.need == 1)
        && announced.len() == short.len()
        && long.iter().filter(|stretch| announced.contains(&stretch.task)).count() == announced.len()
        && least > lag
        && long.len() >= units as usize;
    if !is_known {
        return None;
    }
    let sorted = |mut minutes: Vec<i64>| {
        minutes.sort_unstable();
        minutes
    };
    let starts = sorted(long.iter().map(|stretch| heads[stretch.task].into()).collect());
    let ends = sorted(all.iter().map(|stretch| stretch.tail(tails).into()).collect());
    let count = i64::try_from(short.len()).ok()?;
    let mut idle = starts.iter().take(units as usize).sum::<i64>() - most * m.min(count);
    if count > m {
        // One more than there are units; still more pay only where a long one costs a unit less than they save.
        if m < 2 || least < most * (m - 1) {
            return None;
        }
        let ahead = (least - (m - 1) * lag).max(0);
        idle = idle.min(m * starts[0] + ahead / (m - 1) - most * (m + 1));
    }
    let work: i64 = all.iter().map(|stretch| i64::from(stretch.minutes)).sum();
    let after: i64 = ends.iter().take(units as usize).sum();
    u32::try_from((work + idle.max(0) + after + m - 1) / m).ok()
}

/// Something that holds a resource without a break.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stretch {
    /// The task it begins with.
    pub task: usize,
    /// How much it holds.
    pub need: u32,
    /// How long.
    pub minutes: u32,
}

impl Stretch {
    /// Minutes that must follow it.
    fn tail(&self, tails: &[u32]) -> u32 {
        tails[self.task].saturating_sub(self.minutes)
    }
}

/// What holds a resource. A task that follows another at once and holds as much, as lifting follows a load, is one with it:
/// nothing comes between.
pub(super) fn stretches(day: &Day, place: usize) -> Vec<Stretch> {
    let need = |task: usize| day.tasks[task].uses.each()[place];
    let mut first_of: Vec<usize> = (0..day.tasks.len()).collect();
    let mut last_of = first_of.clone();
    let mut minutes: Vec<u32> = day.tasks.iter().map(|task| task.minutes).collect();
    let mut is_part = vec![false; day.tasks.len()];
    for (later, task) in day.tasks.iter().enumerate() {
        let at_once =
            |after: &&After| after.least == 0 && after.most == Some(0) && need(after.task) == need(later);
        let Some(before) = task.after.iter().find(at_once).map(|after| after.task) else { continue };
        let first = first_of[before];
        // Of two that follow the same one at once, the second is by itself.
        if need(later) > 0 && first < later && last_of[first] == before && task.between.is_none() {
            first_of[later] = first;
            last_of[first] = later;
            minutes[first] += minutes[later];
            is_part[later] = true;
        }
    }
    let all = (0..day.tasks.len()).filter(|task| !is_part[*task] && need(*task) > 0 && minutes[*task] > 0);
    all.map(|task| Stretch { task, need: need(task), minutes: minutes[task] }).collect()
}
