//! The instruments that are simulated.

use bodega_devices::Instrument;
use bodega_model::kettle::words::CookWhat;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A simulated instrument.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Simulation {
    /// A scale under the kettle.
    Scale,
    /// A probe in it.
    Probe,
    /// A refractometer beside it.
    Refractometer,
}

impl Simulation {
    pub(crate) const ALL: [Self; 3] = [Self::Scale, Self::Probe, Self::Refractometer];

    pub(crate) const fn instrument(self) -> Instrument {
        match self {
            Self::Scale => Instrument::Scale,
            Self::Probe => Instrument::Probe,
            Self::Refractometer => Instrument::Refractometer,
        }
    }

    pub(crate) const fn writes(self) -> CookWhat {
        match self {
            Self::Scale => CookWhat::MassKg,
            Self::Probe => CookWhat::TempC,
            Self::Refractometer => CookWhat::Brix,
        }
    }
}
