//! Kitchen devices behind one trait. A real device would post its readings to the endpoint that the simulated ones use.

mod canner;
mod device;
mod kettle;
mod ph_meter;

pub use canner::SimulatedCanner;
pub use device::{Device, Reading};
pub use kettle::{Hand, Instrument, SimulatedKettle};
pub use ph_meter::SimulatedPhMeter;
