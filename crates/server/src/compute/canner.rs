//! What fits into the canner, and how much water goes in before the jars.

use bodega_core::canner::standing::most_of;
use std::collections::BTreeMap;

use actix_web::{post, web};
use bodega_core::canner::pot::{Cover, Filling, fill};
use bodega_model::canner::cover::COVER_IN;
use bodega_model::canner::outline::Outsides;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::limits::{JAR_COUNT, WATER_COVER};
use bodega_model::measures::units::{Length, inches};
use bodega_model::records::canner::PotSize;
use serde::{Deserialize, Serialize};
use uom::si::length::{inch, millimeter};
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::json::Json;
use crate::kitchen::canners::check_pot;
use crate::plan::view::JarCount;
use crate::problem::{ApiError, NameField, Problem};

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CannerRequest {
    /// The pot.
    pub vessel: PotSize,
    /// Jars that go in together.
    pub jars: Vec<JarCount>,
    /// Water wanted over the lids, in inches, 0 to 20.
    pub cover_in: f64,
}

/// The answer.
#[derive(Debug, Serialize, ToSchema)]
pub struct CannerAnswer {
    /// Whether the jars stand side by side and under water.
    pub fits: bool,
    /// Most of each size, alone.
    #[schema(value_type = BTreeMap<String, u32>)]
    pub max_of: BTreeMap<JarSize, u32>,
    /// Level to fill to before the jars go in.
    pub water_level_before_mm: f64,
    /// The same in litres.
    pub water_l: f64,
    /// From the water to the rim once the jars are in.
    pub headroom_mm: f64,
    /// What to mind.
    pub cautions: Vec<String>,
}

/// Works the canner out.
#[utoipa::path(request_body = CannerRequest, responses((status = 200, body = CannerAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/canner")]
pub async fn compute_canner(Json(request): Json<CannerRequest>) -> Result<web::Json<CannerAnswer>, ApiError> {
    let pot = check_pot(request.vessel, "vessel")?.inside();
    let mut jars = Vec::new();
    for (place, line) in request.jars.iter().enumerate() {
        JAR_COUNT.check(f64::from(line.count)).named(format_args!("jars[{place}].count"))?;
        jars.push((line.jar, line.count));
    }
    let cover = Length::new::<inch>(WATER_COVER.check(request.cover_in).named("cover_in")?);
    let outsides = Outsides::default();
    let Filling { fits, water, level_before, headroom, cautions, .. } =
        fill(&pot, &jars, Cover { at_start: cover, least: inches(COVER_IN) }, &outsides);
    Ok(web::Json(CannerAnswer {
        fits,
        max_of: JarSize::ALL.iter().map(|jar| (*jar, most_of(pot.outline, *jar, &outsides))).collect(),
        water_level_before_mm: level_before.get::<millimeter>(),
        water_l: water.get::<liter>(),
        headroom_mm: headroom.get::<millimeter>(),
        cautions: cautions.iter().map(ToString::to_string).collect(),
    }))
}
