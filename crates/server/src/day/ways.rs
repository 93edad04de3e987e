//! Ways out of a day that does not fit: later, more hands, a borrowed canner, or what waits until tomorrow.

use bodega_core::day::work::BatchWork;
use bodega_core::day::{Needs, shortest};
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::Moment;
use serde::Serialize;
use utoipa::ToSchema;

use crate::day::ground::Ground;

/// What a way out changes.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[serde(tag = "way", rename_all = "snake_case")]
pub enum WayStep {
    /// Work until later.
    Later {
        /// The new end, in minutes after midnight.
        day_ends: u32,
    },
    /// More hands.
    Hands {
        /// How many then.
        people: u32,
    },
    /// One more canner, which has to be found first.
    Canner,
    /// A batch that waits until tomorrow: it goes off the line and its fruit back to the crates.
    Leave {
        /// The batch.
        batch: BatchId,
    },
    /// The work is spread over two days: these batches wait until tomorrow.
    TwoDays {
        /// The batches.
        batches: Vec<BatchId>,
    },
    /// The same, and its fruit into the freezer.
    Freeze {
        /// The batch.
        batch: BatchId,
    },
    /// A batch whose juice waits overnight in the refrigerator.
    Chill {
        /// The batch.
        batch: BatchId,
    },
}

/// A way to make a day fit.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct WayOut {
    /// What to do.
    pub text: String,
    /// What that changes.
    pub step: WayStep,
    /// When the day would end then.
    pub finish: Moment,
}

/// A change of the day to try.
struct Try {
    /// What is said of it, each with what it changes.
    ways: Vec<(String, WayStep)>,
    works: Vec<BatchWork>,
    has: Needs,
    horizon: u32,
}

/// Hours of work beyond the day's end that are still thought of.
const LATEST_HOURS: u32 = 6;

/// Ways to make the day fit, each of them solved, the soonest end first.
pub(super) fn ways_out(ground: &Ground) -> Vec<WayOut> {
    let Ground { has, horizon, .. } = *ground;
    let more = |people, canners| Needs { people: has.people + people, canners: has.canners + canners, ..has };
    let later = |hours: u32| WayStep::Later { day_ends: (ground.day_ends_at + hours * 60).min(24 * 60) };
    let hands = WayStep::Hands { people: has.people + 1 };
    let whole_day = |text: &str, step, has, horizon| Try {
        ways: vec![(text.to_owned(), step)],
        works: ground.works(),
        has,
        horizon,
    };
    let mut tries = vec![
        whole_day("One hour more", later(1), has, horizon + 60),
        whole_day("Two hours more", later(2), has, horizon + 120),
        whole_day("Another pair of hands", hands, more(1, 0), horizon),
        whole_day("Borrow a canner", WayStep::Canner, more(0, 1), horizon),
        whole_day("Another pair of hands and a borrowed canner", WayStep::Canner, more(1, 1), horizon),
    ];
    for (place, open) in ground.batches.iter().enumerate() {
        let (batch, code) = (open.id, &open.work.code);
        if open.untouched && !open.work.prepare.is_empty() {
            let mut works = ground.works();
            works.remove(place);
            let leave = format!("Leave batch {code} for tomorrow: its fruit keeps a day in the cold");
            let freeze = format!("Freeze the fruit of batch {code}");
            let mut ways = vec![(leave, WayStep::Leave { batch })];
            ways.extend(open.may_freeze.then_some((freeze, WayStep::Freeze { batch })));
            tries.push(Try { ways, works, has, horizon });
        }
        if let Some(tonight) = &open.chilled {
            let mut works = ground.works();
            works[place] = tonight.clone();
            let text =
                format!("Mill batch {code} today and can it tomorrow: its juice waits in the refrigerator");
            tries.push(Try { ways: vec![(text, WayStep::Chill { batch })], works, has, horizon });
        }
    }
    tries.extend(over_two_days(ground));
    let mut found: Vec<WayOut> = tries.into_iter().flat_map(|tried| solve(ground, tried)).collect();
    if found.is_empty() {
        // When nothing else helps, it is at least said how late it becomes.
        let longer = (3..=LATEST_HOURS).map(|hours| {
            let text = format!("{hours} hours more");
            Try {
                ways: vec![(text, later(hours))],
                works: ground.works(),
                has,
                horizon: horizon + hours * 60,
            }
        });
        found.extend(
            longer.map(|tried| solve(ground, tried)).find(|ways| !ways.is_empty()).into_iter().flatten(),
        );
    }
    found.sort_by_key(|way| way.finish);
    found
}

/// The day spread over two: of the batches that nobody has touched as many as it takes wait until tomorrow, those with the
/// most work first. One alone is a way of its own.
fn over_two_days(ground: &Ground) -> Option<Try> {
    let work = |works: &BatchWork| {
        let loads = works.loads.iter().map(|load| load.minutes + load.fill.unwrap_or(0));
        let sink = works.prepare.iter().map(|part| part.minutes);
        loads.chain(sink).chain(works.cook.map(|cook| cook.minutes)).sum::<u32>()
    };
    let mut untouched: Vec<_> =
        ground.batches.iter().filter(|open| open.untouched && !open.work.prepare.is_empty()).collect();
    untouched.sort_by_key(|open| std::cmp::Reverse(work(&open.work)));
    for count in 2..=untouched.len() {
        let wait = &untouched[..count];
        let stays = |open: &&crate::day::ground::OpenBatch| wait.iter().all(|other| other.id != open.id);
        let works: Vec<BatchWork> =
            ground.batches.iter().filter(stays).map(|open| open.work.clone()).collect();
        let (day, _) = ground.day(&works, ground.has, ground.horizon);
        if works.is_empty() || shortest(&day, ground.search.way).makespan.is_some() {
            let codes: Vec<&str> = wait.iter().map(|open| open.work.code.as_str()).collect();
            let text = format!(
                "Spread it over two days: batches {} wait until tomorrow, their fruit in the cold",
                codes.join(" and ")
            );
            let step = WayStep::TwoDays { batches: wait.iter().map(|open| open.id).collect() };
            let (has, horizon) = (ground.has, ground.horizon);
            return Some(Try { ways: vec![(text, step)], works, has, horizon });
        }
    }
    None
}

fn solve(ground: &Ground, tried: Try) -> Vec<WayOut> {
    let (day, _) = ground.day(&tried.works, tried.has, tried.horizon);
    let Some(finish) = shortest(&day, ground.search.way).makespan else { return Vec::new() };
    let way = |(text, step)| WayOut { text, step, finish: ground.at(finish) };
    tried.ways.into_iter().map(way).collect()
}
