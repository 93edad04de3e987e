//! How thick, how long, where is the mark.

use std::fmt;

use actix_web::{post, web};
use bodega_core::kettle::ROOM_C;
use bodega_core::kettle::contents::{Contents, MOST_BRIX, Target};
use bodega_core::kettle::finish::{Asks, CookDown, Finish, Forecast, Happened, minutes};
use bodega_core::kettle::heat::{Heat, by_volume};
use bodega_core::kettle::sight::Sight;
use bodega_core::kettle::vessel::Vessel;
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::limits::{
    ADDED_BRIX, BRIX, DEPTH_READ, EFFICIENCY, EVAPORATION, FILLED_AT, FRACTION_LEFT, KETTLE_VOLUME,
    LOG_MINUTE, PROBE, VESSEL_DIAMETER, VESSEL_HEIGHT, WATTS, WEIGHT,
};
use bodega_core::measures::units::{
    Length, Power, Time, celsius, in_litres_per_hour, kilograms, litres, litres_per_hour, millimetres,
};
use bodega_core::records::kitchen::Units;
use bodega_core::tables::process::Product;
use serde::de::value::MapAccessDeserializer;
use serde::de::{MapAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use uom::si::length::millimeter;
use uom::si::mass::kilogram;
use uom::si::power::watt;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::off_thread;

/// How much more than what went in a reading may show before it cannot be true: hot sauce stands 4 % higher, and a stick is
/// read to some millimetres.
const READ_SLACK: f64 = 1.12;

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

/// The one of several fields that is given.
fn only_one<T: Copy>(given: &[(&str, Option<T>)], field: &str) -> Result<usize, ApiError> {
    let there: Vec<usize> = (0..given.len()).filter(|place| given[*place].1.is_some()).collect();
    let names = given.iter().map(|(name, _)| *name).collect::<Vec<_>>().join(", ");
    match there[..] {
        [one] => Ok(one),
        [] => Err(ApiError::field(field, format!("give one of: {names}"))),
        _ => Err(ApiError::field(field, format!("give only one of: {names}"))),
    }
}

pub(crate) fn target(given: KettleTarget) -> Result<Target, ApiError> {
    let fields = [("fraction_left", given.fraction_left), ("brix", given.brix), ("volume_l", given.volume_l)];
    let one = only_one(&fields, "target")?;
    let value = fields[one].1.unwrap_or_default();
    Ok(match one {
        0 => Target::FractionLeft(FRACTION_LEFT.check(value).named("target.fraction_left")?),
        1 => Target::Brix(BRIX.check(value).named("target.brix")?),
        _ => Target::Volume(litres(KETTLE_VOLUME.check(value).named("target.volume_l")?)),
    })
}

fn heat(given: KettleDrive) -> Result<Heat, ApiError> {
    match (given.watts, given.efficiency, given.litres_per_hour) {
        (None, None, Some(rate)) => {
            Ok(Heat::Rate { water: litres_per_hour(EVAPORATION.check(rate).named("heat.litres_per_hour")?) })
        }
        (None, None, None) => Ok(Heat::Unknown),
        (Some(watts), Some(efficiency), None) => Ok(Heat::Burner {
            power: Power::new::<watt>(WATTS.check(watts).named("heat.watts")?),
            efficiency: EFFICIENCY.check(efficiency).named("heat.efficiency")?,
        }),
        _ => Err(ApiError::field("heat", "give watts and efficiency, or litres_per_hour")),
    }
}

/// A reading that can be true of this kettle; what is amiss is said in these units.
pub(crate) fn sight(
    given: KettleReading,
    field: &str,
    start: Contents,
    vessel: &Vessel,
    units: Units,
) -> Result<Sight, ApiError> {
    let fields = [
        ("volume_l", given.volume_l),
        ("depth_mm", given.depth_mm),
        ("mass_kg", given.mass_kg),
        ("brix", given.brix),
        ("temperature_c", given.temperature_c),
        ("boils", given.boils.map(|boils| if boils { 1.0 } else { 0.0 })),
    ];
    let one = only_one(&fields, field)?;
    let (name, value) = fields[one];
    let (value, field) = (value.unwrap_or_default(), format!("{field}.{name}"));
    let too_much = |read: String, most: String| {
        let message = format!("{read} is more than the {most} that went in; read it again");
        ApiError::field(field.clone(), message)
    };
    match one {
        0 | 1 => {
            let (volume, sight, read) = if one == 0 {
                let volume = litres(KETTLE_VOLUME.check(value).named(&field)?);
                (volume, Sight::Volume(volume), units.volume(volume))
            } else {
                let depth = millimetres(DEPTH_READ.check(value).named(&field)?);
                (vessel.volume_to(depth), Sight::Depth(depth), units.depth(depth))
            };
            if volume > vessel.brim() * 1.000_001 {
                let brim = if one == 0 { units.volume(vessel.brim()) } else { units.depth(vessel.depth) };
                let message = format!(
                    "{read} is above the brim of the kettle at {brim}; check the unit and read it again"
                );
                return Err(ApiError::field(field, message));
            }
            if volume > start.volume() * READ_SLACK {
                let most = if one == 0 {
                    units.volume(start.volume())
                } else {
                    units.depth(vessel.depth_of(start.volume()))
                };
                return Err(too_much(read, most));
            }
            Ok(sight)
        }
        2 => {
            let mass = kilograms(WEIGHT.check(value).named(&field)?);
            if mass > start.mass * READ_SLACK {
                return Err(too_much(units.weight(mass), units.weight(start.mass)));
            }
            Ok(Sight::Mass(mass))
        }
        3 => Ok(Sight::Brix(BRIX.check(value).named(&field)?)),
        4 => Ok(Sight::Temperature(celsius(PROBE.check(value).named(&field)?))),
        _ => Ok(Sight::Boils(given.boils == Some(true))),
    }
}

/// A kettle as it was measured.
fn vessel(given: &KettleVessel) -> Result<Vessel, ApiError> {
    let mut poured = Vec::new();
    for (place, mark) in given.poured.iter().enumerate() {
        let field = |name: &str| format!("vessel.poured[{place}].{name}");
        let volume = litres(KETTLE_VOLUME.check(mark.volume_l).named(&field("volume_l"))?);
        let depth = millimetres(DEPTH_READ.check(mark.depth_mm).named(&field("depth_mm"))?);
        let rising = "each mark must hold more and stand higher than the one before; read it again";
        if poured.last().is_some_and(|(_, before)| volume <= *before) {
            return Err(ApiError::field(field("volume_l"), rising));
        }
        if poured.last().is_some_and(|(before, _)| depth <= *before) {
            return Err(ApiError::field(field("depth_mm"), rising));
        }
        poured.push((depth, volume));
    }
    let wide = |value: Option<f64>, field: &str| {
        value.map(|value| VESSEL_DIAMETER.check(value).named(field).map(millimetres)).transpose()
    };
    let inner = wide(given.inner_diameter_mm, "vessel.inner_diameter_mm")?;
    let top_diameter = wide(given.top_diameter_mm, "vessel.top_diameter_mm")?;
    let depth =
        given.depth_mm.map(|value| VESSEL_HEIGHT.check(value).named("vessel.depth_mm").map(millimetres));
    let depth = depth.transpose()?;
    if let (Some(inner), Some(depth)) = (inner, depth) {
        return Ok(Vessel { inner_diameter: inner, top_diameter, depth, poured });
    }
    let missing = if inner.is_none() { "vessel.inner_diameter_mm" } else { "vessel.depth_mm" };
    let Some((above, most)) = poured.last().copied() else {
        return Err(ApiError::field(missing, "give the inner width and depth, or what was poured"));
    };
    // A kettle that was only poured goes on as wide as its last measure, as high as any.
    let before = poured.iter().rev().nth(1).copied().unwrap_or_default();
    let across = ((most - before.1) / (above - before.0) * (4.0 / std::f64::consts::PI)).sqrt();
    let inner_diameter: Length = inner.unwrap_or(across);
    Ok(Vessel {
        inner_diameter,
        top_diameter,
        depth: depth.unwrap_or_else(|| millimetres(VESSEL_HEIGHT.max)),
        poured,
    })
}

impl KettleRequest {
    fn checked(self) -> Result<CookDown, ApiError> {
        let vessel = vessel(&self.vessel)?;
        let volume = litres(KETTLE_VOLUME.check(self.start.volume_l).named("start.volume_l")?);
        let start = Contents::of_volume(volume, BRIX.check(self.start.brix).named("start.brix")?);
        if volume > vessel.brim() * 1.000_001 {
            let message = format!(
                "{} L do not go into this kettle: it holds {:.1} L to the brim",
                self.start.volume_l,
                vessel.brim().get::<liter>()
            );
            return Err(ApiError::field("start.volume_l", message));
        }
        let target = target(self.target)?;
        let goal = target.contents(volume, start.solids);
        if goal.is_none_or(|goal| goal.mass > start.mass * 1.000_001 || goal.brix() >= MOST_BRIX - 1e-6) {
            let message =
                "boiling only thickens: the target must be less than what is in the kettle, and pourable";
            return Err(ApiError::field("target", message));
        }
        let at = |value: f64, field: &str| {
            LOG_MINUTE.check(value).named(&format!("{field}.minute")).map(in_minutes)
        };
        let warm = |value: f64, field: &str| FILLED_AT.check(value).named(field).map(celsius);
        let mut added = Vec::new();
        for (place, add) in self.adds.iter().enumerate() {
            let field = format!("adds[{place}]");
            let more = litres(KETTLE_VOLUME.check(add.volume_l).named(&format!("{field}.volume_l"))?);
            let brix = add.brix.unwrap_or(self.start.brix);
            let brix = ADDED_BRIX.check(brix).named(&format!("{field}.brix"))?;
            let at_c = warm(add.temperature_c.unwrap_or(ROOM_C), &format!("{field}.temperature_c"))?;
            let more = Contents::of_volume(more, brix);
            added.push((at(add.minute, &field)?, Happened::Added { more, at: at_c }));
        }
        let all = self.adds.iter().fold(volume, |sum, add| sum + litres(add.volume_l));
        let most = Contents::of_volume(all, self.start.brix);
        let mut log = Vec::new();
        for (place, reading) in self.readings.into_iter().enumerate() {
            let field = format!("readings[{place}]");
            let when = at(reading.minute, &field)?;
            let sure = reading.sure;
            let sight = sight(reading, &field, most, &vessel, Units::Metric)?;
            log.push((when, Happened::Read { sight, sure }));
        }
        let mut drained = 0.0;
        for (place, drain) in self.drains.into_iter().enumerate() {
            let field = format!("drains[{place}]");
            let when = at(drain.minute, &field)?;
            drained += KETTLE_VOLUME.check(drain.volume_l).named(&format!("{field}.volume_l"))?;
            if drained >= all.get::<liter>() {
                let message = format!("the drains add up to {drained} L, as much as went in; check them");
                return Err(ApiError::field(format!("{field}.volume_l"), message));
            }
            let serum = drain.kind == DrainKind::Serum;
            log.push((when, Happened::Drained { volume: litres(drain.volume_l), serum }));
        }
        log.extend(added);
        let starts_at =
            self.start.temperature_c.map(|value| warm(value, "start.temperature_c")).transpose()?;
        Ok(CookDown {
            start,
            starts_at,
            product: self.product,
            in_oven: false,
            shown: None,
            target,
            vessel,
            heat: heat(self.heat)?,
            altitude: Altitude::from_feet(self.altitude_ft).named("altitude_ft")?,
            log,
        })
    }
}

fn in_minutes(value: f64) -> Time {
    Time::new::<minute>(value)
}

/// The forecast as it travels.
#[must_use]
pub fn answer(forecast: Forecast, vessel: &Vessel) -> KettleAnswer {
    let volume = forecast.goal.volume();
    let cold_mm = vessel.depth_of(volume).get::<millimeter>();
    let hot_mm = forecast.mark.map_or(cold_mm, |mark| mark.hot.get::<millimeter>());
    KettleAnswer {
        target_volume_l: volume.get::<liter>(),
        target_depth_mm: cold_mm,
        mark: MarkDepths { hot_mm, cold_mm },
        rate_l_per_h: in_litres_per_hour(by_volume(forecast.rate)),
        boils_minute: forecast.boils.into(),
        finish_minute: forecast.finish.into(),
        final_brix: forecast.goal.brix(),
        final_mass_kg: forecast.goal.mass.get::<kilogram>(),
        curve: forecast
            .curve
            .into_iter()
            .map(|point| CurvePoint {
                minute: minutes(point.at),
                volume_l: point.volume.get::<liter>(),
                low_l: point.low.get::<liter>(),
                high_l: point.high.get::<liter>(),
            })
            .collect(),
        flagged: forecast
            .flagged
            .into_iter()
            .map(|flagged| FlaggedReading {
                reading: flagged.place,
                asks: flagged.asks,
                obeyed: flagged.obeyed,
            })
            .collect(),
    }
}

/// Readings, drains and additions of one cook-down.
const MOST_ENTRIES: usize = 2_000;
/// So few are worked out about as soon as another thread would have begun.
const FEW_ENTRIES: usize = 3;

/// Works a cook-down out.
#[utoipa::path(request_body = KettleRequest, responses((status = 200, body = KettleAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/kettle")]
pub async fn compute_kettle(Json(request): Json<KettleRequest>) -> Result<web::Json<KettleAnswer>, ApiError> {
    let entries = request.readings.len() + request.drains.len() + request.adds.len();
    if entries > MOST_ENTRIES {
        let words = format!(
            "{entries} readings, drains and additions are more than the {MOST_ENTRIES} of one cook-down"
        );
        return Err(ApiError::field("readings", words));
    }
    let cook = request.checked()?;
    if entries <= FEW_ENTRIES {
        return Ok(web::Json(answer(cook.forecast(), &cook.vessel)));
    }
    Ok(web::Json(off_thread(move || answer(cook.forecast(), &cook.vessel)).await?))
}
