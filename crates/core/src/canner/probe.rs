//! What a probe in the canner suggests: a boil that has held, or a boil that is gone. A person decides.

use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::Temperature;
use bodega_model::records::load::{CannerLoad, CannerReading};
use uom::si::thermodynamic_temperature::degree_celsius;

/// How near to the local boiling point counts as boiling, in kelvin: a kitchen probe's error and the water's depth.
/// Common practice, no source.
const NEAR_K: f64 = 0.7;
/// How far below it the boil is surely gone, in kelvin. Common practice, no source.
const GONE_K: f64 = 1.5;
/// How long it must have held.
const HELD: Minutes = Minutes(1);

/// What the probe suggests.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Suggestion {
    /// It has held the boiling point for a minute: look, and say so.
    Boils,
    /// It has fallen below it.
    BoilLost,
}

/// What the probe in a load's canner suggests; nothing under pressure, where what boils is hotter than in the open, a
/// canner that vents is not there yet, and the gauge decides.
#[must_use]
pub fn suggestion(load: &CannerLoad, altitude: Option<Altitude>) -> Option<Suggestion> {
    let boils_at = altitude.filter(|_| !load.batch.method.is_pressure())?.boiling_point();
    let celsius = |reading: &CannerReading| Temperature::new::<degree_celsius>(reading.temp_c);
    let readings: Vec<(Moment, Temperature)> =
        load.readings.iter().map(|reading| (reading.at, celsius(reading))).collect();
    suggest(&readings, boils_at)
}

/// What readings, oldest first, suggest for a place that boils at `boils_at`.
#[must_use]
pub fn suggest(readings: &[(Moment, Temperature)], boils_at: Temperature) -> Option<Suggestion> {
    let below = |reading: &Temperature| boils_at.get::<degree_celsius>() - reading.get::<degree_celsius>();
    let (last_at, last) = readings.last()?;
    if below(last) > GONE_K {
        return Some(Suggestion::BoilLost);
    }
    let held_from = readings.iter().rev().take_while(|(_, reading)| below(reading) <= NEAR_K).last()?.0;
    (last_at.since_ms(held_from) >= HELD.ms()).then_some(Suggestion::Boils)
}

#[cfg(test)]
mod tests {
    use uom::si::thermodynamic_temperature::degree_celsius;

    use super::{Suggestion, suggest};
    use bodega_model::kitchen::altitude::Altitude;
    use bodega_model::measures::moment::Moment;
    use bodega_model::measures::units::Temperature;

    fn readings(celsius: &[f64]) -> Vec<(Moment, Temperature)> {
        let every_half_minute = (0_i64..).map(|n| Moment(1_790_000_000_000 + n * 30_000));
        every_half_minute.zip(celsius.iter().map(|c| Temperature::new::<degree_celsius>(*c))).collect()
    }

    #[test]
    fn a_boil_is_suggested_once_it_has_held_here_and_not_at_the_seas() {
        let here = Altitude::from_feet(2640.0).unwrap().boiling_point();
        for (celsius, expected) in [
            (&[90.0, 97.2, 97.3][..], None),
            (&[97.2, 97.3, 97.3], Some(Suggestion::Boils)),
            (&[97.3, 97.3, 95.0], Some(Suggestion::BoilLost)),
            // Between the two it says nothing.
            (&[97.3, 97.3, 96.3], None),
            (&[], None),
        ] {
            assert_eq!(suggest(&readings(celsius), here), expected, "{celsius:?}");
        }
        let sea = Altitude::from_feet(0.0).unwrap().boiling_point();
        assert_eq!(suggest(&readings(&[97.3, 97.3, 97.3]), sea), Some(Suggestion::BoilLost));
    }
}
