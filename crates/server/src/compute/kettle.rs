//! How thick, how long, where is the mark.

use actix_web::{post, web};
use bodega_core::kettle::finish::{CookDown, Forecast, Happened, Sight, minutes};
use bodega_core::kettle::{Contents, Heat, MOST_BRIX, Target, Vessel, by_volume};
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::limits::{
    BRIX, DEPTH_READ, EFFICIENCY, EVAPORATION, FRACTION_LEFT, KETTLE_VOLUME, LOG_MINUTE, VESSEL_DIAMETER,
    VESSEL_HEIGHT, WATTS, WEIGHT,
};
use bodega_core::measures::units::{
    Power, Time, in_litres_per_hour, kilograms, litres, litres_per_hour, millimetres,
};
use bodega_core::records::kitchen::Units;
use serde::{Deserialize, Serialize};
use uom::si::length::millimeter;
use uom::si::mass::kilogram;
use uom::si::power::watt;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::off_thread;

/// How much more than the start a reading may show before it cannot be true.
const READ_SLACK: f64 = 1.05;

/// What went in.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleStart {
    /// Litres, 0.05 to 500.
    pub volume_l: f64,
    /// Soluble solids in °Brix, 0.5 to 60.
    pub brix: f64,
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

/// A round kettle, from inside.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleVessel {
    /// Inner width, 80 to 1,000 mm.
    pub inner_diameter_mm: f64,
    /// Inner depth, 50 to 1,000 mm.
    pub depth_mm: f64,
}

/// What drives the water off: a burner, or a known rate.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleDrive {
    /// Power of the burner, 50 to 30,000 W.
    pub watts: Option<f64>,
    /// Share of it that reaches the water, 0.05 to 1.
    pub efficiency: Option<f64>,
    /// Litres of water an hour, 0.02 to 50.
    pub litres_per_hour: Option<f64>,
}

/// A reading: a minute and one of the four.
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
}

/// Thin juice drained off.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KettleDrain {
    /// Minutes from the start of heating, 0 to 10,000.
    pub minute: f64,
    /// Litres.
    pub volume_l: f64,
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
    /// What drives it.
    pub heat: KettleDrive,
    /// Height of the kitchen in feet, -2,000 to 30,000.
    pub altitude_ft: f64,
    /// Readings so far.
    #[serde(default)]
    pub readings: Vec<KettleReading>,
    /// Drains so far.
    #[serde(default)]
    pub drains: Vec<KettleDrain>,
}

/// A finish with its 80 % interval, minutes from the start of heating.
#[derive(Debug, Serialize, ToSchema)]
pub struct FinishMinutes {
    /// One in ten finish before it.
    pub low: f64,
    /// Expected.
    pub expected: f64,
    /// One in ten finish after it.
    pub high: f64,
}

/// A point of the curve.
#[derive(Debug, Serialize, ToSchema)]
pub struct CurvePoint {
    /// Minutes from the start of heating.
    pub minute: f64,
    /// Litres in the kettle.
    pub volume_l: f64,
}

/// The answer.
#[derive(Debug, Serialize, ToSchema)]
pub struct KettleAnswer {
    /// Litres at the end.
    pub target_volume_l: f64,
    /// The mark on the stick.
    pub target_depth_mm: f64,
    /// Litres of water that leave it in an hour, now.
    pub rate_l_per_h: f64,
    /// When it is done.
    pub finish_minute: FinishMinutes,
    /// °Brix at the end.
    pub final_brix: f64,
    /// Kilograms at the end.
    pub final_mass_kg: f64,
    /// Volume over time.
    pub curve: Vec<CurvePoint>,
    /// Places of readings that lie too far off and were not obeyed.
    pub flagged_readings: Vec<usize>,
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
        _ => Ok(Sight::Brix(BRIX.check(value).named(&field)?)),
    }
}

impl KettleRequest {
    fn checked(self) -> Result<CookDown, ApiError> {
        let vessel = Vessel::straight(
            millimetres(
                VESSEL_DIAMETER.check(self.vessel.inner_diameter_mm).named("vessel.inner_diameter_mm")?,
            ),
            millimetres(VESSEL_HEIGHT.check(self.vessel.depth_mm).named("vessel.depth_mm")?),
        );
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
        let goal = target.contents(start, start.solids);
        if goal.mass > start.mass * 1.000_001 || goal.brix() >= MOST_BRIX - 1e-6 {
            let message =
                "boiling only thickens: the target must be less than what is in the kettle, and pourable";
            return Err(ApiError::field("target", message));
        }
        let mut log = Vec::new();
        for (place, reading) in self.readings.into_iter().enumerate() {
            let field = format!("readings[{place}]");
            let at = LOG_MINUTE.check(reading.minute).named(&format!("{field}.minute"))?;
            log.push((
                Time::new::<minute>(at),
                Happened::Read(sight(reading, &field, start, &vessel, Units::Metric)?),
            ));
        }
        let mut drained = 0.0;
        for (place, drain) in self.drains.into_iter().enumerate() {
            let field = format!("drains[{place}]");
            let at = LOG_MINUTE.check(drain.minute).named(&format!("{field}.minute"))?;
            drained += KETTLE_VOLUME.check(drain.volume_l).named(&format!("{field}.volume_l"))?;
            if drained >= volume.get::<liter>() {
                let message = format!("the drains add up to {drained} L, as much as went in; check them");
                return Err(ApiError::field(format!("{field}.volume_l"), message));
            }
            log.push((Time::new::<minute>(at), Happened::Drained(litres(drain.volume_l))));
        }
        Ok(CookDown {
            start,
            target,
            vessel,
            heat: heat(self.heat)?,
            altitude: Altitude::from_feet(self.altitude_ft).named("altitude_ft")?,
            log,
        })
    }
}

/// The forecast as it travels.
#[must_use]
pub fn answer(forecast: Forecast, vessel: &Vessel) -> KettleAnswer {
    let volume = forecast.goal.volume();
    KettleAnswer {
        target_volume_l: volume.get::<liter>(),
        target_depth_mm: vessel.depth_of(volume).get::<millimeter>(),
        rate_l_per_h: in_litres_per_hour(by_volume(forecast.rate)),
        finish_minute: FinishMinutes {
            low: minutes(forecast.finish.low),
            expected: minutes(forecast.finish.expected),
            high: minutes(forecast.finish.high),
        },
        final_brix: forecast.goal.brix(),
        final_mass_kg: forecast.goal.mass.get::<kilogram>(),
        curve: forecast
            .curve
            .into_iter()
            .map(|(at, volume)| CurvePoint { minute: minutes(at), volume_l: volume.get::<liter>() })
            .collect(),
        flagged_readings: forecast.flagged,
    }
}

/// Readings and drains of one cook-down.
const MOST_ENTRIES: usize = 2_000;
/// So few are worked out before another thread would have begun.
const FEW_ENTRIES: usize = 50;

/// Works a cook-down out.
#[utoipa::path(request_body = KettleRequest, responses((status = 200, body = KettleAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/kettle")]
pub async fn compute_kettle(Json(request): Json<KettleRequest>) -> Result<web::Json<KettleAnswer>, ApiError> {
    let entries = request.readings.len() + request.drains.len();
    if entries > MOST_ENTRIES {
        let words =
            format!("{entries} readings and drains are more than the {MOST_ENTRIES} of one cook-down");
        return Err(ApiError::field("readings", words));
    }
    let cook = request.checked()?;
    if entries <= FEW_ENTRIES {
        return Ok(web::Json(answer(cook.forecast(), &cook.vessel)));
    }
    Ok(web::Json(off_thread(move || answer(cook.forecast(), &cook.vessel)).await?))
}
