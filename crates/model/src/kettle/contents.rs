//! What is in a kettle, and where the cooking stops: volume, mass and °Brix as three readings of one state. Densities are at
//! 20 °C.

use uom::si::mass::kilogram;
use uom::si::volume::liter;

use crate::measures::units::{Mass, MassDensity, Time, Volume, kilograms, litres};

/// Density of water at 20 °C in kg/L (CRC Handbook, from memory).
const WATER_KG_PER_L: f64 = 0.998_203;
/// Highest °Brix of a kettle; far beyond any tomato paste.
pub const MOST_BRIX: f64 = 60.0;

/// Density of a solution of so many °Brix at 20 °C.
///
/// Specific gravity 20/20 by SG = 1 + B / (258.6 - 227.1 B / 258.2), the brewers' fit to the sucrose table (ASBC, from
/// memory); within 0.03 % of the table to 40 °Brix.
#[must_use]
pub fn density(brix: f64) -> MassDensity {
    kilograms(density_kg_per_l(brix)) / litres(1.0)
}

/// [`density`] in kg/L.
#[must_use]
pub fn density_kg_per_l(brix: f64) -> f64 {
    WATER_KG_PER_L * (1.0 + brix / (258.6 - brix * 227.1 / 258.2))
}

/// What is in the kettle: water and soluble solids.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contents {
    /// Everything.
    pub mass: Mass,
    /// Soluble solids in it.
    pub solids: Mass,
}

impl Contents {
    /// From a volume and its °Brix.
    #[must_use]
    pub fn of_volume(volume: Volume, brix: f64) -> Self {
        let mass = volume * density(brix);
        Self { mass, solids: mass * (brix / 100.0) }
    }

    /// The contents that hold these solids at a °Brix.
    #[must_use]
    pub fn of_solids(solids: Mass, brix: f64) -> Self {
        Self { mass: solids * (100.0 / brix), solids }
    }

    /// °Brix.
    #[must_use]
    pub fn brix(self) -> f64 {
        100.0 * (self.solids / self.mass).get::<uom::si::ratio::ratio>()
    }

    /// Volume at 20 °C.
    #[must_use]
    pub fn volume(self) -> Volume {
        self.mass / density(self.brix())
    }

    /// The contents of the same solids that fill a volume: density hangs so little on °Brix that mass and °Brix, worked out
    /// in turn, settle within a few rounds.
    #[must_use]
    pub fn boiled_to(self, volume: Volume) -> Self {
        let solids = self.solids.get::<kilogram>();
        let least = solids * 100.0 / MOST_BRIX;
        let mut mass = volume.get::<liter>().max(least);
        for _ in 0..12 {
            mass = (volume.get::<liter>() * density_kg_per_l(100.0 * solids / mass)).max(least);
        }
        Self { mass: kilograms(mass), solids: self.solids }
    }

    /// What is left when a volume is drained off at the present strength.
    #[must_use]
    pub fn drained(self, volume: Volume) -> Self {
        let part = (volume / self.volume()).get::<uom::si::ratio::ratio>().clamp(0.0, 1.0);
        Self { mass: self.mass * (1.0 - part), solids: self.solids * (1.0 - part) }
    }
}

/// Where the cooking stops.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Target {
    /// So much is left of the volume that went in. Well-mixed juice that is taken off takes its part of the target along,
    /// and what is added brings its part; thin serum leaves its pulp, and the target stays.
    FractionLeft(f64),
    /// So thick, in °Brix: what is left is as much as the soluble solids that are left make.
    Brix(f64),
    /// So much in the kettle, whatever was taken off.
    Volume(Volume),
    /// No mark: done at a time from the start of heating.
    At(Time),
}

impl Target {
    /// What will be in the kettle at the end: `base` is the volume that a share counts of, `solids` what is left of them.
    /// `None` when it has no mark.
    #[must_use]
    pub fn contents(self, base: Volume, solids: Mass) -> Option<Contents> {
        let of_volume = |volume| Contents { mass: solids, solids }.boiled_to(volume);
        match self {
            Self::FractionLeft(share) => Some(of_volume(base * share)),
            Self::Brix(brix) => Some(Contents::of_solids(solids, brix)),
            Self::Volume(volume) => Some(of_volume(volume)),
            Self::At(_) => None,
        }
    }
}

/// What a kettle has shown of itself in earlier cook-downs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shown {
    /// How far its rate may be off, as a share.
    pub rate_doubt: f64,
    /// How much less heat gets in as it thickens, for each 10 °Brix, and how far that may be off; when it was seen.
    pub thickens: Option<(f64, f64)>,
}
