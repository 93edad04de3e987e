//! How thick, how long, where is the mark: the mass balance of a kettle and its finish time.
//!
//! A kettle holds water and soluble solids. Boiling takes water only; draining takes both, at the kettle's present
//! strength. Volume, mass, depth and °Brix are four readings of that one state. Densities are at 20 °C.

mod ahead;
mod belief;
pub mod cooking;
pub mod finish;
pub mod goal;
pub mod heat;
mod hypothesis;
mod lead;
pub mod learned;
pub mod observation;
pub mod pot;
mod prior;
pub mod vessel;
pub mod vessels;
