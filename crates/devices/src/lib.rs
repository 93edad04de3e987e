//! Kitchen devices behind one trait. A real device would post its readings to the endpoint that the simulated ones use.

#![deny(missing_docs, clippy::missing_errors_doc)]
#![cfg_attr(not(test), deny(clippy::indexing_slicing, clippy::unwrap_used))]

mod canner;
mod device;
mod kettle;
mod ph_meter;

pub use canner::SimulatedCanner;
pub use device::{Device, Reading};
pub use kettle::{Hand, Instrument, SimulatedKettle};
pub use ph_meter::SimulatedPhMeter;
