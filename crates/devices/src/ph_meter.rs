//! A simulated pH meter: its zero and its slope drift until it is set in the buffers, and without compensation it reads
//! another value in a warm sample.

use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::Temperature;
use uom::si::thermodynamic_temperature::kelvin;
use uom::si::time::day;

use crate::device::{Device, Reading};

/// The pH at which the electrode gives no voltage, where its zero is set.
const MIDDLE: f64 = 7.0;
/// How far the zero drifts in a day, and at the most. Common practice, no source: a glass electrode drifts by some
/// hundredths a day.
const ZERO_A_DAY: f64 = 0.03;
const ZERO_MOST: f64 = 0.3;
/// Share of its slope that it loses in a day, and at the most. Common practice, no source.
const SLOPE_A_DAY: f64 = 0.01;
const SLOPE_MOST: f64 = 0.1;
/// Temperature for which a meter without compensation is made, in kelvin: 25 °C.
const MADE_FOR_K: f64 = 298.15;

/// A meter in a sample.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SimulatedPhMeter {
    /// When it was last set in the buffer of 7.00; `None` when never.
    pub zero_set: Option<Moment>,
    /// When it was last set in the buffer of 4.01; `None` when never.
    pub slope_set: Option<Moment>,
    /// Whether it allows for the temperature of the sample.
    pub compensates: bool,
    /// What the sample has at 25 °C.
    pub sample: f64,
    /// Temperature of the sample.
    pub sample_at: Temperature,
}

/// So much a day since it was set, or the most when it never was.
fn drift(set: Option<Moment>, now: Moment, a_day: f64, most: f64) -> f64 {
    set.map_or(most, |set| (now.since(set).get::<day>().max(0.0) * a_day).min(most))
}

impl Device for SimulatedPhMeter {
    fn name(&self) -> &'static str {
        "simulated pH meter"
    }

    fn is_simulated(&self) -> bool {
        true
    }

    /// The electrode's voltage goes with the absolute temperature (Nernst).
    fn read(&mut self, now: Moment) -> Option<Reading> {
        let slope = 1.0 - drift(self.slope_set, now, SLOPE_A_DAY, SLOPE_MOST);
        let zero = drift(self.zero_set, now, ZERO_A_DAY, ZERO_MOST);
        let warm = if self.compensates { 1.0 } else { self.sample_at.get::<kelvin>() / MADE_FOR_K };
        let shown = MIDDLE + (self.sample - MIDDLE) * slope * warm + zero;
        Some(Reading::Ph((shown * 100.0).round() / 100.0))
    }
}

#[cfg(test)]
mod tests {
    use super::SimulatedPhMeter;
    use crate::device::{Device, Reading};
    use bodega_model::measures::moment::Moment;
    use bodega_model::measures::units::celsius;

    const NOW: Moment = Moment(1_790_000_000_000);

    fn shows(zero_set: Option<Moment>, slope_set: Option<Moment>, compensates: bool, degrees: f64) -> f64 {
        let sample_at = celsius(degrees);
        let mut meter = SimulatedPhMeter { zero_set, slope_set, compensates, sample: 4.3, sample_at };
        let Some(Reading::Ph(ph)) = meter.read(NOW) else { panic!("a meter in a sample reads") };
        ph
    }

    #[test]
    fn it_is_right_in_the_buffers_and_drifts_away_from_them() {
        let set = Some(NOW);
        assert!((shows(set, set, true, 25.0) - 4.3).abs() < 1e-9);
        // Ten days: three tenths of zero, a tenth of a slope of 2.7.
        let old = Some(NOW.plus_minutes(-10 * 24 * 60));
        assert!((shows(old, set, true, 25.0) - 4.6).abs() < 1e-9);
        assert!((shows(set, old, true, 25.0) - 4.57).abs() < 1e-9);
        assert!((shows(None, None, true, 25.0) - 4.87).abs() < 1e-9);
    }

    #[test]
    fn a_warm_sample_reads_lower_without_compensation() {
        let set = Some(NOW);
        assert!((shows(set, set, false, 25.0) - 4.3).abs() < 1e-9);
        // 2.7 below the middle, times 353.15/298.15.
        assert!((shows(set, set, false, 80.0) - 3.80).abs() < 1e-9);
        assert!((shows(set, set, true, 80.0) - 4.3).abs() < 1e-9);
    }
}
