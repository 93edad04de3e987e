//! What a plan stands on: kitchen, fruit, the household's own yields, the cupboard.

use actix_web::web;
use bodega_core::canner::loads::Load;
use bodega_core::canner::room::room_of;
use bodega_core::canner::standing::standing;
use bodega_core::canner::water::outline;
use bodega_core::kitchen::cupboard::missing;
use bodega_core::plan::batch::{BatchPlan, NoPlan, Wish};
use bodega_core::plan::packs::packs;
use bodega_core::plan::stuff::{cannot_become, volume};
use bodega_core::plan::yields::learn::Household;
use bodega_core::plan::{batch, yields};
use bodega_model::canner::outline::Outsides;
use bodega_model::contents::Added;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::volume_of;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::ids::LotId;
use bodega_model::measures::limits::JAR_COUNT;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::plan::making::Making;
use bodega_model::records::canner::Canner;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::lot::Lot;
use bodega_model::records::stock::Cupboard;
use bodega_model::tables::process::{Method, Product, Query, Refusal, check_medium, headspace, look_up};
use jiff::civil::Date;
use uom::si::length::inch;
use uom::si::volume::liter;

use crate::plan::view::{JarCount, MethodView, PlanAnswer, PlanLine, PlanLoad, PlanRequest, YieldView};
use crate::problem::{ApiError, NameField};
use crate::state::{Shared, altitude_of, read};

pub(crate) struct Ground {
    pub(crate) kitchen: Kitchen,
    pub(crate) altitude: Altitude,
    pub(crate) lots: Vec<Lot>,
    pub(crate) wish: Wish,
    pub(crate) yields: YieldView,
    pub(crate) cupboard: Cupboard,
    pub(crate) bottle_age_months: Option<f64>,
}

/// The lots asked for, each of them waiting on the line and named once.
pub(crate) fn waiting_lots(all: &[Lot], wanted: &[LotId]) -> Result<Vec<Lot>, ApiError> {
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

/// What is left of each lot, as a plan counts it.
pub(crate) fn stuff_of(lots: &[Lot]) -> Vec<Stuff> {
    lots.iter().map(|lot| lot.stuff(lot.left_g)).collect()
}

/// Why a lot cannot become a product.
fn refused(lot: &Lot, place: usize, product: Product) -> ApiError {
    ApiError::field(format!("lots[{place}]"), cannot_become(&lot.words(), &lot.stuff(lot.left_g), product))
}

/// Months between two days.
fn months_since(day: Date, today: Date) -> Option<f64> {
    const DAYS_A_MONTH: f64 = 30.4;
    Some(f64::from(today.since(day).ok()?.get_days()) / DAYS_A_MONTH)
}

/// Jars by size as somebody decided them.
pub(crate) fn checked_mix(jars: Option<&Vec<JarCount>>) -> Result<Option<Vec<(JarSize, u32)>>, ApiError> {
    for (place, line) in jars.into_iter().flatten().enumerate() {
        JAR_COUNT.check(f64::from(line.count)).named(format_args!("jars[{place}].count"))?;
    }
    Ok(jars.map(|jars| jars.iter().map(|line| (line.jar, line.count)).collect()))
}

/// The plan or the refusal; a capacity that is not known is about the jar that was asked for.
pub(crate) fn work_out(
    wish: &Wish,
    canner: &Canner,
    kitchen: &Kitchen,
) -> Result<Result<BatchPlan, Refusal>, ApiError> {
    let turnaround = Minutes(kitchen.turnaround_minutes);
    match batch::work_out(wish, &room_of(canner, &kitchen.outsides()), turnaround) {
        Ok(plan) => Ok(Ok(plan)),
        Err(NoPlan::Refused(refusal)) => Ok(Err(refusal)),
        Err(NoPlan::NoRoom(error)) => Err(ApiError::field("jar", error)),
    }
}

/// Refuses a recipe where plain tomatoes are asked about: its amounts, jars and minutes are its own.
pub(crate) fn check_plain(product: Product, field: &str) -> Result<(), ApiError> {
    if product == Product::Recipe {
        let words =
            "a recipe has its own jars and minutes; plan it from the book of recipes, at /api/recipes";
        return Err(ApiError::field(field, words));
    }
    Ok(())
}

/// Everything that goes in besides has an amount that can be counted.
pub(crate) fn check_additions(additions: Option<&Vec<Added>>) -> Result<(), ApiError> {
    for (place, item) in additions.into_iter().flatten().enumerate() {
        item.counted()
            .map_err(|error| ApiError::field(format!("additions[{place}].{}", error.field()), error))?;
    }
    Ok(())
}

pub(crate) async fn ground(shared: &web::Data<Shared>, request: &PlanRequest) -> Result<Ground, ApiError> {
    check_plain(request.product, "product")?;
    check_medium(request.product, request.medium).map_err(|error| ApiError::field("medium", error))?;
    if (request.product == Product::Sauce) != request.thickness.is_some() {
        return Err(ApiError::field(
            "thickness",
            "thickness goes with sauce, and only with sauce: thin or thick",
        ));
    }
    check_additions(request.additions.as_ref())?;
    let mix = checked_mix(request.jars.as_ref())?;
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
    let volume = volume(&household, &making, &stuff_of(&lots))
        .map_err(|place| refused(&lots[place], place, request.product))?;
    let wish = Wish {
        product: request.product,
        recipe: None,
        medium: request.medium,
        pack: request.pack,
        method: kitchen.canner.method,
        altitude,
        volume,
        agent: request.agent,
        jar: request.jar,
        mix,
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
    let bottle_age_months =
        opened.and_then(|acid| acid.opened_on).and_then(|day| months_since(day, shared.clock.today()));
    Ok(Ground { kitchen, altitude, lots, wish, yields, cupboard, bottle_age_months })
}

/// The loads of a plan as they stand in the canner.
pub(crate) fn planned_loads(plan: &BatchPlan, canner: &Canner, outsides: &Outsides) -> Vec<PlanLoad> {
    let outline = outline(canner);
    let of_load = |load: &Load| {
        let jars: Vec<JarCount> = load
            .jars
            .iter()
            .map(|(place, count)| JarCount { jar: plan.mix[*place].jar, count: *count })
            .collect();
        let sizes: Vec<JarSize> = jars.iter().flat_map(|line| vec![line.jar; line.count as usize]).collect();
        PlanLoad {
            standing: standing(outline, &sizes, outsides).unwrap_or_default(),
            stretch: outline.stretch(),
            minutes: load.minutes,
            jars,
        }
    };
    plan.loads.loads.iter().map(of_load).collect()
}

impl Ground {
    /// The plan or the refusal.
    pub(crate) fn work_out(&self) -> Result<Result<BatchPlan, Refusal>, ApiError> {
        work_out(&self.wish, &self.kitchen.canner, &self.kitchen)
    }

    pub(crate) fn methods(&self, plan: &BatchPlan) -> Vec<MethodView> {
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

    pub(crate) fn sea_level_minutes(&self, jar: JarSize) -> Option<Minutes> {
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

    pub(crate) fn answer(&self, plan: BatchPlan) -> PlanAnswer {
        let headspace_in = headspace(self.wish.product).unwrap_or_default().get::<inch>();
        let litres = |volume: bodega_model::measures::units::Volume| volume.get::<liter>();
        let loads = planned_loads(&plan, &self.kitchen.canner, &self.kitchen.outsides());
        let mut notes: Vec<&'static str> = self.lots.iter().filter_map(|lot| lot.food.note()).collect();
        notes.dedup();
        PlanAnswer {
            notes,
            weight_g: self.lots.iter().map(|lot| lot.left_g).sum(),
            litres: Range {
                low: litres(plan.volume.low),
                expected: litres(plan.volume.expected),
                high: litres(plan.volume.high),
            },
            full_jars: plan.full_jars,
            left_over_litres: litres(plan.left_over),
            acid_total: self.kitchen.spoons.amount_with_volume(self.wish.agent, plan.acid_total.as_f64()),
            headspace_in,
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
            packs: packs(self.wish.product, self.wish.method, self.wish.jar, self.altitude),
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
                    acid: self.kitchen.spoons.dose(self.wish.agent, line.acid),
                    acid_volume: volume_of(self.wish.agent, line.acid.as_f64()),
                    salt: line.salt.label(),
                    options: line.tested.options,
                    cautions: line.tested.cautions.iter().map(ToString::to_string).collect(),
                    source: line.tested.source,
                })
                .collect(),
        }
    }
}
