//! The day on one strip: what is left of the batches, laid out from now on.

mod ground;
mod ways;

use std::sync::{Mutex, PoisonError};
use std::time::Duration;

use actix_web::{HttpResponse, get, post, web};
use bodega_core::day::work::{Block, Lane, Work, break_near_its_hour, lanes, together};
use bodega_core::day::{Layout, Limits, Status, Wish, earlier_starts, later_starts, lay_out, with_reserve};
use bodega_core::limits::DAY_SLIP;
use bodega_core::moment::{Minutes, Moment};
use bodega_store::Mark;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::ground::{Ground, ground};
use self::ways::{WayOut, ways_out};
use crate::api::exchange::{Meeting, calendar_of};
use crate::app::{Shared, change, off_thread, read};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Time to search for the strip; the screen waits for it.
const SEARCH: Limits = Limits { length: Duration::from_millis(1_200), waiting: Duration::from_millis(500) };

/// A block of the strip.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlockView {
    /// What it is.
    #[serde(flatten)]
    pub block: Block,
    /// When it starts.
    pub starts: Moment,
    /// When it ends.
    pub ends: Moment,
    /// Minutes it may start sooner, for more waiting afterwards.
    pub sooner_minutes: u32,
    /// Minutes it may start later without a later end of the day.
    pub slack_minutes: u32,
    /// Minutes it was said to take longer than thought.
    pub slip_minutes: i64,
}

/// The day from now on.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DayView {
    /// How good the plan is.
    pub status: Status,
    /// Now.
    pub now: Moment,
    /// When the work is to be done.
    pub day_ends: Moment,
    /// When the last block ends.
    pub finish: Option<Moment>,
    /// Proven: it cannot end sooner.
    pub bound: Moment,
    /// The latest start that still ends in time, when nothing has begun.
    pub start_by: Option<Moment>,
    /// Why there is no plan, or how far it may be from the best.
    pub why: Option<String>,
    /// The blocks; without times when there is no plan.
    pub blocks: Vec<BlockView>,
    /// Which hands, burners, kettles and canners they take.
    pub lanes: Vec<Lane>,
    /// How many there are of each resource.
    pub has: [u32; 4],
    /// Ways to make it fit, the soonest end first.
    pub ways_out: Vec<WayOut>,
    /// What is to be started about now, in words.
    pub reminders: Vec<String>,
    /// What has waited overnight, and what is to be done with it.
    pub waiting: Vec<String>,
}

/// Minutes that what can begin sooner begins before it has to. Ours: a kitchen slips by a quarter of an hour.
const RESERVE: u32 = 15;
/// How long before its start somebody is called.
const CALL_BEFORE: Minutes = Minutes(3);

/// What is to be started about now.
fn reminders(blocks: &[BlockView], now: Moment) -> Vec<String> {
    let soon = now.plus(CALL_BEFORE);
    let due = blocks.iter().filter(|view| !view.block.begun && view.starts <= soon);
    due.filter_map(|view| {
        let of = view.block.batch.as_deref().unwrap_or_default();
        let name = view.block.name.as_deref().unwrap_or_default();
        match view.block.work {
            Work::Heat if name.is_empty() => Some("Put the canner on now".to_owned()),
            Work::Heat => Some(format!("Put {name} on now")),
            Work::Cook => Some(format!("Put the kettle on for batch {of} now")),
            Work::Fill => Some(format!("Fill {name} of batch {of} now, and have its water hot")),
            Work::Pause => Some("Time for the break".to_owned()),
            Work::Chill => Some(format!("Put the juice of batch {of} into the refrigerator now")),
            // The rest of the sink follows under the same hands.
            Work::Wash => Some(format!("Wash the fruit of batch {of} now")),
            Work::Core | Work::Blanch | Work::Peel | Work::Mill | Work::Load | Work::Lift => None,
        }
    })
    .collect()
}

impl Ground {
    /// The day laid out, in the order of the last view when that is as good.
    fn view(&self, last: Option<&DayView>) -> DayView {
        let (day, blocks) = self.day(&self.works(), self.has, self.horizon);
        let in_last = |block: &Block| last?.blocks.iter().find(|view| view.block.key == block.key);
        let has_just_begun =
            |block: &&Block| block.begun && in_last(block).is_some_and(|view| !view.block.begun);
        // A batch that somebody has gone on with finds its place anew; the others keep theirs.
        let gone_on: Vec<&String> =
            blocks.iter().filter(has_just_begun).filter_map(|block| block.batch.as_ref()).collect();
        let was_to_start = |block: &Block| {
            let goes_on = block.batch.as_ref().is_some_and(|batch| gone_on.contains(&batch));
            let view = in_last(block).filter(|_| !goes_on)?;
            Some(view.starts.since_ms(self.now) / Minutes(1).ms())
        };
        let wish =
            Wish { together: together(&day, &blocks), before: blocks.iter().map(was_to_start).collect() };
        let Layout { status, makespan, bound, starts, why } = lay_out(&day, &wish, SEARCH);
        let starts = break_near_its_hour(&day, &blocks, &with_reserve(&day, &starts, RESERVE));
        let (early, late) = (earlier_starts(&day, &starts), later_starts(&day, &starts));
        let places =
            blocks.into_iter().zip(&day.tasks).enumerate().filter(|(place, _)| *place < starts.len());
        let views: Vec<BlockView> = places
            .map(|(place, (block, task))| BlockView {
                starts: self.at(starts[place]),
                ends: self.at(starts[place] + task.minutes),
                sooner_minutes: starts[place] - early[place],
                slack_minutes: late[place] - starts[place],
                slip_minutes: self.slip(&block),
                block,
            })
            .collect();
        let reminders = reminders(&views, self.now);
        let begun = views.iter().any(|view| view.block.begun);
        // The whole plan may move by what is left of the day after it.
        let spare = makespan.map(|makespan| self.horizon.saturating_sub(makespan));
        let first = starts.iter().min().copied().unwrap_or(0);
        DayView {
            status,
            now: self.now,
            day_ends: self.day_ends,
            finish: makespan.map(|makespan| self.at(makespan)),
            bound: self.at(bound),
            start_by: spare.filter(|_| !begun && !views.is_empty()).map(|spare| self.at(spare + first)),
            why,
            blocks: views,
            lanes: lanes(&day, &starts),
            has: self.has.each(),
            reminders,
            waiting: self.waiting_juice().collect(),
            ways_out: if makespan.is_none() { ways_out(self) } else { Vec::new() },
        }
    }
}

/// The last day that was laid out: every open screen asks for the same one, and it costs a search.
#[derive(Debug, Default)]
pub struct LastDay(Mutex<Option<(Ground, DayView)>>);

impl LastDay {
    /// The view of a ground, searched anew only when something changed.
    fn view(&self, ground: Ground) -> DayView {
        let mut last = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((_, view)) = last.as_ref().filter(|(before, _)| before.is_like(&ground)) {
            return view.clone();
        }
        let view = ground.view(last.as_ref().map(|(_, view)| view));
        *last = Some((ground, view.clone()));
        view
    }
}

async fn laid_out(shared: &web::Data<Shared>) -> Result<DayView, ApiError> {
    let ground = read(shared, ground).await?;
    let inner = shared.clone();
    off_thread(move || inner.last_day.view(ground)).await
}

/// The day from now on, laid out and proven as far as the time allows.
#[utoipa::path(responses((status = 200, body = DayView)))]
#[get("/api/day")]
pub async fn get_day(shared: web::Data<Shared>) -> Result<web::Json<DayView>, ApiError> {
    Ok(web::Json(laid_out(&shared).await?))
}

/// A block that takes longer.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SlipRequest {
    /// Its lasting name.
    pub block: String,
    /// Minutes longer than thought in all, -600 to 600; 0 takes it back.
    pub minutes: i64,
}

/// Says that a block takes longer; what depends on it moves.
#[utoipa::path(request_body = SlipRequest, responses((status = 200, body = DayView), (status = 422, body = Problem)))]
#[post("/api/day/slips")]
pub async fn slip_block(
    shared: web::Data<Shared>,
    Json(request): Json<SlipRequest>,
) -> Result<web::Json<DayView>, ApiError> {
    #[allow(clippy::cast_precision_loss)] // checked against ten hours
    DAY_SLIP.check(request.minutes as f64).named("minutes")?;
    let ground = read(&shared, ground).await?;
    let (block, planned) = ground.find(&request.block).ok_or_else(no_such_block)?;
    let usual = ground.usual(&block.key).unwrap_or(planned);
    change(&shared, move |shared| shared.store.set_slip(&block.key, usual, request.minutes)).await?;
    Ok(web::Json(laid_out(&shared).await?))
}

fn no_such_block() -> ApiError {
    ApiError::field("block", "the day has no such block; name it as the day does")
}

/// How far a block at the sink is.
#[derive(Debug, Deserialize, ToSchema)]
pub struct MarkRequest {
    /// Its lasting name.
    pub block: String,
    /// How far it is.
    pub mark: Mark,
}

/// Says that work at the sink begins, is done, or waits after all. The kettle, the jars and the canner tell theirs.
#[utoipa::path(request_body = MarkRequest, responses((status = 200, body = DayView), (status = 422, body = Problem)))]
#[post("/api/day/marks")]
pub async fn mark_block(
    shared: web::Data<Shared>,
    Json(request): Json<MarkRequest>,
) -> Result<web::Json<DayView>, ApiError> {
    let ground = read(&shared, ground).await?;
    let MarkRequest { block, mark } = request;
    if ground.find(&block).is_some_and(|(block, _)| !block.is_said) {
        return Err(ApiError::field("block", "the kettle, the jars and the canner tell this themselves"));
    }
    let usual = ground.usual(&block).ok_or_else(no_such_block)?;
    change(&shared, move |shared| shared.store.mark_block(&block, usual, mark, shared.clock.now())).await?;
    Ok(web::Json(laid_out(&shared).await?))
}

/// The day as iCalendar.
#[utoipa::path(responses((status = 200, content_type = "text/calendar")))]
#[get("/api/day.ics")]
pub async fn export_day(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    let view = laid_out(&shared).await?;
    let meeting = |block: &BlockView| Meeting {
        uid: format!("day-{}@bodega", block.block.key.replace(' ', "-")),
        summary: [
            Some(block.block.work.label().to_owned()),
            block.block.name.clone(),
            block.block.batch.clone(),
        ]
        .into_iter()
        .flatten()
        .collect::<Vec<_>>()
        .join(", "),
        span: (block.starts, block.ends),
    };
    let meetings: Vec<Meeting> = view.blocks.iter().map(meeting).collect();
    Ok(calendar_of(&meetings, view.now))
}
