//! What is asked of a kettle and what is answered, as it travels.

use std::fmt;

use bodega_core::kettle::finish::{Asks, Finish, minutes};
use bodega_model::tables::process::Product;
use serde::de::value::MapAccessDeserializer;
use serde::de::{MapAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use utoipa::ToSchema;

/// What went in.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleStart {
    /// Litres, 0.05 to 500.
    pub volume_l: f64,
    /// Soluble solids in °Brix, 0.5 to 60.
    pub brix: f64,
    /// How warm it is when the heat comes on, -30 to 110 °C; below -1 it is frozen. When it is not said a kettle with a known
    /// rate counts as boiling and any other as standing at 20 °C, until a reading says otherwise.
    pub temperature_c: Option<f64>,
}

/// Where it stops: one of the three.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleTarget {
    /// Share of the start volume, 0.02 to 1.
    pub fraction_left: Option<f64>,
    /// °Brix, 0.5 to 60.
    pub brix: Option<f64>,
    /// Litres, 0.05 to 500.
    pub volume_l: Option<f64>,
}

/// A measure poured into a kettle.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettlePour {
    /// Litres in it so far, 0.05 to 500, rising.
    pub volume_l: f64,
    /// How deep they stand, 1 to 1,000 mm, rising.
    pub depth_mm: f64,
}

/// A round kettle, from inside.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleVessel {
    /// Inner width, 80 to 1,000 mm, at the bottom when it is wider at the top; may be left out when it was poured.
    pub inner_diameter_mm: Option<f64>,
    /// Inner width at the top, 80 to 1,000 mm, when it is another.
    pub top_diameter_mm: Option<f64>,
    /// Inner depth, 50 to 1,000 mm; may be left out when it was poured.
    pub depth_mm: Option<f64>,
    /// Measures poured into it; they outweigh the widths.
    #[serde(default)]
    pub poured: Vec<KettlePour>,
}

/// What drives the water off: a burner, or a known rate; nothing when nobody knows.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleDrive {
    /// Power of the burner, 50 to 30,000 W.
    pub watts: Option<f64>,
    /// Share of it that reaches the water, 0.05 to 1.
    pub efficiency: Option<f64>,
    /// Litres of water an hour, 0.02 to 50.
    pub litres_per_hour: Option<f64>,
}

/// A reading: a minute and one of the six.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleReading {
    /// Minutes from the start of heating, 0 to 10,000.
    pub minute: f64,
    /// Litres in the kettle.
    pub volume_l: Option<f64>,
    /// Depth on the stick.
    pub depth_mm: Option<f64>,
    /// Net kilograms on a scale.
    pub mass_kg: Option<f64>,
    /// °Brix of a sample.
    pub brix: Option<f64>,
    /// Degrees on a probe, 1 to 130 °C.
    pub temperature_c: Option<f64>,
    /// Whether it boils.
    pub boils: Option<bool>,
    /// Whether somebody stands by it though it surprises.
    #[serde(default)]
    pub sure: bool,
}

/// What was taken off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DrainKind {
    /// Thin juice from the top; the pulp stays.
    Serum,
    /// Well mixed.
    #[default]
    Mixed,
}

/// Something taken off.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleDrain {
    /// Minutes from the start of heating, 0 to 10,000.
    pub minute: f64,
    /// Litres.
    pub volume_l: f64,
    /// What it was.
    #[serde(default)]
    pub kind: DrainKind,
}

/// Something put in.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleAdd {
    /// Minutes from the start of heating, 0 to 10,000.
    pub minute: f64,
    /// Litres.
    pub volume_l: f64,
    /// Its soluble solids in °Brix, 0 to 60; as at the start when it is not said.
    pub brix: Option<f64>,
    /// How warm it is, -30 to 110 °C; 20 when it is not said.
    pub temperature_c: Option<f64>,
}

/// A drive that may be unknown: left out, `null`, `{}` or "unknown".
fn drive<'de, D: Deserializer<'de>>(deserializer: D) -> Result<KettleDrive, D::Error> {
    struct Known;
    impl<'de> Visitor<'de> for Known {
        type Value = KettleDrive;

        fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
            formatter.write_str("an object with watts and efficiency or litres_per_hour, or \"unknown\"")
        }

        fn visit_unit<E: serde::de::Error>(self) -> Result<KettleDrive, E> {
            Ok(KettleDrive::default())
        }

        fn visit_str<E: serde::de::Error>(self, word: &str) -> Result<KettleDrive, E> {
            match word {
                "unknown" => Ok(KettleDrive::default()),
                _ => Err(E::invalid_value(serde::de::Unexpected::Str(word), &self)),
            }
        }

        fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<KettleDrive, A::Error> {
            KettleDrive::deserialize(MapAccessDeserializer::new(map))
        }
    }
    deserializer.deserialize_any(Known)
}

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleRequest {
    /// What went in.
    pub start: KettleStart,
    /// Where it stops.
    pub target: KettleTarget,
    /// The kettle.
    pub vessel: KettleVessel,
    /// What drives it; may be left out, or be "unknown".
    #[serde(default, deserialize_with = "drive")]
    #[schema(value_type = Option<KettleDrive>)]
    pub heat: KettleDrive,
    /// What it is to become.
    pub product: Option<Product>,
    /// Height of the kitchen in feet, -2,000 to 30,000.
    pub altitude_ft: f64,
    /// Readings so far.
    #[serde(default)]
    pub readings: Vec<KettleReading>,
    /// What was taken off so far.
    #[serde(default)]
    pub drains: Vec<KettleDrain>,
    /// What was put in so far.
    #[serde(default)]
    pub adds: Vec<KettleAdd>,
}

/// A time with its 80 % interval, minutes from the start of heating.
#[derive(Debug, Serialize, ToSchema)]
pub struct FinishMinutes {
    /// One in ten lies before it.
    pub low: f64,
    /// As many before it as after.
    pub expected: f64,
    /// One in ten lies after it.
    pub high: f64,
}

impl From<Finish> for FinishMinutes {
    fn from(finish: Finish) -> Self {
        Self { low: minutes(finish.low), expected: minutes(finish.expected), high: minutes(finish.high) }
    }
}

/// The mark on the stick.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct MarkDepths {
    /// In the hot kettle, where it stands higher.
    pub hot_mm: f64,
    /// At 20 °C.
    pub cold_mm: f64,
}

/// A reading that disagrees with all else.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FlaggedReading {
    /// Its place among the readings.
    pub reading: usize,
    /// What to ask, the likeliest first.
    pub asks: Vec<Asks>,
    /// Whether the forecast goes with it all the same, because what was read since agrees.
    pub obeyed: bool,
}

/// A point of the curve.
#[derive(Debug, Serialize, ToSchema)]
pub struct CurvePoint {
    /// Minutes from the start of heating.
    pub minute: f64,
    /// Litres in the kettle, at 20 °C.
    pub volume_l: f64,
    /// One in ten lies below.
    pub low_l: f64,
    /// One in ten lies above.
    pub high_l: f64,
}

/// The answer.
#[derive(Debug, Serialize, ToSchema)]
pub struct KettleAnswer {
    /// Litres at the end.
    pub target_volume_l: f64,
    /// The mark on the stick, at 20 °C.
    pub target_depth_mm: f64,
    /// The mark, hot and cold.
    pub mark: MarkDepths,
    /// Litres of water that leave it open in an hour once it boils, as thick as it is now.
    pub rate_l_per_h: f64,
    /// When it boils.
    pub boils_minute: FinishMinutes,
    /// When it is done.
    pub finish_minute: FinishMinutes,
    /// °Brix at the end.
    pub final_brix: f64,
    /// Kilograms at the end.
    pub final_mass_kg: f64,
    /// Volume over time.
    pub curve: Vec<CurvePoint>,
    /// Readings that disagree with all else: to be asked about, and put aside until somebody stands by them or others bear them out.
    pub flagged: Vec<FlaggedReading>,
}
