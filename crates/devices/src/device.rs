//! What every device of a kitchen can do.

use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{Mass, Temperature};

/// What a device measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Reading {
    /// On a scale, without the vessel.
    Mass(Mass),
    /// At a probe.
    Temperature(Temperature),
    /// In a refractometer, °Brix.
    Brix(f64),
    /// At a pH electrode.
    Ph(f64),
}

/// Something in the kitchen that measures.
pub trait Device {
    /// Its name, as the household calls it.
    fn name(&self) -> &str;
    /// Whether it is a stand-in for practice; the screen always says so.
    fn is_simulated(&self) -> bool;
    /// What it measures at a moment; `None` while it has nothing to say.
    fn read(&mut self, now: Moment) -> Option<Reading>;
}
