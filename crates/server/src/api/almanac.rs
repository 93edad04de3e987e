//! The rule book as the tables hold it, for drawing: times by altitude, pressures, acid, sources.

use actix_web::{get, web};
use bodega_core::acid::{self, Agent};
use bodega_core::altitude::{Altitude, WaterBand};
use bodega_core::jar::JarSize;
use bodega_core::moment::Minutes;
use bodega_core::process::{Gauge, Medium, Pack, Product, headspace_in, tables};
use bodega_core::source::Source;
use serde::Serialize;
use uom::si::thermodynamic_temperature::{degree_celsius, degree_fahrenheit};
use utoipa::ToSchema;

use crate::app::{Shared, known_altitude, read};
use crate::problem::ApiError;

/// A column of a table.
#[derive(Debug, Serialize, ToSchema)]
pub struct Band {
    /// Altitudes in words.
    pub label: String,
    /// Whether the kitchen lies in it.
    pub here: bool,
}

/// Times of one pack in one jar.
#[derive(Debug, Serialize, ToSchema)]
pub struct WaterLine {
    /// What is in the jar.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// The tested jar.
    pub jar: JarSize,
    /// Minutes by band.
    pub minutes: [Minutes; 4],
}

/// Pressures of one process.
#[derive(Debug, Serialize, ToSchema)]
pub struct PressureLine {
    /// Products it covers.
    pub products: Vec<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Minutes.
    pub minutes: Minutes,
    /// Pounds by band; `null` where it is not recommended.
    pub psi: Vec<Option<u32>>,
}

/// The table of one gauge.
#[derive(Debug, Serialize, ToSchema)]
pub struct PressureTable {
    /// `dial` or `weighted`.
    pub gauge: &'static str,
    /// Its columns.
    pub bands: Vec<Band>,
    /// Its rows.
    pub rows: Vec<PressureLine>,
}

/// Doses of one agent.
#[derive(Debug, Serialize, ToSchema)]
pub struct AcidRow {
    /// Which acid.
    pub agent: Agent,
    /// Dose by jar: half-pint, pint, 1½ pint, quart.
    pub doses: Vec<AcidDose>,
}

/// A dose.
#[derive(Debug, Serialize, ToSchema)]
pub struct AcidDose {
    /// The jar.
    pub jar: JarSize,
    /// As measured out.
    pub label: String,
}

/// Headspace of a product.
#[derive(Debug, Serialize, ToSchema)]
pub struct HeadspaceRow {
    /// The product.
    pub product: Product,
    /// Inches.
    pub inches: f64,
}

/// The rule book.
#[derive(Debug, Serialize, ToSchema)]
pub struct Almanac {
    /// The kitchen's altitude in feet, when it is known.
    pub altitude_ft: Option<f64>,
    /// Where water boils there, in degrees Celsius.
    pub boils_at_c: Option<f64>,
    /// The same in degrees Fahrenheit.
    pub boils_at_f: Option<f64>,
    /// Columns of the boiling-water table.
    pub bands: Vec<Band>,
    /// Its rows.
    pub water: Vec<WaterLine>,
    /// Pressure tables.
    pub pressure: Vec<PressureTable>,
    /// Acid by jar.
    pub acid: Vec<AcidRow>,
    /// Headspace by product.
    pub headspace: Vec<HeadspaceRow>,
    /// Where it all comes from.
    pub sources: Vec<Source>,
}

fn pressure_table(gauge: Gauge, altitude: Option<Altitude>) -> PressureTable {
    let labels = gauge.labels();
    let here = altitude.and_then(|altitude| gauge.column(altitude));
    PressureTable {
        gauge: match gauge {
            Gauge::Dial => "dial",
            Gauge::Weighted => "weighted",
        },
        bands: labels
            .iter()
            .enumerate()
            .map(|(column, label)| Band { label: (*label).to_owned(), here: here == Some(column) })
            .collect(),
        rows: tables()
            .pressure
            .iter()
            .filter(|row| row.gauge == gauge)
            .map(|row| PressureLine {
                products: row.products.clone(),
                medium: row.medium,
                minutes: row.minutes,
                psi: row.psi[..labels.len()].to_vec(),
            })
            .collect(),
    }
}

/// The rule book with the kitchen's own columns marked.
#[utoipa::path(responses((status = 200, body = Almanac)))]
#[get("/api/almanac")]
pub async fn get_almanac(shared: web::Data<Shared>) -> Result<web::Json<Almanac>, ApiError> {
    const ACID_JARS: [JarSize; 4] = [JarSize::HalfPint, JarSize::Pint, JarSize::PintAndHalf, JarSize::Quart];
    let kitchen = read(&shared, |shared| shared.store.kitchen()).await?;
    let altitude = known_altitude(&kitchen);
    let here = altitude.and_then(Altitude::water_band);
    let boils = altitude.map(Altitude::boiling_point);
    Ok(web::Json(Almanac {
        altitude_ft: kitchen.altitude_ft,
        boils_at_c: boils.map(|boils| boils.get::<degree_celsius>()),
        boils_at_f: boils.map(|boils| boils.get::<degree_fahrenheit>()),
        bands: WaterBand::EDGES_FT
            .iter()
            .map(|(band, _)| Band { label: band.label().to_owned(), here: here == Some(*band) })
            .collect(),
        water: tables()
            .water
            .iter()
            .map(|row| WaterLine {
                product: row.product,
                medium: row.medium,
                pack: row.pack,
                jar: row.jar,
                minutes: row.minutes,
            })
            .collect(),
        pressure: vec![pressure_table(Gauge::Dial, altitude), pressure_table(Gauge::Weighted, altitude)],
        acid: Agent::ALL
            .iter()
            .map(|agent| AcidRow {
                agent: *agent,
                doses: ACID_JARS
                    .iter()
                    .map(|jar| AcidDose { jar: *jar, label: acid::per_jar(*agent, *jar).label() })
                    .collect(),
            })
            .collect(),
        headspace: Product::ALL
            .iter()
            .map(|product| HeadspaceRow { product: *product, inches: headspace_in(*product) })
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
