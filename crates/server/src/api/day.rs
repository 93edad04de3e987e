//! The day on one strip: what is left of the batches, laid out from now on.

use std::sync::{Mutex, PoisonError};
use std::time::Duration;

use actix_web::{HttpResponse, get, post, web};
use bodega_core::day::work::{
    BatchWork, Block, CookWork, Lane, LoadWork, Pause, PrepareWork, Work, lanes, own_pace, tasks, together,
};
use bodega_core::day::{
    Day, Layout, Limits, Needs, Status, Wish, earlier_starts, later_starts, lay_out, shortest,
};
use bodega_core::limits::DAY_SLIP;
use bodega_core::moment::{Minutes, Moment};
use bodega_core::outlook::{WASH_SHARE, boiled_away, effort};
use bodega_core::process::{Method, Pack, Product};
use bodega_core::units::{grams, in_pounds};
use bodega_store::{Batch, CannerLoad, Kitchen, Lot, Slip, StoreError};
use serde::{Deserialize, Serialize};
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::api::cooks::{CookView, best_rate, on_stove};
use crate::api::exchange::{Meeting, calendar_of};
use crate::api::loads::come_up_of;
use crate::app::{Shared, change, off_thread, read};
use crate::clock::minute_of_day;
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Time to search for the strip; the screen waits for it.
const SEARCH: Limits = Limits { length: Duration::from_millis(1_200), waiting: Duration::from_millis(500) };
/// Time for each way out of a day that does not fit.
const SEARCH_WAY_OUT: Duration = Duration::from_millis(500);
/// Least minutes of an evening that is nearly over.
const LEAST_HORIZON: u32 = 15;

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

/// What a way out changes.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
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
        batch: i64,
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
}

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
            Work::Heat => Some("Put the canner on now".to_owned()),
            Work::Cook => Some(format!("Put the kettle on for batch {of} now")),
            Work::Fill => Some(format!("Fill {name} of batch {of} now, and have its water hot")),
            Work::Pause => Some("Time for the break".to_owned()),
            Work::Wash | Work::Skin | Work::Mill | Work::Load | Work::Lift => None,
        }
    })
    .collect()
}

fn whole(minutes: f64) -> u32 {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // clamped to a week
    let whole = minutes.ceil().clamp(1.0, 10_080.0) as u32;
    whole
}

/// Minutes from one moment to another, at least one.
fn minutes_to(from: Moment, to: Moment) -> u32 {
    whole(to.since(from).get::<minute>())
}

/// Come-up of a canner when it cannot be worked out; common practice, no source.
const USUAL_COME_UP: u32 = 25;

fn load_work(load: &CannerLoad, kitchen: &Kitchen, now: Moment, pace: f64) -> LoadWork {
    use bodega_core::boil_clock::Phase;
    let rest = load.clock.rest().0;
    let come_up = come_up_of(load, kitchen).map_or(USUAL_COME_UP, |time| whole(time.get::<minute>()));
    let full = load.clock.required().0 + rest;
    let minutes = match load.clock.phase(now) {
        Phase::Waiting => come_up + full,
        Phase::Heating { since } => full + come_up.saturating_sub(minutes_to(since, now)).max(1),
        Phase::Venting { .. } | Phase::Vented { .. } | Phase::BoilLost { .. } => full + 1,
        Phase::Counting { ends, .. } => minutes_to(now, ends) + rest,
        Phase::Resting { ends, .. } => minutes_to(now, ends),
        Phase::TimeUp { .. } | Phase::Dropping { .. } => rest,
        Phase::Rested { .. } | Phase::Lifted { .. } => 1,
    };
    let jars = load.jars.iter().filter(|jar| !jar.lid).count();
    #[allow(clippy::cast_precision_loss)] // a few dozen jars
    let fill = (jars > 0).then(|| whole(jars as f64 * effort(&load.batch.making()).hands_per_jar * pace));
    LoadWork {
        name: format!("load {}", load.position),
        fill,
        minutes,
        begun: !load.clock.happened().is_empty(),
        tops_up: load.batch.method == Method::BoilingWater,
    }
}

/// How far the break may move to either side of its hour.
const PAUSE_MOVES: u32 = 45;

/// The break, when it is still to come.
fn pause(kitchen: &Kitchen, now: Moment) -> Option<Pause> {
    let at = kitchen.break_at?.checked_sub(minute_of_day(now))?;
    Some(Pause {
        between: (at.saturating_sub(PAUSE_MOVES), at + PAUSE_MOVES),
        minutes: kitchen.break_minutes,
    })
}

/// The kitchen and what it has shown.
struct Learned<'a> {
    kitchen: &'a Kitchen,
    /// What took longer than thought.
    slips: &'a [Slip],
}

impl Learned<'_> {
    /// How much longer a kind of work takes here, from every batch but this one.
    fn pace(&self, work: Work, but: &str) -> f64 {
        let of_kind = |slip: &&Slip| {
            let mut words = slip.block.split(' ');
            words.next() != Some(but) && words.next() == Some(work.word())
        };
        let shown: Vec<(u32, i64)> =
            self.slips.iter().filter(of_kind).map(|slip| (slip.thought, slip.minutes)).collect();
        own_pace(&shown)
    }
}

/// Washing, then peeling or milling, at the household's own pace.
fn prepare(batch: &Batch, pounds: f64, learned: &Learned<'_>) -> Vec<PrepareWork> {
    let hands = pounds * effort(&batch.making()).hands_per_lb;
    let rest = match batch.product {
        Product::Whole | Product::Crushed => Work::Skin,
        Product::Juice | Product::VegetableJuice | Product::Sauce | Product::Paste => Work::Mill,
    };
    [(Work::Wash, WASH_SHARE), (rest, 1.0 - WASH_SHARE)]
        .map(|(work, share)| PrepareWork {
            work,
            minutes: whole(hands * share * learned.pace(work, &batch.code)),
        })
        .to_vec()
}

/// What is left to do of one batch.
fn batch_work(
    shared: &Shared,
    batch: &Batch,
    loads: &[CannerLoad],
    cooks: &[CookView],
    learned: &Learned<'_>,
) -> Result<BatchWork, StoreError> {
    let now = shared.clock.now();
    let making = batch.making();
    let own: Vec<&CannerLoad> =
        loads.iter().filter(|load| load.batch.id == batch.id && !load.jars.is_empty()).collect();
    let begun = batch.jars_lifted > 0
        || own.iter().any(|load| !load.clock.happened().is_empty() || load.jars.iter().any(|jar| jar.filled));
    let fruit = shared.store.batch_lots(batch.id)?;
    let pounds: f64 = fruit.iter().map(|(_, drawn)| in_pounds(grams(*drawn))).sum();
    let cook = cooks.iter().find(|cook| cook.batch.as_ref().is_some_and(|other| other.id == batch.id));
    let hot = batch.pack == Pack::Hot;
    let planned = || -> Result<CookWork, StoreError> {
        // The household's own kettle tells how long a cook-down takes.
        let rate = best_rate(&shared.store)?;
        let hours = |(lot, drawn): &(Lot, i64)| {
            let warm = effort(&making).stove_per_lb * in_pounds(grams(*drawn)) / 60.0;
            warm + boiled_away(&making, lot.kind, grams(*drawn)).get::<liter>() / rate
        };
        Ok(CookWork { minutes: whole(fruit.iter().map(hours).sum::<f64>() * 60.0), begun: false })
    };
    let cook = match cook {
        Some(cook) => Some(CookWork { minutes: minutes_to(now, cook.finish), begun: true }),
        None if begun || !hot => None,
        None => Some(planned()?),
    };
    let on_stove = cook.is_some_and(|cook| cook.begun);
    Ok(BatchWork {
        code: batch.code.clone(),
        prepare: if begun || on_stove { Vec::new() } else { prepare(batch, pounds, learned) },
        cook,
        loads: own
            .into_iter()
            .map(|load| load_work(load, learned.kitchen, now, learned.pace(Work::Fill, &batch.code)))
            .collect(),
    })
}

/// What the day is made of.
#[derive(Debug)]
struct Ground {
    now: Moment,
    day_ends: Moment,
    horizon: u32,
    has: Needs,
    works: Vec<BatchWork>,
    /// Records of the batches, in the order of the works.
    batches: Vec<i64>,
    /// When the work is to be done, in minutes after midnight.
    day_ends_at: u32,
    pause: Option<Pause>,
    slips: Vec<Slip>,
}

fn ground(shared: &Shared) -> Result<Ground, StoreError> {
    let now = shared.clock.now();
    let kitchen = shared.store.kitchen()?;
    let (loads, cooks) = (shared.store.open_loads()?, on_stove(shared)?);
    let slips = shared.store.slips()?;
    let open = shared.store.open_batches()?;
    let works = open
        .iter()
        .map(|batch| batch_work(shared, batch, &loads, &cooks, &Learned { kitchen: &kitchen, slips: &slips }))
        .collect::<Result<Vec<_>, _>>()?;
    let left = kitchen.day_ends.saturating_sub(minute_of_day(now));
    let horizon = left.max(LEAST_HORIZON);
    let count = |count: usize| u32::try_from(count).unwrap_or(u32::MAX);
    let has = Needs {
        people: kitchen.people,
        burners: kitchen.burners,
        kettles: count(shared.store.kettles()?.len()).max(1),
        canners: count(kitchen.canners.len()),
    };
    let day_ends = now.plus_minutes(i64::from(left));
    let pause = pause(&kitchen, now);
    let (batches, day_ends_at) = (open.iter().map(|batch| batch.id).collect(), kitchen.day_ends);
    Ok(Ground { now, day_ends, horizon, has, works, batches, day_ends_at, pause, slips })
}

impl Ground {
    /// Whether another moment asks for the same plan: the same minute of the same work.
    fn is_like(&self, other: &Self) -> bool {
        let whole_minute = |moment: Moment| moment.0 / Minutes(1).ms();
        whole_minute(self.now) == whole_minute(other.now)
            && self.horizon == other.horizon
            && self.has == other.has
            && self.pause == other.pause
            && self.works == other.works
            && self.slips == other.slips
    }

    fn slip(&self, block: &Block) -> i64 {
        self.slips.iter().find(|slip| slip.block == block.key).map_or(0, |slip| slip.minutes)
    }

    /// The tasks with what takes longer added to them.
    fn day(&self, works: &[BatchWork], has: Needs, horizon: u32) -> (Day, Vec<Block>) {
        let (mut day, blocks) = tasks(works, self.pause, has, horizon);
        for (task, block) in day.tasks.iter_mut().zip(&blocks) {
            let minutes = i64::from(task.minutes) + self.slip(block);
            task.minutes = u32::try_from(minutes.max(1)).unwrap_or(task.minutes);
        }
        (day, blocks)
    }

    fn at(&self, offset: u32) -> Moment {
        self.now.plus_minutes(i64::from(offset))
    }

    /// Ways to make the day fit, each of them solved.
    fn ways_out(&self) -> Vec<WayOut> {
        let more = |people, canners| Needs {
            people: self.has.people + people,
            canners: self.has.canners + canners,
            ..self.has
        };
        let all = || self.works.clone();
        let later = |hours: u32| WayStep::Later { day_ends: (self.day_ends_at + hours * 60).min(24 * 60) };
        let hands = WayStep::Hands { people: self.has.people + 1 };
        let mut tries: Vec<(String, WayStep, Vec<BatchWork>, Needs, u32)> = vec![
            ("One hour more".to_owned(), later(1), all(), self.has, self.horizon + 60),
            ("Two hours more".to_owned(), later(2), all(), self.has, self.horizon + 120),
            ("Another pair of hands".to_owned(), hands, all(), more(1, 0), self.horizon),
            ("Borrow a canner".to_owned(), WayStep::Canner, all(), more(0, 1), self.horizon),
            (
                "Another pair of hands and a borrowed canner".to_owned(),
                WayStep::Canner,
                all(),
                more(1, 1),
                self.horizon,
            ),
        ];
        for (place, work) in self.works.iter().enumerate() {
            // Only what nobody has touched can wait: fruit in the cold, or frozen.
            if !work.prepare.is_empty() {
                let mut without = self.works.clone();
                without.remove(place);
                let text = format!(
                    "Leave batch {} for tomorrow: its fruit keeps a day in the cold, or freeze it",
                    work.code
                );
                let step = WayStep::Leave { batch: self.batches[place] };
                tries.push((text, step, without, self.has, self.horizon));
            }
        }
        let mut found: Vec<WayOut> = tries
            .into_iter()
            .filter_map(|(text, step, works, has, horizon)| {
                let (day, _) = self.day(&works, has, horizon);
                let finish = shortest(&day, SEARCH_WAY_OUT).makespan?;
                Some(WayOut { text, step, finish: self.at(finish) })
            })
            .collect();
        found.sort_by_key(|way| way.finish);
        found
    }

    /// The day laid out, in the order of the last view when that is as good.
    fn view(&self, last: Option<&DayView>) -> DayView {
        let (day, blocks) = self.day(&self.works, self.has, self.horizon);
        let was_to_start = |block: &Block| {
            let view = last?.blocks.iter().find(|view| view.block.key == block.key)?;
            Some(view.starts.since_ms(self.now) / Minutes(1).ms())
        };
        let wish =
            Wish { together: together(&day, &blocks), before: blocks.iter().map(was_to_start).collect() };
        let Layout { status, makespan, bound, starts, why } = lay_out(&day, &wish, SEARCH);
        let shifted = |shift: fn(&Day, &[u32]) -> Vec<u32>| match starts.as_slice() {
            [] => Vec::new(),
            starts => shift(&day, starts),
        };
        let (early, late) = (shifted(earlier_starts), shifted(later_starts));
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
            ways_out: if makespan.is_none() { self.ways_out() } else { Vec::new() },
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
    let day = laid_out(&shared).await?;
    let block = day.blocks.iter().find(|view| view.block.key == request.block);
    let view = block
        .ok_or_else(|| ApiError::field("block", "the day has no such block; name it as the day does"))?;
    let planned = view.ends.since_ms(view.starts) / Minutes(1).ms() - view.slip_minutes;
    let thought = u32::try_from(planned.max(1)).unwrap_or(1);
    let slip = Slip { block: request.block, minutes: request.minutes, thought };
    change(&shared, move |shared| shared.store.set_slip(&slip)).await?;
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
