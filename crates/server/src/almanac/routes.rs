//! The rule book over HTTP.

use actix_web::{get, web};
use bodega_core::figures::{FigureName, KnownFigure, known};
use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::volume_of;
use bodega_model::kitchen::altitude::{Altitude, WaterBand};
use bodega_model::ledger::keep::FREEZER_HEADSPACE;
use bodega_model::published::source::Source;
use bodega_model::records::kitchen::Units;
use bodega_model::tables::process::{Gauge, Method, Product, headspace, tables};
use uom::si::length::inch;
use uom::si::thermodynamic_temperature::{degree_celsius, degree_fahrenheit};

use crate::almanac::view::{
    AcidDose, AcidRow, Almanac, HeadspaceRow, WaterLine, bands, own_column, pressure_table,
};
use crate::problem::ApiError;
use crate::state::{Shared, read};

/// The rule book with the kitchen's own columns marked.
#[utoipa::path(responses((status = 200, body = Almanac)))]
#[get("/api/almanac")]
pub async fn get_almanac(shared: web::Data<Shared>) -> Result<web::Json<Almanac>, ApiError> {
    let kitchen = read(&shared, |shared| shared.store.kitchen()).await?;
    let acid_jars = match kitchen.units {
        Units::Us => [JarSize::HalfPint, JarSize::Pint, JarSize::PintAndHalf, JarSize::Quart],
        Units::Metric => [JarSize::Pint, JarSize::HalfLitre, JarSize::Quart, JarSize::Litre],
    };
    let height = kitchen.ways.height;
    let altitude = kitchen.altitude();
    let own = own_column(Method::BoilingWater, altitude);
    let boils = altitude.map(Altitude::boiling_point);
    Ok(web::Json(Almanac {
        altitude_ft: kitchen.altitude_ft,
        boils_at_c: boils.map(|boils| boils.get::<degree_celsius>()),
        boils_at_f: boils.map(|boils| boils.get::<degree_fahrenheit>()),
        boils_beside_the_sea: altitude.map(Altitude::beside_the_sea),
        bands: bands(WaterBand::labels(height), own.as_ref().ok().copied()),
        no_column: own.err(),
        water: tables()
            .water
            .iter()
            .map(|row| WaterLine {
                product: row.product,
                medium: row.medium,
                pack: row.pack,
                jar: row.jar,
                timed_alike: row.jar.metric_like().filter(|_| kitchen.units == Units::Metric),
                minutes: row.minutes,
            })
            .collect(),
        pressure: vec![
            pressure_table(Gauge::Dial, altitude, height),
            pressure_table(Gauge::Weighted, altitude, height),
        ],
        acid: Agent::ALL
            .iter()
            .map(|agent| AcidRow {
                agent: *agent,
                doses: acid_jars
                    .iter()
                    .map(|jar| {
                        let dose = acid::per_jar(*agent, *jar);
                        AcidDose {
                            jar: *jar,
                            label: kitchen.spoons.dose(*agent, dose),
                            volume: volume_of(*agent, dose.as_f64()),
                        }
                    })
                    .collect(),
            })
            .collect(),
        freezer_headspace: FREEZER_HEADSPACE,
        headspace: Product::ALL
            .iter()
            .filter_map(|product| {
                Some(HeadspaceRow { product: *product, inches: headspace(*product)?.get::<inch>() })
            })
            .collect(),
        sources: vec![
            Source::usda_guide_3(),
            Source::usda_guide_1(),
            Source::nchfp(),
            Source::steam_guidance(),
            Source::cfr_114(),
        ],
    }))
}

/// Every figure that the screens show: what it rests on, where it comes from, how sure it is.
#[utoipa::path(responses((status = 200, body = Vec<KnownFigure>)))]
#[get("/api/figures")]
pub async fn list_figures() -> web::Json<Vec<KnownFigure>> {
    web::Json(FigureName::ALL.iter().map(|figure| known(*figure)).collect())
}
