//! Putting a kettle on over HTTP: for which batch, how much, how far.

use actix_web::{post, web};
use bodega_core::kettle::cooking::{thickens, vessel};
use bodega_core::kettle::goal::as_packed;
use bodega_core::plan::stuff::in_kettle;
use bodega_core::plan::yields;
use bodega_core::recipe::bowls::planned;
use bodega_core::recipe::scale::raw_volume;
use bodega_model::crates::fruit::{Kind, common_kind};
use bodega_model::kettle::contents::Target;
use bodega_model::kettle::words::{HeatSetting, TargetKind, Warmth};
use bodega_model::measures::ids::{BatchId, KettleId};
use bodega_model::measures::limits::{BRIX, COOK_MINUTES, KETTLE_VOLUME, WEIGHT};
use bodega_model::measures::units::{Volume, in_litres_per_hour, kilograms, litres};
use bodega_model::plan::making::juice_brix;
use bodega_model::records::cook::{Cook, NewCook};
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::{Pack, Product};
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::compute::kettle::shapes::KettleTarget;
use crate::compute::kettle::target;
use crate::created::Created;
use crate::json::Json;
use crate::kettle::learned::learned;
use crate::kettle::view::{CookView, view};
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// Where a cook-down ends: one of them.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookGoal {
    /// Share of the start volume that is left.
    pub fraction_left: Option<f64>,
    /// °Brix.
    pub brix: Option<f64>,
    /// Litres that are left.
    pub volume_l: Option<f64>,
    /// Minutes of simmering, from the boil on.
    pub boil_minutes: Option<f64>,
    /// Minutes held hot without boiling.
    pub hold_minutes: Option<f64>,
    /// Only brought to the boil.
    pub to_boil: Option<bool>,
}

/// A cook-down to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookRequest {
    /// In which kettle.
    pub kettle: KettleId,
    /// The batch on the line that it is for.
    pub batch: Option<BatchId>,
    /// Litres that go in; or the weight of the raw fruit; or neither, for all of the batch that is not on the stove yet.
    pub volume_l: Option<f64>,
    /// Kilograms of raw fruit that were milled, when nobody measured the juice.
    pub weight_kg: Option<f64>,
    /// Their °Brix, when somebody measured it.
    pub brix: Option<f64>,
    /// Kind of fruit, from which the °Brix is taken when nobody did; that of the batch when it is not said.
    pub kind: Option<Kind>,
    /// Where it comes from, which says how warm it is; as warm as the kitchen when nothing is said.
    pub start: Option<Warmth>,
    /// How far the heat is turned up; full when nothing is said.
    pub setting: Option<HeatSetting>,
    /// Where it stops.
    pub target: CookGoal,
}

/// The goal as it is kept, checked.
fn goal(given: CookGoal) -> Result<(TargetKind, f64), ApiError> {
    let mark = [given.fraction_left, given.brix, given.volume_l].into_iter().flatten().count();
    let times = usize::from(given.boil_minutes.is_some())
        + usize::from(given.hold_minutes.is_some())
        + usize::from(given.to_boil == Some(true));
    let names = "fraction_left, brix, volume_l, boil_minutes, hold_minutes, to_boil";
    match mark + times {
        0 => return Err(ApiError::field("target", format!("give one of: {names}"))),
        1 => {}
        _ => return Err(ApiError::field("target", format!("give only one of: {names}"))),
    }
    let minutes = |given: f64, field: &str| COOK_MINUTES.check(given).named(field);
    if let Some(given) = given.boil_minutes {
        return Ok((TargetKind::BoilMinutes, minutes(given, "target.boil_minutes")?));
    }
    if let Some(given) = given.hold_minutes {
        return Ok((TargetKind::HoldMinutes, minutes(given, "target.hold_minutes")?));
    }
    if given.to_boil == Some(true) {
        return Ok((TargetKind::ToBoil, 1.0));
    }
    let CookGoal { fraction_left, brix, volume_l, .. } = given;
    match target(KettleTarget { fraction_left, brix, volume_l })? {
        Target::FractionLeft(share) => Ok((TargetKind::FractionLeft, share)),
        Target::Volume(volume) => Ok((TargetKind::VolumeL, volume.get::<liter>())),
        Target::Brix(brix) => Ok((TargetKind::Brix, brix)),
        Target::At(_) => Err(ApiError::Internal("a mark is no time".to_owned())),
    }
}

/// A batch that a kettle is put on for, with what it drew and what of it is on the stove or was.
struct ForBatch {
    fruit: Vec<(Lot, i64)>,
    /// Of a recipe, all of its parts raw.
    raw: Option<Volume>,
    cooks: Vec<Cook>,
    product: Product,
    pack: Pack,
}

impl ForBatch {
    fn kind(&self) -> Option<Kind> {
        common_kind(self.fruit.iter().map(|(lot, _)| lot.kind))
    }

    /// What of it was in no kettle yet.
    fn left(&self) -> Volume {
        let milled =
            self.fruit.iter().fold(litres(0.0), |sum, (lot, grams)| sum + in_kettle(&lot.stuff(*grams)));
        let all = self.raw.unwrap_or(milled);
        let on = self.cooks.iter().fold(all, |left, cook| left - litres(cook.volume_l));
        on.max(litres(0.0))
    }
}

/// Puts a kettle on.
#[utoipa::path(request_body = CookRequest,
    responses((status = 201, body = CookView), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks")]
pub async fn start_cook(
    shared: web::Data<Shared>,
    Json(request): Json<CookRequest>,
) -> Result<Created<CookView>, ApiError> {
    let batch = request.batch;
    let wanted = request.kettle;
    let (kettle, of) = read(&shared, move |shared| {
        let store = &shared.store;
        let of = batch
            .map(|id| {
                let raw = |bowls| Ok::<_, StoreError>(raw_volume(&planned(&store.any_bowls(bowls)?)));
                let batch = store.batch(id)?;
                let raw = batch.bowls.map(raw).transpose()?;
                Ok::<_, StoreError>(ForBatch {
                    raw,
                    product: batch.product,
                    pack: batch.pack,
                    fruit: store.batch_lots(id)?,
                    cooks: store.batch_cooks(id)?,
                })
            })
            .transpose()?;
        let kettle = store.kettles()?.into_iter().find(|kettle| kettle.id == wanted);
        let learned = kettle.as_ref().map(|kettle| learned(shared, kettle)).transpose()?;
        Ok((kettle.zip(learned), of))
    })
    .await?;
    let (kettle, learned) = kettle
        .ok_or_else(|| ApiError::field("kettle", format!("there is no kettle {wanted}; add it first")))?;
    let (volume, field) = match (request.volume_l, request.weight_kg, &of) {
        (Some(volume), None, _) => (litres(KETTLE_VOLUME.check(volume).named("volume_l")?), "volume_l"),
        (None, Some(weight), _) => {
            let weight = kilograms(WEIGHT.check(weight).named("weight_kg")?);
            // Skins and seeds stay in the mill: the published yield of juice allows for them.
            (yields::expect(Product::Juice, None, weight).expected, "weight_kg")
        }
        (None, None, Some(of)) if of.left() > litres(0.05) => (of.left(), "volume_l"),
        (None, None, Some(_)) => {
            return Err(ApiError::field(
                "volume_l",
                "all of this batch is on the stove; say how much goes in",
            ));
        }
        _ => return Err(ApiError::field("volume_l", "give volume_l or weight_kg, one of them")),
    };
    let brim = vessel(&kettle).brim();
    if volume > brim {
        let units = read(&shared, |shared| Ok(shared.store.kitchen()?.units)).await?;
        let message = format!(
            "{} holds {} to the brim, and this is {}; put a part of it into another kettle",
            kettle.name,
            units.volume(brim),
            units.volume(volume)
        );
        return Err(ApiError::field(field, message));
    }
    let kind = request.kind.or_else(|| of.as_ref().and_then(ForBatch::kind)).unwrap_or(Kind::Mixed);
    let brix = BRIX.check(request.brix.unwrap_or_else(|| juice_brix(kind))).named("brix")?;
    let asked = goal(request.target)?;
    let (target, target_value) = of.as_ref().map_or(asked, |of| as_packed(asked, of.product, of.pack));
    let setting = request.setting.unwrap_or(HeatSetting::High);
    let start = request.start.unwrap_or(Warmth::Room);
    let new = NewCook {
        kettle: kettle.id,
        batch,
        volume_l: volume.get::<liter>(),
        brix,
        target,
        target_value,
        setting,
        start_c: start.celsius(),
        litres_per_hour: in_litres_per_hour(learned.at(setting).rate),
        shown: Some(learned.shown(setting)),
    };
    if target.starts_with().is_none() && !thickens(&new) {
        return Err(ApiError::field("target", "boiling only thickens: choose less than what goes in"));
    }
    let done = change(&shared, Topic::Everything, move |shared| {
        view(shared, shared.store.start_cook(&new, shared.clock.now())?)
    });
    let body = done.await?;
    Ok(Created { at: format!("/api/cooks/{}", body.id), body })
}
