//! A simulated canner with a probe in it: it heats at the computed rate, boils, and can be told to lose the boil.

use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{Energy, Power, Temperature};
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;

use crate::device::{Device, Reading};

/// How fast a canner cools with its flame off and its lid on, in kelvin a minute. Common practice, no source.
const COOLS_K_PER_MIN: f64 = 0.6;

/// A canner on its burner.
#[derive(Debug, Clone, PartialEq)]
pub struct SimulatedCanner {
    /// Temperature of its water when the jars went in.
    pub start: Temperature,
    /// When that was.
    pub since: Moment,
    /// Heat that brings it from there to the boil.
    pub heat: Energy,
    /// Power that reaches the water.
    pub power: Power,
    /// Where water boils in this kitchen.
    pub boils_at: Temperature,
    /// When its flame went off (`false`) and came back on, oldest first.
    pub flame: Vec<(Moment, bool)>,
}

impl SimulatedCanner {
    /// Kelvin that the flame heats it by in a minute.
    fn warms_k_per_min(&self) -> f64 {
        let rise = self.boils_at.get::<degree_celsius>() - self.start.get::<degree_celsius>();
        let minutes = (self.heat / self.power).get::<minute>();
        rise / minutes.max(0.1)
    }
}

impl Device for SimulatedCanner {
    fn name(&self) -> &'static str {
        "simulated canner probe"
    }

    fn is_simulated(&self) -> bool {
        true
    }

    fn read(&mut self, now: Moment) -> Option<Reading> {
        let boils = self.boils_at.get::<degree_celsius>();
        let (mut celsius, mut on, mut since) = (self.start.get::<degree_celsius>(), true, self.since);
        let end = (now, on);
        for (at, turned) in self.flame.iter().filter(|(at, _)| *at <= now).chain([&end]) {
            let minutes = at.since(since).get::<minute>().max(0.0);
            let rate = if on { self.warms_k_per_min() } else { -COOLS_K_PER_MIN };
            celsius = (celsius + rate * minutes).min(boils);
            (on, since) = (*turned, *at);
        }
        Some(Reading::Temperature(Temperature::new::<degree_celsius>(celsius)))
    }
}

#[cfg(test)]
mod tests {
    use super::SimulatedCanner;
    use crate::device::{Device, Reading};
    use bodega_model::measures::moment::Moment;
    use bodega_model::measures::units::{Energy, Power, Temperature};
    use uom::si::energy::kilojoule;
    use uom::si::power::watt;
    use uom::si::thermodynamic_temperature::degree_celsius;

    const START: Moment = Moment(1_790_000_000_000);

    #[test]
    fn it_heats_boils_loses_the_boil_and_comes_back() {
        let celsius = Temperature::new::<degree_celsius>;
        // 900 kJ at 1 kW: a quarter of an hour from 82 to 97 °C, one kelvin a minute.
        let mut canner = SimulatedCanner {
            start: celsius(82.0),
            since: START,
            heat: Energy::new::<kilojoule>(900.0),
            power: Power::new::<watt>(1000.0),
            boils_at: celsius(97.0),
            flame: vec![(START.plus_minutes(30), false), (START.plus_minutes(40), true)],
        };
        for (after, expected) in [(0, 82.0), (10, 92.0), (20, 97.0), (40, 91.0), (43, 94.0), (60, 97.0)] {
            let Some(Reading::Temperature(read)) = canner.read(START.plus_minutes(after)) else {
                panic!("a probe reads a temperature")
            };
            assert!((read.get::<degree_celsius>() - expected).abs() < 1e-6, "minute {after}: {read:?}");
        }
        assert!(canner.is_simulated() && canner.name().starts_with("simulated"));
    }
}
