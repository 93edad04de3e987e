//! Side by side, and the best split: what the waiting fruit should become.

use actix_web::{post, web};
use bodega_core::acid::{self, Agent};
use bodega_core::altitude::Altitude;
use bodega_core::jar::JarSize;
use bodega_core::limits::{DAY_MINUTES, JAR_COUNT};
use bodega_core::loads::Capacity;
use bodega_core::moment::Minutes;
use bodega_core::outlook::{self, Ground, Making, usual_jar};
use bodega_core::plan::{self, Wish};
use bodega_core::process::{Medium, Pack, Product, Query, look_up};
use bodega_core::split::{Choice, NoSplit, Question, Resource, Share, Split, SplitLot, Stock, limits, split};
use bodega_core::yields::learn::Household;
use bodega_core::yields::{Range, Thickness};
use bodega_store::{Batch, Cupboard, Draw, Goal, Kitchen, Lot, NewBatch, NewLoad};
use serde::{Deserialize, Serialize};
use uom::si::mass::gram;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::api::plan::{by_kind, waiting_lots};
use crate::app::{Shared, altitude_of, change, off_thread, read};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Fruit to look at.
#[derive(Debug, Deserialize, ToSchema)]
pub struct CompareRequest {
    /// Lots, all of what is left of each.
    pub lots: Vec<i64>,
    /// Acid of choice.
    pub agent: Agent,
}

/// The same fruit as one product.
#[derive(Debug, Serialize, ToSchema)]
pub struct Compared {
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// In which jars.
    pub jar: JarSize,
    /// Full jars.
    pub jars: Range<u32>,
    /// Grams of fruit in a jar.
    pub weight_per_jar_g: f64,
    /// Litres boiled away.
    pub boiled_away_l: f64,
    /// Hours of one burner.
    pub stove_hours: f64,
    /// Hands-on minutes.
    pub hands_minutes: Minutes,
    /// Canner loads.
    pub loads: u32,
    /// Minutes of the canner, turnarounds included.
    pub canner_minutes: Minutes,
    /// Tested minutes of a load; `null` when there is no tested process.
    pub minutes: Option<Minutes>,
    /// Acid for all jars, as measured out.
    pub acid: String,
    /// Household batches that the yield was learned from.
    pub learned_from: usize,
    /// What it needs that is not there, in words.
    pub missing: Vec<String>,
}

/// Hours there are.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct Hours {
    /// Minutes of the canner, 0 to 14,400.
    pub canner_minutes: f64,
    /// Minutes of burners, all together, 0 to 14,400.
    pub stove_minutes: f64,
    /// Minutes of hands, all together, 0 to 14,400.
    pub hands_minutes: f64,
}

/// A choice that the person has decided.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct Pin {
    /// Place of the choice in the answer.
    pub choice: usize,
    /// Jars of it, 0 to 1,000.
    pub jars: u32,
}

/// What is asked of the split.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct SplitRequest {
    /// Lots to share out.
    pub lots: Vec<i64>,
    /// Acid of choice.
    pub agent: Agent,
    /// Hours there are.
    pub hours: Hours,
    /// What the person has decided.
    #[serde(default)]
    pub pins: Vec<Pin>,
}

/// Fruit of one lot in a share.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct LotShare {
    /// The lot.
    pub lot: i64,
    /// Grams of it.
    pub weight_g: i64,
}

/// One choice of the split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitLine {
    /// Place, for pinning.
    pub choice: usize,
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// In which jars.
    pub jar: JarSize,
    /// Jars proposed.
    pub jars: u32,
    /// Jars the shelf asks for.
    pub goal: u32,
    /// Whether the person has decided the number.
    pub pinned: bool,
    /// Tested minutes.
    pub minutes: Minutes,
    /// Canner loads.
    pub loads: u32,
    /// Fruit it takes.
    pub fruit: Vec<LotShare>,
    /// Litres of thin juice drained off and canned as juice.
    pub drained_l: f64,
}

/// What limits the split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitLimit {
    /// What there is too little of, in words.
    pub what: String,
    /// What is tried: `one lid more`.
    pub step: &'static str,
    /// Jars more that it would give.
    pub jars_more: i64,
}

/// The best split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitAnswer {
    /// Every choice, in a fixed order.
    pub lines: Vec<SplitLine>,
    /// Jars in all.
    pub jars: u32,
    /// Grams of fruit left over.
    pub left_g: i64,
    /// Minutes of the canner it takes.
    pub canner_minutes: u32,
    /// Whether it is proven that no other split is worth more.
    pub proven: bool,
    /// What limits it, the most gainful first.
    pub limits: Vec<SplitLimit>,
}

struct Table {
    kitchen: Kitchen,
    altitude: Altitude,
    capacity: Vec<Capacity>,
    household: Household,
    cupboard: Cupboard,
    goals: Vec<Goal>,
    lots: Vec<Lot>,
}

async fn set_table(shared: &web::Data<Shared>, lots: &[i64]) -> Result<Table, ApiError> {
    let (kitchen, all, finished, cupboard, goals) = read(shared, |shared| {
        let store = &shared.store;
        Ok((store.kitchen()?, store.lots()?, store.finished()?, store.cupboard()?, store.goals()?))
    })
    .await?;
    Ok(Table {
        altitude: altitude_of(&kitchen)?,
        capacity: kitchen.canner.capacities(),
        household: Household { finished },
        lots: waiting_lots(&all, lots)?,
        kitchen,
        cupboard,
        goals,
    })
}

/// Why a number of jars of one size cannot be filled out of the cupboard, in words.
pub(crate) fn missing(cupboard: &Cupboard, agent: Agent, jar: JarSize, count: u32) -> Vec<String> {
    let mut words = Vec::new();
    let line = cupboard.jars.iter().find(|line| line.jar == jar);
    let mut short = |needed: u32, left: Option<u32>, one: &str| {
        if let Some(short) = left.and_then(|left| needed.checked_sub(left)).filter(|short| *short > 0) {
            words.push(if short == 1 { format!("1 {one}") } else { format!("{short} {one}s") });
        }
    };
    short(count, line.and_then(bodega_store::JarStock::left), jar.label());
    let lids = cupboard.lids.iter().find(|lids| line.is_some_and(|line| line.mouth == lids.mouth));
    short(count, lids.and_then(bodega_store::LidStock::left), "lid");
    let acid = cupboard.acids.iter().find(|line| line.agent == agent);
    let needed = acid::measured(agent, acid::per_jar(agent, jar).times(count));
    if acid.and_then(bodega_store::AcidStock::left).is_some_and(|left| left < needed) {
        words.push(agent.label().to_owned());
    }
    words
}

/// The waiting fruit as every product, side by side.
#[utoipa::path(request_body = CompareRequest,
    responses((status = 200, body = Vec<Compared>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan/compare")]
pub async fn compare(
    shared: web::Data<Shared>,
    Json(request): Json<CompareRequest>,
) -> Result<web::Json<Vec<Compared>>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    let ground = Ground {
        method: table.kitchen.canner.method,
        altitude: table.altitude,
        capacity: &table.capacity,
        turnaround: Minutes(table.kitchen.turnaround_minutes),
        agent: request.agent,
        household: &table.household,
    };
    let fruit = by_kind(&table.lots);
    let compared = Making::ALL
        .into_iter()
        .map(|making| {
            let seen = outlook::outlook(making, usual_jar(&making), &fruit, &ground);
            Compared {
                product: making.product,
                medium: making.medium,
                pack: making.pack,
                thickness: making.thickness,
                jar: seen.jar,
                jars: seen.jars,
                weight_per_jar_g: seen.weight_per_jar.get::<gram>(),
                boiled_away_l: seen.boiled_away.get::<liter>(),
                stove_hours: seen.stove_hours,
                hands_minutes: seen.hands,
                loads: seen.loads,
                canner_minutes: seen.canner,
                minutes: seen.process.as_ref().ok().map(|option| option.minutes),
                acid: seen.acid.total_label(),
                learned_from: seen.learned_from,
                missing: missing(&table.cupboard, request.agent, seen.jar, seen.jars.expected),
            }
        })
        .collect();
    Ok(web::Json(compared))
}

/// What a choice of the list is: the goals first, then what else the fruit could be, in its usual jar.
fn choices(table: &Table, agent: Agent, pins: &[Pin]) -> Vec<Choice> {
    let wanted = table.goals.iter().map(|goal| {
        let making =
            Making { product: goal.product, medium: goal.medium, pack: goal.pack, thickness: goal.thickness };
        (making, goal.jar, goal.count, goal.preference)
    });
    let mouth_of = |jar: JarSize| {
        let line = table.cupboard.jars.iter().find(|line| line.jar == jar);
        line.map_or_else(|| jar.usual_mouth(), |line| line.mouth)
    };
    // One way for each product that no goal asks for.
    let others =
        [Making::ALL[0], Making::ALL[4], Making::ALL[5], Making::ALL[6], Making::ALL[7], Making::ALL[8]];
    let others = others
        .into_iter()
        .filter(|making| {
            !table
                .goals
                .iter()
                .any(|goal| goal.product == making.product && goal.thickness == making.thickness)
        })
        .map(|making| (making, usual_jar(&making), 0, 1));
    wanted
        .chain(others)
        .filter_map(|(making, jar, goal, preference)| {
            let query = Query {
                product: making.product,
                medium: making.medium,
                pack: making.pack,
                method: table.kitchen.canner.method,
                jar,
                altitude: table.altitude,
            };
            let minutes = look_up(&query).ok()?.options[0].minutes;
            let fits = table.capacity.iter().find(|capacity| capacity.jar == jar)?.count;
            Some(Choice {
                making,
                jar,
                mouth: mouth_of(jar),
                minutes,
                fits,
                acid_tsp: acid::per_jar(agent, jar).as_f64(),
                goal,
                preference: f64::from(preference),
                pinned: None,
            })
        })
        .enumerate()
        .map(|(place, choice)| Choice {
            pinned: pins.iter().find(|pin| pin.choice == place).map(|pin| pin.jars),
            ..choice
        })
        .collect()
}

/// Stock and hours as the model counts them; what was never counted does not limit.
fn stock(table: &Table, agent: Agent, hours: Hours) -> Stock {
    let cupboard = &table.cupboard;
    let acid = cupboard.acids.iter().find(|line| line.agent == agent);
    Stock {
        jars: cupboard.jars.iter().filter_map(|line| Some((line.jar, line.left()?))).collect(),
        lids: cupboard.lids.iter().filter_map(|line| Some((line.mouth, line.left()?))).collect(),
        acid_tsp: acid.and_then(bodega_store::AcidStock::left).map(|left| acid::teaspoons_of(agent, left)),
        canner_minutes: Some(hours.canner_minutes),
        stove_minutes: Some(hours.stove_minutes),
        hands_minutes: Some(hours.hands_minutes),
    }
}

fn question<'a>(table: &'a Table, request: &SplitRequest) -> Result<Question<'a>, ApiError> {
    for (place, pin) in request.pins.iter().enumerate() {
        JAR_COUNT.check(f64::from(pin.jars)).named(&format!("pins[{place}].jars"))?;
    }
    let hours = request.hours;
    for (minutes, field) in [
        (hours.canner_minutes, "hours.canner_minutes"),
        (hours.stove_minutes, "hours.stove_minutes"),
        (hours.hands_minutes, "hours.hands_minutes"),
    ] {
        DAY_MINUTES.check(minutes).named(field)?;
    }
    let choices = choices(table, request.agent, &request.pins);
    for (place, pin) in request.pins.iter().enumerate() {
        if pin.choice >= choices.len() {
            let message = format!("there are {} choices; give 0 to {}", choices.len(), choices.len() - 1);
            return Err(ApiError::field(format!("pins[{place}].choice"), message));
        }
    }
    Ok(Question {
        lots: by_kind(&table.lots).into_iter().map(|(kind, weight)| SplitLot { kind, weight }).collect(),
        choices,
        stock: stock(table, request.agent, hours),
        turnaround: Minutes(table.kitchen.turnaround_minutes),
        household: &table.household,
    })
}

fn refuse(error: &NoSplit) -> ApiError {
    match error {
        NoSplit::PinnedTooMuch => ApiError::field("pins", error),
        NoSplit::Failed(_) => ApiError::Internal(error.to_string()),
    }
}

/// Whole grams of each lot in a share; what rounding would take too much of a lot is left in it.
fn fruit_of(table: &Table, share: &Share) -> Vec<LotShare> {
    table
        .lots
        .iter()
        .zip(&share.fruit)
        .filter_map(|(lot, weight)| {
            #[allow(clippy::cast_possible_truncation)] // within the weight of the lot
            let weight_g = (weight.get::<gram>() + 1e-3).floor() as i64;
            (weight_g > 0).then_some(LotShare { lot: lot.id, weight_g: weight_g.min(lot.left_g) })
        })
        .collect()
}

fn name_of(resource: Resource, table: &Table) -> String {
    match resource {
        Resource::Fruit(place) => format!("{} fruit", table.lots[place].kind.label()),
        Resource::Jars(jar) => jar.plural(),
        Resource::Lids(mouth) => format!("{} lids", mouth.label()),
        Resource::Acid => "acid".to_owned(),
        Resource::Canner => "canner hours".to_owned(),
        Resource::Stove => "burner hours".to_owned(),
        Resource::Hands => "hands".to_owned(),
    }
}

fn answer(table: &Table, question: &Question<'_>, found: &Split) -> Result<SplitAnswer, NoSplit> {
    let lines: Vec<SplitLine> = question
        .choices
        .iter()
        .zip(&found.shares)
        .enumerate()
        .map(|(place, (choice, share))| SplitLine {
            choice: place,
            product: choice.making.product,
            medium: choice.making.medium,
            pack: choice.making.pack,
            thickness: choice.making.thickness,
            jar: choice.jar,
            jars: share.jars,
            goal: choice.goal,
            pinned: choice.pinned.is_some(),
            minutes: choice.minutes,
            loads: share.loads,
            fruit: if share.jars == 0 { Vec::new() } else { fruit_of(table, share) },
            drained_l: share.drained.get::<liter>(),
        })
        .collect();
    let used: i64 = lines.iter().flat_map(|line| &line.fruit).map(|fruit| fruit.weight_g).sum();
    Ok(SplitAnswer {
        jars: lines.iter().map(|line| line.jars).sum(),
        left_g: table.lots.iter().map(|lot| lot.left_g).sum::<i64>() - used,
        canner_minutes: lines.iter().map(|line| line.loads * (line.minutes.0 + question.turnaround.0)).sum(),
        proven: found.proven,
        limits: limits(question, found)?
            .into_iter()
            .map(|limit| SplitLimit {
                what: name_of(limit.resource, table),
                step: limit.resource.step(),
                jars_more: limit.jars_more,
            })
            .collect(),
        lines,
    })
}

/// Works the best split out; off the async threads, because it is solved several times.
async fn solve<T: Send + 'static>(
    table: Table,
    request: SplitRequest,
    then: impl FnOnce(&Table, &Question<'_>, &Split) -> Result<T, NoSplit> + Send + 'static,
) -> Result<T, ApiError> {
    let work = move || {
        let question = question(&table, &request)?;
        let found = split(&question).map_err(|error| refuse(&error))?;
        then(&table, &question, &found).map_err(|error| refuse(&error))
    };
    off_thread(work).await?
}

/// How much of each lot should go to which product in which jars.
#[utoipa::path(request_body = SplitRequest,
    responses((status = 200, body = SplitAnswer), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan/split")]
pub async fn best_split(
    shared: web::Data<Shared>,
    Json(request): Json<SplitRequest>,
) -> Result<web::Json<SplitAnswer>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    Ok(web::Json(solve(table, request, answer).await?))
}

/// One batch of the split, with its loads.
fn batch(
    table: &Table,
    choice: &Choice,
    share: &Share,
    agent: Agent,
    day: &str,
) -> Result<NewBatch, NoSplit> {
    let volume = choice.jar.volume() * f64::from(share.jars);
    let wish = Wish {
        product: choice.making.product,
        medium: choice.making.medium,
        pack: choice.making.pack,
        method: table.kitchen.canner.method,
        altitude: table.altitude,
        volume: Range { low: volume, expected: volume, high: volume },
        agent,
        jar: choice.jar,
        mix: Some(vec![(choice.jar, share.jars)]),
    };
    let worked = plan::work_out(&wish, &table.capacity, Minutes(table.kitchen.turnaround_minutes))
        .map_err(|error| NoSplit::Failed(error.to_string()))?;
    let draws = fruit_of(table, share);
    Ok(NewBatch {
        day: day.to_owned(),
        product: wish.product,
        medium: wish.medium,
        pack: wish.pack,
        thickness: choice.making.thickness,
        method: wish.method,
        agent,
        salt: false,
        rest: None,
        altitude_ft: table.altitude.feet(),
        draws: draws.into_iter().map(|fruit| Draw { lot: fruit.lot, weight_g: fruit.weight_g }).collect(),
        loads: worked
            .loads
            .loads
            .iter()
            .map(|load| NewLoad {
                jars: load.jars.iter().map(|(_, count)| (choice.jar, *count)).collect(),
                minutes: load.minutes,
                psi: worked.mix[0].tested.options[0].psi,
            })
            .collect(),
        canner: table.kitchen.canner.id,
    })
}

/// Accepts the best split: a batch for every choice that has jars, all of them or none.
#[utoipa::path(request_body = SplitRequest,
    responses((status = 200, body = Vec<Batch>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan/split/accept")]
pub async fn accept_split(
    shared: web::Data<Shared>,
    Json(request): Json<SplitRequest>,
) -> Result<web::Json<Vec<Batch>>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    let agent = request.agent;
    let day = shared.clock.today();
    let batches = solve(table, request, move |table, question, found| {
        question
            .choices
            .iter()
            .zip(&found.shares)
            .filter(|(_, share)| share.jars > 0)
            .map(|(choice, share)| batch(table, choice, share, agent, &day))
            .collect::<Result<Vec<_>, _>>()
    })
    .await?;
    if batches.is_empty() {
        return Err(ApiError::field("lots", "the split fills no jar; take more fruit, jars or hours"));
    }
    let done = change(&shared, move |shared| shared.store.add_batches(&batches, shared.clock.now()));
    Ok(web::Json(done.await?))
}
