//! Planning a batch: the answer before the work starts, and accepting it.

use actix_web::{post, web};
use bodega_core::acid::Agent;
use bodega_core::altitude::Altitude;
use bodega_core::canner::{Place, standing};
use bodega_core::checklist::Rest;
use bodega_core::findings::case::CaseAcid;
use bodega_core::findings::{Case, Finding, judge};
use bodega_core::fruit::Kind;
use bodega_core::jar::JarSize;
use bodega_core::limits::JAR_COUNT;
use bodega_core::moment::Minutes;
use bodega_core::outlook::{self, Making};
use bodega_core::plan::{self, BatchPlan, NoPlan, Wish};
use bodega_core::process::{
    Medium, Method, Pack, ProcessOption, Product, Query, Refusal, check_medium, headspace_in, look_up,
};
use bodega_core::source::Source;
use bodega_core::units::{Mass, Time, grams};
use bodega_core::yields::learn::Household;
use bodega_core::yields::{self, Range, Thickness};
use bodega_store::{Batch, Cupboard, Draw, Kitchen, Lot, NewBatch, NewLoad};
use serde::{Deserialize, Serialize};
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::api::loads::inner_width;
use crate::api::split::missing;
use crate::app::{Shared, altitude_of, change, read};
use crate::json::Json;
use crate::judging::{case_jars, planned_acid};
use crate::problem::{ApiError, NameField, Problem};

/// What a person wants to make.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct PlanRequest {
    /// What it becomes.
    pub product: Product,
    /// For whole tomatoes.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// For sauce.
    pub thickness: Option<Thickness>,
    /// Jar most of it goes into.
    pub jar: JarSize,
    /// Jars by size when the person has decided; `null` lets the plan propose.
    pub jars: Option<Vec<JarCount>>,
    /// Acid of choice.
    pub agent: Agent,
    /// Salt wanted.
    #[serde(default)]
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// Lots to draw from, all of what is left of each.
    pub lots: Vec<i64>,
}

/// So many jars of one size.
#[derive(Debug, Clone, Copy, Deserialize, Serialize, ToSchema)]
pub struct JarCount {
    /// Size.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
}

/// Like jars of the plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanLine {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// Acid for one, as measured out.
    pub acid: String,
    /// Salt for one, as measured out.
    pub salt: String,
    /// Ways to run the tested process.
    pub options: Vec<ProcessOption>,
    /// Minutes the same jar would need at sea level, to show what the altitude adds.
    pub sea_level_minutes: Minutes,
    /// What to mind.
    pub cautions: Vec<String>,
    /// Source of the time.
    pub source: Source,
}

/// One canner load of the plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanLoad {
    /// What goes in.
    pub jars: Vec<JarCount>,
    /// Where the jars stand, from above, in the order of the counts.
    pub standing: Vec<Place>,
    /// How long.
    pub minutes: Minutes,
}

/// A plan that can be carried out.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanAnswer {
    /// Grams of fruit it draws.
    pub weight_g: i64,
    /// Litres of product.
    pub litres: Range<f64>,
    /// Full jars of the main size.
    pub full_jars: Range<u32>,
    /// Jars to set out.
    pub lines: Vec<PlanLine>,
    /// Litres left over after them; negative when the jars hold more than is expected.
    pub left_over_litres: f64,
    /// Acid for all jars, as measured out.
    pub acid_total: String,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Canner loads.
    pub loads: Vec<PlanLoad>,
    /// Minutes the canner is busy, turnarounds included.
    pub canner_minutes: Minutes,
    /// Whether no other grouping of these jars is shorter.
    pub shortest: bool,
    /// Why they are grouped so, in one line.
    pub why: String,
    /// Source of the yield.
    pub yield_source: Source,
    /// What the cupboard lacks for it, in words.
    pub missing: Vec<String>,
    /// The same jars by every method, side by side.
    pub methods: Vec<MethodView>,
    /// What a quart takes, published and by the household's own batches.
    pub yields: YieldView,
}

/// The plan's jars by one method.
#[derive(Debug, Serialize, ToSchema)]
pub struct MethodView {
    /// The method.
    pub method: Method,
    /// Ways to run it, for the jar that needs longest; empty when there is no tested process.
    pub options: Vec<ProcessOption>,
    /// Why there is none.
    pub refusal: Option<String>,
}

/// Pounds of fruit to a quart.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct YieldView {
    /// As published.
    pub published: Range<f64>,
    /// As the household's batches have moved it; the published range with none.
    pub learned: Range<f64>,
    /// Batches of the household it was learned from.
    pub batches: usize,
}

/// Either a plan or a refusal.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanPreview {
    /// The altitude it was looked up for, in feet.
    pub altitude_ft: f64,
    /// The plan, when every jar has a tested process.
    pub plan: Option<PlanAnswer>,
    /// Why there is none.
    pub refusal: Option<Refusal>,
    /// What the judge has to say of the plan.
    pub findings: Vec<Finding>,
}

struct Ground {
    kitchen: Kitchen,
    altitude: Altitude,
    lots: Vec<Lot>,
    wish: Wish,
    yields: YieldView,
    cupboard: Cupboard,
    bottle_age_months: Option<f64>,
}

/// The lots asked for, each of them waiting on the line and named once.
pub(crate) fn waiting_lots(all: &[Lot], wanted: &[i64]) -> Result<Vec<Lot>, ApiError> {
    let mut lots = Vec::new();
    for (place, id) in wanted.iter().enumerate() {
        let lot = all.iter().find(|lot| lot.id == *id && lot.condition.can_be_canned()).ok_or_else(|| {
            ApiError::field(format!("lots[{place}]"), format!("lot {id} is not waiting on the line"))
        })?;
        if wanted[..place].contains(id) {
            return Err(ApiError::field(format!("lots[{place}]"), format!("lot {id} stands twice")));
        }
        lots.push(lot.clone());
    }
    if lots.is_empty() {
        return Err(ApiError::field("lots", "no lot is chosen; choose at least one"));
    }
    Ok(lots)
}

/// Kind and weight left of each lot.
pub(crate) fn by_kind(lots: &[Lot]) -> Vec<(Kind, Mass)> {
    lots.iter().map(|lot| (lot.kind, grams(lot.left_g))).collect()
}

/// Months between two days, as far as both are days.
fn months_since(day: &str, today: &str) -> Option<f64> {
    const DAYS_A_MONTH: f64 = 30.4;
    let (day, today): (jiff::civil::Date, jiff::civil::Date) = (day.parse().ok()?, today.parse().ok()?);
    Some(f64::from(today.since(day).ok()?.get_days()) / DAYS_A_MONTH)
}

async fn ground(shared: &web::Data<Shared>, request: &PlanRequest) -> Result<Ground, ApiError> {
    check_medium(request.product, request.medium).map_err(|error| ApiError::field("medium", error))?;
    if (request.product == Product::Sauce) != request.thickness.is_some() {
        return Err(ApiError::field(
            "thickness",
            "thickness goes with sauce, and only with sauce: thin or thick",
        ));
    }
    for (place, line) in request.jars.iter().flatten().enumerate() {
        JAR_COUNT.check(f64::from(line.count)).named(&format!("jars[{place}].count"))?;
    }
    let (kitchen, all, finished, cupboard) = read(shared, |shared| {
        let store = &shared.store;
        Ok((store.kitchen()?, store.lots()?, store.finished()?, store.cupboard()?))
    })
    .await?;
    let altitude = altitude_of(&kitchen)?;
    let lots = waiting_lots(&all, &request.lots)?;
    let household = Household { finished };
    let making = Making {
        product: request.product,
        medium: request.medium,
        pack: request.pack,
        thickness: request.thickness,
    };
    let volume = outlook::volume(&household, &making, &by_kind(&lots));
    let wish = Wish {
        product: request.product,
        medium: request.medium,
        pack: request.pack,
        method: kitchen.canner.method,
        altitude,
        volume,
        agent: request.agent,
        jar: request.jar,
        mix: request.jars.as_ref().map(|jars| jars.iter().map(|line| (line.jar, line.count)).collect()),
    };
    // Shown for the kind that most was learned about; each lot is counted by its own.
    let learned = lots
        .iter()
        .map(|lot| household.learn(making.product, making.thickness, lot.kind))
        .max_by_key(|learned| learned.batches)
        .ok_or_else(|| ApiError::field("lots", "no lot is chosen; choose at least one"))?;
    let yields = YieldView {
        published: learned.published,
        learned: learned.pounds_per_quart,
        batches: learned.batches,
    };
    let opened = cupboard.acids.iter().find(|acid| acid.agent == request.agent);
    let bottle_age_months = opened
        .and_then(|acid| acid.opened_on.clone())
        .and_then(|day| months_since(&day, &shared.clock.today()));
    Ok(Ground { kitchen, altitude, lots, wish, yields, cupboard, bottle_age_months })
}

impl Ground {
    /// The plan or the refusal; a capacity that is not known is about the jar that was asked for.
    fn work_out(&self) -> Result<Result<BatchPlan, Refusal>, ApiError> {
        let turnaround = Minutes(self.kitchen.turnaround_minutes);
        match plan::work_out(&self.wish, &self.kitchen.canner.capacities(), turnaround) {
            Ok(plan) => Ok(Ok(plan)),
            Err(NoPlan::Refused(refusal)) => Ok(Err(refusal)),
            Err(NoPlan::NoCapacity(error)) => Err(ApiError::field("jar", error)),
        }
    }

    fn methods(&self, plan: &BatchPlan) -> Vec<MethodView> {
        let of = |method: &Method| {
            let looked_up = plan.mix.iter().map(|line| {
                look_up(&Query {
                    product: self.wish.product,
                    medium: self.wish.medium,
                    pack: self.wish.pack,
                    method: *method,
                    jar: line.jar,
                    altitude: self.altitude,
                })
            });
            match looked_up.collect::<Result<Vec<_>, Refusal>>() {
                Ok(tested) => {
                    let longest = tested.into_iter().max_by_key(|tested| tested.options[0].minutes);
                    let options = longest.map(|tested| tested.options).unwrap_or_default();
                    MethodView { method: *method, options, refusal: None }
                }
                Err(refusal) => {
                    MethodView { method: *method, options: Vec::new(), refusal: Some(refusal.message) }
                }
            }
        };
        Method::ALL.iter().map(of).collect()
    }

    fn sea_level_minutes(&self, jar: JarSize) -> Option<Minutes> {
        let query = Query {
            product: self.wish.product,
            medium: self.wish.medium,
            pack: self.wish.pack,
            method: self.wish.method,
            jar,
            altitude: Altitude::from_feet(0.0).ok()?,
        };
        look_up(&query).ok().map(|tested| tested.options[0].minutes)
    }

    fn findings(&self, plan: &BatchPlan) -> Vec<Finding> {
        let jars: Vec<(JarSize, u32)> = plan.mix.iter().map(|line| (line.jar, line.count)).collect();
        let sizes: Vec<JarSize> = plan.mix.iter().map(|line| line.jar).collect();
        let minutes = plan.loads.loads.iter().map(|load| load.minutes.0).max();
        let case = Case {
            product: Some(self.wish.product),
            medium: self.wish.medium,
            pack: Some(self.wish.pack),
            heating: Some(self.wish.method.into()),
            altitude: Some(self.altitude),
            minutes: minutes.map(|minutes| Time::new::<minute>(f64::from(minutes))),
            jars: Some(case_jars(&jars)),
            acid: Some(CaseAcid {
                bottle_age_months: self.bottle_age_months,
                ..planned_acid(self.wish.agent, &sizes)
            }),
            ..Case::default()
        };
        // A plan of no jars yet is not a mistake.
        if jars.iter().all(|(_, count)| *count == 0) { Vec::new() } else { judge(&case).findings }
    }

    fn answer(&self, plan: BatchPlan) -> PlanAnswer {
        let litres = |volume: bodega_core::units::Volume| volume.get::<liter>();
        let (width, outsides) = (inner_width(&self.kitchen.canner), self.kitchen.outsides());
        let loads = plan
            .loads
            .loads
            .iter()
            .map(|load| {
                let jars: Vec<JarCount> = load
                    .jars
                    .iter()
                    .map(|(index, count)| JarCount { jar: plan.mix[*index].jar, count: *count })
                    .collect();
                let sizes: Vec<JarSize> =
                    jars.iter().flat_map(|line| vec![line.jar; line.count as usize]).collect();
                PlanLoad { jars, standing: standing(width, &sizes, &outsides), minutes: load.minutes }
            })
            .collect();
        PlanAnswer {
            weight_g: self.lots.iter().map(|lot| lot.left_g).sum(),
            litres: Range {
                low: litres(plan.volume.low),
                expected: litres(plan.volume.expected),
                high: litres(plan.volume.high),
            },
            full_jars: plan.full_jars,
            left_over_litres: litres(plan.left_over),
            acid_total: plan.acid_total.total_label(),
            headspace_in: headspace_in(self.wish.product),
            loads,
            canner_minutes: plan.loads.total,
            why: plan.why.clone(),
            shortest: plan.loads.total == plan.loads.lower_bound,
            yield_source: yields::source(self.wish.product),
            missing: plan
                .mix
                .iter()
                .flat_map(|line| missing(&self.cupboard, self.wish.agent, line.jar, line.count))
                .collect(),
            methods: self.methods(&plan),
            yields: self.yields.clone(),
            lines: plan
                .mix
                .into_iter()
                .map(|line| PlanLine {
                    sea_level_minutes: self
                        .sea_level_minutes(line.jar)
                        .unwrap_or(line.tested.options[0].minutes),
                    jar: line.jar,
                    count: line.count,
                    acid: line.acid.label(),
                    salt: line.salt.label(),
                    options: line.tested.options,
                    cautions: line.tested.cautions.iter().map(ToString::to_string).collect(),
                    source: line.tested.source,
                })
                .collect(),
        }
    }
}

/// Works a wish out without keeping it.
#[utoipa::path(request_body = PlanRequest,
    responses((status = 200, body = PlanPreview), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan")]
pub async fn preview_plan(
    shared: web::Data<Shared>,
    Json(request): Json<PlanRequest>,
) -> Result<web::Json<PlanPreview>, ApiError> {
    let ground = ground(&shared, &request).await?;
    let altitude_ft = ground.altitude.feet();
    Ok(web::Json(match ground.work_out()? {
        Ok(plan) => {
            let findings = ground.findings(&plan);
            PlanPreview { altitude_ft, plan: Some(ground.answer(plan)), refusal: None, findings }
        }
        Err(refusal) => PlanPreview { altitude_ft, plan: None, refusal: Some(refusal), findings: Vec::new() },
    }))
}

/// Accepts a plan: the fruit is drawn, the jars and loads are set out.
#[utoipa::path(request_body = PlanRequest,
    responses((status = 200, body = Batch), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches")]
pub async fn accept_plan(
    shared: web::Data<Shared>,
    Json(request): Json<PlanRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let ground = ground(&shared, &request).await?;
    let plan = ground.work_out()?.map_err(|refusal| ApiError::field("jar", refusal.message))?;
    let loads: Vec<NewLoad> = plan
        .loads
        .loads
        .iter()
        .map(|load| NewLoad {
            jars: load.jars.iter().map(|(index, count)| (plan.mix[*index].jar, *count)).collect(),
            minutes: load.minutes,
            // All jars of a batch take the same option: the one with the lowest pressure.
            psi: plan.mix[load.jars[0].0].tested.options[0].psi,
        })
        .collect();
    if loads.is_empty() {
        return Err(ApiError::field("jars", "the plan fills no jar; take more fruit or a smaller jar"));
    }
    let batch = NewBatch {
        day: shared.clock.today(),
        product: request.product,
        medium: request.medium,
        pack: request.pack,
        thickness: request.thickness,
        method: ground.wish.method,
        agent: request.agent,
        salt: request.salt,
        rest: request.rest,
        altitude_ft: ground.altitude.feet(),
        draws: ground.lots.iter().map(|lot| Draw { lot: lot.id, weight_g: lot.left_g }).collect(),
        loads,
        canner: ground.kitchen.canner.id,
    };
    Ok(web::Json(change(&shared, move |shared| shared.store.add_batch(&batch, shared.clock.now())).await?))
}
