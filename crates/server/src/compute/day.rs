//! Lays a day out: tasks, what they need, what must follow what.

use std::collections::BTreeMap;
use std::time::Duration;

use actix_web::{post, web};
use bodega_core::day::{After, Budget, Day, Layout, Limits, Needs, Status, Task, Wish, lay_out};
use bodega_model::measures::limits::{DAY_LAG, DAY_LENGTH, DAY_RESOURCE, SEARCH_TIME};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::off_thread;

/// Tasks of one day.
const MOST_TASKS: usize = 300;
/// Longest search for less waiting.
const MOST_FOR_WAITING: Duration = Duration::from_millis(300);
/// Time to search when nothing is said.
const USUAL_TIME_LIMIT_MS: u64 = 2_000;

/// A task that comes before another.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DayAfter {
    /// The earlier task.
    pub id: String,
    /// Least minutes from its end to the start of this one.
    #[serde(default)]
    pub min_lag_minutes: i64,
    /// Most minutes from its end to the start of this one.
    pub max_lag_minutes: Option<i64>,
}

/// Something to do; it holds what it uses from start to end.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DayTask {
    /// Its name, used once.
    pub id: String,
    /// How long it takes, 0 to 10,080.
    pub minutes: u32,
    /// What it holds.
    #[serde(default)]
    pub uses: Needs,
    /// What comes before it.
    #[serde(default)]
    pub after: Vec<DayAfter>,
}

/// A day to lay out.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DayRequest {
    /// What the kitchen has, 0 to 50 of each.
    pub resources: Needs,
    /// Minutes that the day may take, 0 to 10,080.
    pub horizon_minutes: u32,
    /// What is to be done, at most 300 tasks.
    pub tasks: Vec<DayTask>,
    /// How long to search, 1 to 30,000 ms; two seconds when nothing is said.
    pub time_limit_ms: Option<u64>,
}

/// A laid-out day.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DayAnswer {
    /// How good it is.
    pub status: Status,
    /// When the last task ends.
    pub makespan_minutes: Option<u32>,
    /// Proven: no plan ends sooner.
    pub bound_minutes: u32,
    /// When each task starts.
    pub starts: BTreeMap<String, u32>,
    /// Why there is no plan, or how far it may be from the best.
    pub why: Option<String>,
}

fn checked(given: Needs, field: &str) -> Result<Needs, ApiError> {
    for (name, count) in ["people", "burners", "kettles", "canners"].into_iter().zip(given.each()) {
        DAY_RESOURCE.check(f64::from(count)).named(format_args!("{field}.{name}"))?;
    }
    Ok(given)
}

fn lag(minutes: i64, field: &str) -> Result<i64, ApiError> {
    #[allow(clippy::cast_precision_loss)] // checked against a week
    DAY_LAG.check(minutes as f64).named(field)?;
    Ok(minutes)
}

/// The request in the core's terms, every field checked.
fn day(request: &DayRequest) -> Result<Day, ApiError> {
    if request.tasks.len() > MOST_TASKS {
        return Err(ApiError::field("tasks", format!("give at most {MOST_TASKS} tasks")));
    }
    let mut places: BTreeMap<&str, usize> = BTreeMap::new();
    for (place, task) in request.tasks.iter().enumerate() {
        if places.insert(&task.id, place).is_some() {
            return Err(ApiError::field(
                format!("tasks[{place}].id"),
                format!("\"{}\" stands twice", task.id),
            ));
        }
    }
    let mut tasks = Vec::with_capacity(request.tasks.len());
    for (place, task) in request.tasks.iter().enumerate() {
        let field = |name: &str| format!("tasks[{place}].{name}");
        DAY_LENGTH.check(f64::from(task.minutes)).named(field("minutes"))?;
        let mut after = Vec::with_capacity(task.after.len());
        for (number, earlier) in task.after.iter().enumerate() {
            let field = |name: &str| format!("tasks[{place}].after[{number}].{name}");
            let Some(other) = places.get(earlier.id.as_str()).filter(|other| **other != place) else {
                return Err(ApiError::field(
                    field("id"),
                    format!("there is no other task \"{}\"", earlier.id),
                ));
            };
            let least = lag(earlier.min_lag_minutes, &field("min_lag_minutes"))?;
            let most =
                earlier.max_lag_minutes.map(|most| lag(most, &field("max_lag_minutes"))).transpose()?;
            if most.is_some_and(|most| most < least) {
                return Err(ApiError::field(
                    field("max_lag_minutes"),
                    "must not be less than min_lag_minutes",
                ));
            }
            after.push(After { task: *other, least, most });
        }
        let uses = checked(task.uses, &field("uses"))?;
        tasks.push(Task { minutes: task.minutes, uses, after, between: None });
    }
    DAY_LENGTH.check(f64::from(request.horizon_minutes)).named("horizon_minutes")?;
    Ok(Day { has: checked(request.resources, "resources")?, horizon: request.horizon_minutes, tasks })
}

/// Lays a day out.
#[utoipa::path(request_body = DayRequest, responses((status = 200, body = DayAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/day")]
pub async fn compute_day(Json(request): Json<DayRequest>) -> Result<web::Json<DayAnswer>, ApiError> {
    let wanted = day(&request)?;
    let limit = request.time_limit_ms.unwrap_or(USUAL_TIME_LIMIT_MS);
    #[allow(clippy::cast_precision_loss)] // checked against half a minute
    SEARCH_TIME.check(limit as f64).named("time_limit_ms")?;
    // Nobody waits longer than was asked for, and hands wait as little as can be found soon.
    let waiting = Duration::from_millis(limit / 5).min(MOST_FOR_WAITING);
    let length = Budget::Time(Duration::from_millis(limit) - waiting);
    let limits = Limits { length, waiting: Budget::Time(waiting) };
    let hands = (0..wanted.tasks.len()).filter(|task| wanted.tasks[*task].uses.people > 0).collect();
    let wish = Wish { together: vec![hands], before: Vec::new() };
    let Layout { status, makespan, bound, starts, why } =
        off_thread(move || lay_out(&wanted, &wish, limits)).await?;
    let starts = request.tasks.into_iter().map(|task| task.id).zip(starts).collect();
    Ok(web::Json(DayAnswer { status, makespan_minutes: makespan, bound_minutes: bound, starts, why }))
}
