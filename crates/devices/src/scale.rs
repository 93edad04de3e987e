//! A simulated scale under a kettle: it loses water at a rate of its own, a little other than the model thinks.

use bodega_core::moment::Moment;
use bodega_core::units::{Mass, kilograms};
use uom::si::mass::kilogram;

use crate::{Device, Reading};

/// How much faster than the model the simulated kettle boils: practice for a forecast that must learn.
const FASTER: f64 = 1.15;
/// Repeatable wobble of the scale, in kilograms.
const WOBBLE_KG: f64 = 0.01;

/// A kettle on a scale.
#[derive(Debug, Clone)]
pub struct SimulatedScale {
    start: Mass,
    least: Mass,
    since: Moment,
    kg_per_hour: f64,
}

impl SimulatedScale {
    /// A scale under a kettle of `start`, put on at `since`, that the model thinks loses `kg_per_hour`; it never boils
    /// below `least`.
    #[must_use]
    pub fn new(start: Mass, least: Mass, since: Moment, kg_per_hour: f64) -> Self {
        Self { start, least, since, kg_per_hour: kg_per_hour * FASTER }
    }
}

impl Device for SimulatedScale {
    fn name(&self) -> &'static str {
        "simulated scale"
    }

    fn is_simulated(&self) -> bool {
        true
    }

    fn read(&mut self, now: Moment) -> Option<Reading> {
        const MS_PER_HOUR: f64 = 3_600_000.0;
        #[allow(clippy::cast_precision_loss)] // a year of milliseconds stays below 2^53
        let hours = now.since_ms(self.since) as f64 / MS_PER_HOUR;
        let wobble = WOBBLE_KG * (now.0 % 7 - 3) as f64 / 3.0;
        let mass = self.start.get::<kilogram>() - self.kg_per_hour * hours.max(0.0) + wobble;
        Some(Reading::Mass(kilograms(mass.max(self.least.get::<kilogram>()))))
    }
}

#[cfg(test)]
mod tests {
    use super::SimulatedScale;
    use crate::{Device, Reading};
    use bodega_core::moment::Moment;
    use bodega_core::units::kilograms;
    use uom::si::mass::kilogram;

    #[test]
    fn it_says_that_it_is_simulated_and_loses_weight_to_its_floor() {
        let start = Moment(1_790_000_000_000);
        let mut scale = SimulatedScale::new(kilograms(12.0), kilograms(6.0), start, 2.0);
        assert!(scale.is_simulated());
        let mut at = |minutes| match scale.read(start.plus_minutes(minutes)) {
            Some(Reading::Mass(mass)) => mass.get::<kilogram>(),
            other => panic!("a scale weighs, it does not say {other:?}"),
        };
        assert!((at(60) - 9.7).abs() < 0.02);
        assert!((at(600) - 6.0).abs() < 1e-9);
    }
}
