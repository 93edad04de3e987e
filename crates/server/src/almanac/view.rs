//! The rule book as the tables hold it, for drawing.

use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::HeightIn;
use bodega_model::measures::moment::Minutes;
use bodega_model::published::source::Source;
use bodega_model::tables::process;
use bodega_model::tables::process::{Gauge, Medium, Method, Pack, Product, tables};
use serde::Serialize;
use utoipa::ToSchema;

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
    /// In a metric kitchen, the jar that is timed like it.
    pub timed_alike: Option<JarSize>,
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
    /// Why none of them is this kitchen's; `null` when one is.
    pub no_column: Option<String>,
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
    /// The same without spoons: `30 mL`.
    pub volume: String,
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
    /// How that differs from the sea, in words.
    pub boils_beside_the_sea: Option<&'static str>,
    /// Columns of the boiling-water table.
    pub bands: Vec<Band>,
    /// Why none of them is this kitchen's; `null` when one is.
    pub no_column: Option<String>,
    /// Its rows.
    pub water: Vec<WaterLine>,
    /// Pressure tables.
    pub pressure: Vec<PressureTable>,
    /// Acid by jar.
    pub acid: Vec<AcidRow>,
    /// Headspace by product.
    pub headspace: Vec<HeadspaceRow>,
    /// Headspace of packs for the freezer, in words.
    pub freezer_headspace: &'static str,
    /// Where it all comes from.
    pub sources: Vec<Source>,
}

/// The column of a method's table that is this kitchen's, or why none is.
pub(crate) fn own_column(method: Method, altitude: Option<Altitude>) -> Result<usize, String> {
    let altitude =
        altitude.ok_or("The altitude is not known. Set it under Kitchen, and its column lights up.")?;
    process::column(method, altitude)
        .map_err(|refusal| format!("{} {}", refusal.message, refusal.instead.join(" ")))
}

pub(crate) fn bands(labels: Vec<String>, own: Option<usize>) -> Vec<Band> {
    let band = |(column, label)| Band { label, here: own == Some(column) };
    labels.into_iter().enumerate().map(band).collect()
}

pub(crate) fn pressure_table(gauge: Gauge, altitude: Option<Altitude>, height: HeightIn) -> PressureTable {
    let (edges, is_open) = gauge.edges();
    let labels = height.bands(edges, is_open);
    let columns = labels.len();
    let (word, method) = match gauge {
        Gauge::Dial => ("dial", Method::PressureDial),
        Gauge::Weighted => ("weighted", Method::PressureWeighted),
    };
    let own = own_column(method, altitude);
    PressureTable {
        gauge: word,
        bands: bands(labels, own.as_ref().ok().copied()),
        no_column: own.err(),
        rows: tables()
            .pressure
            .iter()
            .filter(|row| row.gauge == gauge)
            .map(|row| PressureLine {
                products: row.products.clone(),
                medium: row.medium,
                minutes: row.minutes,
                psi: row.psi[..columns].to_vec(),
            })
            .collect(),
    }
}
