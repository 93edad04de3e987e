//! How thick, how long, where is the mark.

use actix_web::{post, web};
use bodega_core::kettle::finish::{CookDown, Forecast, Happened, minutes};
use bodega_core::kettle::heat::{Heat, by_volume};
use bodega_core::kettle::observation::Observation;
use bodega_core::kettle::vessel::Vessel;
use bodega_model::kettle::contents::{Contents, MOST_BRIX, Target};
use bodega_model::kettle::words::ROOM_C;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::limits::{
    ADDED_BRIX, BRIX, DEPTH_READ, EFFICIENCY, EVAPORATION, FILLED_AT, FRACTION_LEFT, KETTLE_VOLUME,
    LOG_MINUTE, PROBE, VESSEL_DIAMETER, VESSEL_HEIGHT, WATTS, WEIGHT,
};
use bodega_model::measures::units::{
    Length, Power, Time, celsius, in_litres_per_hour, kilograms, litres, litres_per_hour, millimetres,
};
use bodega_model::records::kitchen::Units;
use uom::si::length::millimeter;
use uom::si::mass::kilogram;
use uom::si::power::watt;
use uom::si::time::minute;
use uom::si::volume::liter;

use crate::compute::kettle::shapes::{
    CurvePoint, DrainKind, FlaggedReading, KettleAnswer, KettleDrive, KettleReading, KettleRequest,
    KettleTarget, KettleVessel, MarkDepths,
};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::off_thread;

pub mod shapes;

/// How much more than what went in a reading may show before it cannot be true: hot sauce stands 4 % higher, and a stick is
/// read to some millimetres.
const READ_SLACK: f64 = 1.12;

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
pub(crate) fn observation(
    given: KettleReading,
    field: &str,
    start: Contents,
    vessel: &Vessel,
    units: Units,
) -> Result<Observation, ApiError> {
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
            let (volume, observation, read) = if one == 0 {
                let volume = litres(KETTLE_VOLUME.check(value).named(&field)?);
                (volume, Observation::Volume(volume), units.volume(volume))
            } else {
                let depth = millimetres(DEPTH_READ.check(value).named(&field)?);
                (vessel.volume_to(depth), Observation::Depth(depth), units.depth(depth))
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
            Ok(observation)
        }
        2 => {
            let mass = kilograms(WEIGHT.check(value).named(&field)?);
            if mass > start.mass * READ_SLACK {
                return Err(too_much(units.weight(mass), units.weight(start.mass)));
            }
            Ok(Observation::Mass(mass))
        }
        3 => Ok(Observation::Brix(BRIX.check(value).named(&field)?)),
        4 => Ok(Observation::Temperature(celsius(PROBE.check(value).named(&field)?))),
        _ => Ok(Observation::Boils(given.boils == Some(true))),
    }
}

/// A kettle as it was measured.
fn vessel(given: &KettleVessel) -> Result<Vessel, ApiError> {
    let mut poured = Vec::new();
    for (place, mark) in given.poured.iter().enumerate() {
        let field = |name: &str| format!("vessel.poured[{place}].{name}");
        let volume = litres(KETTLE_VOLUME.check(mark.volume_l).named(field("volume_l"))?);
        let depth = millimetres(DEPTH_READ.check(mark.depth_mm).named(field("depth_mm"))?);
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
            LOG_MINUTE.check(value).named(format_args!("{field}.minute")).map(in_minutes)
        };
        let warm = |value: f64, field: &str| FILLED_AT.check(value).named(field).map(celsius);
        let mut added = Vec::new();
        for (place, add) in self.adds.iter().enumerate() {
            let field = format!("adds[{place}]");
            let more = litres(KETTLE_VOLUME.check(add.volume_l).named(format_args!("{field}.volume_l"))?);
            let brix = add.brix.unwrap_or(self.start.brix);
            let brix = ADDED_BRIX.check(brix).named(format_args!("{field}.brix"))?;
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
            let observation = observation(reading, &field, most, &vessel, Units::Metric)?;
            log.push((when, Happened::Read { observation, sure }));
        }
        let mut drained = 0.0;
        for (place, drain) in self.drains.into_iter().enumerate() {
            let field = format!("drains[{place}]");
            let when = at(drain.minute, &field)?;
            drained += KETTLE_VOLUME.check(drain.volume_l).named(format_args!("{field}.volume_l"))?;
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
