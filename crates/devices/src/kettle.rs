//! A simulated kettle with one instrument at it: it loses water at a rate of its own, a little other than the model
//! thinks.

use bodega_model::kettle::contents::{Contents, MOST_BRIX};
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{MassRate, Temperature, Time, Volume, kilograms};
use uom::si::mass::kilogram;
use uom::si::ratio::ratio;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;

use crate::device::{Device, Reading};

/// How much faster than the model the simulated kettle boils: practice for a forecast that must learn.
const FASTER: f64 = 1.15;
/// Repeatable wobble of the scale, in kilograms.
const WOBBLE_KG: f64 = 0.01;
/// Heat that warms a kilogram of it by a degree, over the heat that boils a kilogram of water away.
const WARMING_SHARE: f64 = 4.07 / 2257.0;

/// What stands at the kettle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Instrument {
    /// A scale under it.
    Scale,
    /// A probe in it.
    Probe,
    /// A refractometer beside it.
    Refractometer,
}

/// A hand at the kettle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Hand {
    /// The heat or the lid: the model thinks so much water leaves from here on.
    Rate(MassRate),
    /// A volume was drained off.
    Drained(Volume),
    /// More went in.
    Added(Contents),
}

/// A kettle on the stove, seen by one instrument.
#[derive(Debug, Clone)]
pub struct SimulatedKettle {
    /// What sees it.
    pub instrument: Instrument,
    /// What went in.
    pub start: Contents,
    /// When the heat came on.
    pub since: Moment,
    /// Water that the model thinks it loses.
    pub rate: MassRate,
    /// What hands did at it since, oldest first.
    pub hands: Vec<(Moment, Hand)>,
    /// How warm it was then.
    pub starts_at: Temperature,
    /// Where water boils in this kitchen.
    pub boils_at: Temperature,
}

impl SimulatedKettle {
    /// When it begins to boil: the heat that will boil water away warms it first.
    fn boils_from(&self) -> Moment {
        let rise = self.boils_at.get::<degree_celsius>() - self.starts_at.get::<degree_celsius>();
        self.since.plus_time(self.start.mass * (rise.max(0.0) * WARMING_SHARE) / (self.rate * FASTER))
    }

    fn contents(&self, now: Moment) -> Contents {
        let boils_from = self.boils_from();
        let (mut here, mut rate, mut since) = (self.start, self.rate, self.since);
        let boil = |here: Contents, rate: MassRate, from: Moment, to: Moment| {
            let lost = rate * FASTER * to.since(from.max(boils_from)).max(Time::default());
            let left = here.mass.get::<kilogram>() - lost.get::<kilogram>();
            // Forgotten on the stove, it boils on until there is hardly any water left in it.
            let least = Contents::of_solids(here.solids, MOST_BRIX).mass.get::<kilogram>();
            Contents { mass: kilograms(left.max(least)), ..here }
        };
        for (at, hand) in self.hands.iter().filter(|(at, _)| *at <= now) {
            here = boil(here, rate, since, *at);
            since = *at;
            match hand {
                Hand::Rate(to) => rate = *to,
                Hand::Drained(volume) => here = here.drained(*volume),
                Hand::Added(more) => {
                    here = Contents { mass: here.mass + more.mass, solids: here.solids + more.solids };
                }
            }
        }
        boil(here, rate, since, now)
    }
}

impl Device for SimulatedKettle {
    fn name(&self) -> &'static str {
        match self.instrument {
            Instrument::Scale => "simulated scale",
            Instrument::Probe => "simulated probe",
            Instrument::Refractometer => "simulated refractometer",
        }
    }

    fn is_simulated(&self) -> bool {
        true
    }

    fn read(&mut self, now: Moment) -> Option<Reading> {
        let here = self.contents(now);
        Some(match self.instrument {
            Instrument::Scale => {
                #[allow(clippy::cast_precision_loss)] // -3 to 3
                let wobble = WOBBLE_KG * (now.0 % 7 - 3) as f64 / 3.0;
                Reading::Mass(kilograms(here.mass.get::<kilogram>() + wobble))
            }
            Instrument::Probe => {
                let boils = self.boils_at.get::<degree_celsius>();
                let at_least = Time::new::<minute>(0.01);
                let starts = self.starts_at.get::<degree_celsius>();
                let share = (now.since(self.since) / self.boils_from().since(self.since).max(at_least))
                    .get::<ratio>();
                let warmed = starts + (boils - starts) * share.clamp(0.0, 1.0);
                Reading::Temperature(Temperature::new::<degree_celsius>(warmed.min(boils)))
            }
            Instrument::Refractometer => Reading::Brix(here.brix()),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::{Hand, Instrument, SimulatedKettle};
    use crate::device::{Device, Reading};
    use bodega_model::kettle::contents::Contents;
    use bodega_model::kitchen::altitude::Altitude;
    use bodega_model::measures::moment::Moment;
    use bodega_model::measures::units::{MassRate, Temperature, litres};
    use uom::si::mass::kilogram;
    use uom::si::mass_rate::kilogram_per_hour;
    use uom::si::thermodynamic_temperature::degree_celsius;

    const START: Moment = Moment(1_790_000_000_000);

    fn seen_by(instrument: Instrument, minutes: i64) -> f64 {
        seen_after(instrument, minutes, 100.0, Vec::new())
    }

    fn seen_after(instrument: Instrument, minutes: i64, starts_c: f64, hands: Vec<(Moment, Hand)>) -> f64 {
        let start = Contents::of_volume(litres(12.0), 5.0);
        let boils_at = Altitude::from_feet(0.0).unwrap().boiling_point();
        let mut kettle = SimulatedKettle {
            instrument,
            start,
            since: START,
            rate: MassRate::new::<kilogram_per_hour>(2.0),
            hands,
            starts_at: Temperature::new::<degree_celsius>(starts_c),
            boils_at,
        };
        assert!(kettle.is_simulated() && kettle.name().starts_with("simulated"));
        match kettle.read(START.plus_minutes(minutes)) {
            Some(Reading::Mass(mass)) => mass.get::<kilogram>(),
            Some(Reading::Temperature(temperature)) => temperature.get::<degree_celsius>(),
            Some(Reading::Brix(brix)) => brix,
            Some(Reading::Ph(_)) => panic!("nothing in a kettle reads a pH"),
            None => f64::NAN,
        }
    }

    #[test]
    fn three_instruments_see_one_kettle() {
        let start = Contents::of_volume(litres(12.0), 5.0).mass.get::<kilogram>();
        assert!((seen_by(Instrument::Scale, 60) - (start - 2.3)).abs() < 0.02);
        let solids = start * 0.05;
        assert!((seen_by(Instrument::Scale, 600) - solids / 0.6).abs() < 0.02, "what is solid stays");
        assert!((seen_by(Instrument::Refractometer, 60) - 5.0 * start / (start - 2.3)).abs() < 1e-9);
        // From 20 °C: 12.2 kg by 80 K take as much heat as boils 1.76 kg away, 46 minutes of 2.3 kg an hour.
        let cold = |instrument, minutes| seen_after(instrument, minutes, 20.0, Vec::new());
        assert!((cold(Instrument::Probe, 23) - 60.0).abs() < 1.0 && cold(Instrument::Probe, 47) > 99.0);
        assert!((cold(Instrument::Scale, 45) - start).abs() < 0.02, "nothing boils away yet");
        assert!((cold(Instrument::Scale, 106) - (start - 2.3)).abs() < 0.05);
        assert!((seen_by(Instrument::Probe, 60) - 99.97).abs() < 0.01, "no hotter than it boils");
    }

    #[test]
    fn it_follows_the_hands_at_it() {
        let start = Contents::of_volume(litres(12.0), 5.0);
        let low = vec![(START.plus_minutes(30), Hand::Rate(MassRate::new::<kilogram_per_hour>(1.0)))];
        let mass = seen_after(Instrument::Scale, 90, 100.0, low);
        // Half an hour at 2.3 kg an hour, an hour at 1.15.
        assert!((mass - (start.mass.get::<kilogram>() - 2.3)).abs() < 0.02, "{mass}");
        let drained = vec![(START, Hand::Drained(litres(6.0)))];
        assert!(
            (seen_after(Instrument::Scale, 0, 100.0, drained) - start.mass.get::<kilogram>() / 2.0).abs()
                < 0.02
        );
    }
}
