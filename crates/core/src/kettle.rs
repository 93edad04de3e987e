//! How thick, how long, where is the mark: the mass balance of a kettle and its finish time.
//!
//! A kettle holds water and soluble solids. Boiling takes water only; draining takes both, at the kettle's present
//! strength. Volume, mass, depth and °Brix are four readings of that one state. Densities are at 20 °C.

pub mod cooking;
pub mod finish;
pub mod goal;
pub mod vessels;

use uom::si::available_energy::kilojoule_per_kilogram;
use uom::si::energy::kilojoule;
use uom::si::f64::{Area, Time};
use uom::si::mass::kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::hour;

use crate::kitchen::altitude::Altitude;
use crate::measures::units::{
    AvailableEnergy, Energy, Length, Mass, MassDensity, MassRate, Power, Temperature, Volume, VolumeRate,
    kilograms, litres, litres_per_hour,
};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Where a kettle stands while it cooks down.
    "heat", KettleHeat {
        /// On a burner: its power limits.
        Burner = "burner", "on a burner";
        /// A pan or roaster in the oven: its surface limits.
        Oven = "oven", "in the oven";
    }
}

vocabulary! {
    /// How far the heat under a kettle is turned up.
    "setting", HeatSetting {
        /// It barely simmers.
        Low = "low", "low";
        /// It boils gently.
        Medium = "medium", "middle";
        /// It boils as hard as it will.
        High = "high", "full";
    }
}

impl HeatSetting {
    /// Share of the full rate to expect until this kettle has shown its own. Common practice, no source.
    #[must_use]
    pub const fn share(self) -> f64 {
        match self {
            Self::Low => 0.4,
            Self::Medium => 0.7,
            Self::High => 1.0,
        }
    }
}

/// Water that leaves to expect at a setting: the mean of what the kettle has shown there, else what it has shown
/// at the other settings in proportion, else the usual full rate in proportion.
#[must_use]
pub fn rate_at(
    setting: HeatSetting,
    shown: &[(HeatSetting, VolumeRate)],
    usual_full: VolumeRate,
) -> (VolumeRate, usize) {
    #[allow(clippy::cast_precision_loss)] // a count of cook-downs
    let mean = |rates: &[VolumeRate]| {
        (!rates.is_empty())
            .then(|| rates.iter().fold(VolumeRate::default(), |sum, rate| sum + *rate) / rates.len() as f64)
    };
    let here: Vec<VolumeRate> =
        shown.iter().filter(|(at, _)| *at == setting).map(|(_, rate)| *rate).collect();
    let full: Vec<VolumeRate> = shown.iter().map(|(at, rate)| *rate / at.share()).collect();
    let rate = mean(&here).unwrap_or_else(|| mean(&full).unwrap_or(usual_full) * setting.share());
    (rate, here.len())
}

vocabulary! {
    /// What a target's number means.
    "target", TargetKind {
        /// Share of the start volume.
        FractionLeft = "fraction_left", "share left";
        /// °Brix.
        Brix = "brix", "°Brix";
        /// Litres.
        VolumeL = "volume_l", "litres";
        /// Minutes of simmering, from the boil on.
        BoilMinutes = "boil_minutes", "minutes of simmering";
        /// Minutes held hot without boiling.
        HoldMinutes = "hold_minutes", "minutes held hot";
        /// Brought to the boil and not boiled down; the value says nothing.
        ToBoil = "to_boil", "brought to the boil";
    }
}

vocabulary! {
    /// What is written down of a kettle.
    "entry", CookWhat {
        /// Litres in it.
        VolumeL = "volume_l", "litres";
        /// Depth on the stick.
        DepthMm = "depth_mm", "depth";
        /// Net kilograms.
        MassKg = "mass_kg", "weight";
        /// °Brix.
        Brix = "brix", "°Brix";
        /// Litres taken off, well mixed.
        DrainL = "drain_l", "taken off";
        /// Litres of thin juice ladled off; the pulp stays.
        LadleL = "ladle_l", "ladled off";
        /// Litres that went in while it cooked.
        AddL = "add_l", "more went in";
        /// Temperature in degrees Celsius.
        TempC = "temp_c", "temperature";
        /// It boils now; the value says nothing.
        Boils = "boils", "it boils";
        /// It is as hot as it is to be held; the value says nothing.
        HotEnough = "hot_enough", "hot enough";
        /// The lid went on; the value says nothing.
        LidOn = "lid_on", "lid on";
        /// The lid came off; the value says nothing.
        LidOff = "lid_off", "lid off";
        /// The heat was turned to low; the value is the litres an hour to expect there.
        HeatLow = "heat_low", "heat low";
        /// The heat was turned to the middle; the value is the litres an hour to expect there.
        HeatMedium = "heat_medium", "heat middle";
        /// The heat was turned up full; the value is the litres an hour to expect there.
        HeatHigh = "heat_high", "heat full";
    }
}

impl CookWhat {
    /// The entry that says the heat was turned.
    #[must_use]
    pub const fn turned(setting: HeatSetting) -> Self {
        match setting {
            HeatSetting::Low => Self::HeatLow,
            HeatSetting::Medium => Self::HeatMedium,
            HeatSetting::High => Self::HeatHigh,
        }
    }

    /// Whether it took food off the kettle.
    #[must_use]
    pub const fn takes_off(self) -> bool {
        matches!(self, Self::DrainL | Self::LadleL)
    }

    /// The setting that this entry turned the heat to, if it did.
    #[must_use]
    pub const fn setting(self) -> Option<HeatSetting> {
        match self {
            Self::HeatLow => Some(HeatSetting::Low),
            Self::HeatMedium => Some(HeatSetting::Medium),
            Self::HeatHigh => Some(HeatSetting::High),
            _ => None,
        }
    }
}

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
    kilograms(WATER_KG_PER_L * (1.0 + brix / (258.6 - brix * 227.1 / 258.2))) / litres(1.0)
}

/// Latent heat of water boiling at a temperature between 88 and 101 °C: a straight line, held by a test
/// against an independently computed table.
#[must_use]
pub fn latent_heat(boils_at: Temperature) -> AvailableEnergy {
    AvailableEnergy::new::<kilojoule_per_kilogram>(
        2256.5 + 2.609 * (99.974 - boils_at.get::<degree_celsius>()),
    )
}

/// A round kettle: straight, or calibrated by pouring known measures into it.
#[derive(Debug, Clone, PartialEq)]
pub struct Vessel {
    /// Inner width.
    pub inner_diameter: Length,
    /// Inner depth.
    pub depth: Length,
    /// Depth and volume after each poured measure, rising; empty for straight walls.
    pub poured: Vec<(Length, Volume)>,
}

impl Vessel {
    /// A kettle with straight walls.
    #[must_use]
    pub const fn straight(inner_diameter: Length, depth: Length) -> Self {
        Self { inner_diameter, depth, poured: Vec::new() }
    }

    /// Area of the surface, as far as the walls are straight.
    #[must_use]
    pub fn surface(&self) -> Area {
        self.inner_diameter * self.inner_diameter * (std::f64::consts::PI / 4.0)
    }

    /// The two poured marks around a place, and the straight wall above the last of them.
    fn span(&self, below: impl Fn(&(Length, Volume)) -> bool) -> ((Length, Volume), (Length, Volume)) {
        let empty = (Length::default(), Volume::default());
        let place = self.poured.iter().position(|mark| !below(mark));
        match place {
            Some(0) => (empty, self.poured[0]),
            Some(place) => (self.poured[place - 1], self.poured[place]),
            None => {
                let last = self.poured.last().copied().unwrap_or(empty);
                (last, (last.0 + self.depth, last.1 + self.surface() * self.depth))
            }
        }
    }

    /// How deep a volume stands in it.
    #[must_use]
    pub fn depth_of(&self, volume: Volume) -> Length {
        let ((low_depth, low), (high_depth, high)) = self.span(|(_, mark)| *mark < volume);
        low_depth + (high_depth - low_depth) * ((volume - low) / (high - low)).get::<uom::si::ratio::ratio>()
    }

    /// The volume up to a depth.
    #[must_use]
    pub fn volume_to(&self, depth: Length) -> Volume {
        let ((low_depth, low), (high_depth, high)) = self.span(|(mark, _)| *mark < depth);
        low + (high - low) * ((depth - low_depth) / (high_depth - low_depth)).get::<uom::si::ratio::ratio>()
    }

    /// What it holds to the brim.
    #[must_use]
    pub fn brim(&self) -> Volume {
        self.volume_to(self.depth)
    }
}

/// Litres of water an hour that leave a square metre of an open pan in an oven: there the surface limits, not the
/// burner. Common practice, no source.
const OVEN_L_PER_H_M2: f64 = 6.0;

/// Water that an open pan of this width loses in an oven, until its own cook-downs say otherwise.
#[must_use]
pub fn oven_rate(vessel: &Vessel) -> VolumeRate {
    litres_per_hour(OVEN_L_PER_H_M2 * vessel.surface().get::<uom::si::area::square_meter>())
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

    /// The contents of the same solids that fill a volume, by bisection.
    #[must_use]
    pub fn boiled_to(self, volume: Volume) -> Self {
        let (mut thin, mut thick) = (0.0_f64, MOST_BRIX);
        for _ in 0..60 {
            let middle = f64::midpoint(thin, thick);
            if Self::of_solids(self.solids, middle).volume() > volume {
                thin = middle;
            } else {
                thick = middle;
            }
        }
        Self::of_solids(self.solids, thick)
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
    /// So much of the start volume is left; thin juice that is drained moves it along.
    FractionLeft(f64),
    /// So thick, in °Brix; drains move it along too.
    Brix(f64),
    /// So much in the kettle, whatever was drained.
    Volume(Volume),
    /// No mark: done at a time from the start of heating.
    At(Time),
}

impl Target {
    /// °Brix that the target means from a start, for those that drains move along.
    fn brix_from(self, start: Contents) -> Option<f64> {
        match self {
            Self::FractionLeft(share) => Some(start.boiled_to(start.volume() * share).brix()),
            Self::Brix(brix) => Some(brix),
            Self::Volume(_) | Self::At(_) => None,
        }
    }

    /// What will be in the kettle at the end, given the solids that are left in it.
    #[must_use]
    pub fn contents(self, start: Contents, solids: Mass) -> Contents {
        match (self, self.brix_from(start)) {
            (_, Some(brix)) => Contents::of_solids(solids, brix),
            (Self::Volume(volume), None) => Contents { solids, ..start }.boiled_to(volume),
            (Self::FractionLeft(_) | Self::Brix(_) | Self::At(_), None) => Contents { solids, ..start },
        }
    }
}

/// What drives the water off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Heat {
    /// A burner: its power and the share of it that reaches the water.
    Burner {
        /// Power.
        power: Power,
        /// Share, 0 to 1.
        efficiency: f64,
    },
    /// A known rate, from earlier cook-downs.
    Rate {
        /// Water that leaves.
        water: VolumeRate,
    },
}

/// Temperature of the fruit when the heat comes on.
const STARTS_AT_C: f64 = 20.0;
/// Specific heat of thin juice, kJ/(kg K): water's 4.19, less a little for its solids. Common practice, no source.
const JUICE_KJ_PER_KG_K: f64 = 4.07;

impl Heat {
    /// Water that leaves at a full boil.
    #[must_use]
    pub fn rate(self, altitude: Altitude) -> MassRate {
        match self {
            Self::Burner { power, efficiency } => power * efficiency / latent_heat(altitude.boiling_point()),
            Self::Rate { water } => by_weight(water),
        }
    }

    /// Time until it boils; nothing is known of it when only a rate is given.
    #[must_use]
    pub fn warm_up(self, contents: Contents, altitude: Altitude) -> Time {
        match self {
            Self::Burner { power, efficiency } => {
                let rise = altitude.boiling_point().get::<degree_celsius>() - STARTS_AT_C;
                let kilojoules = contents.mass.get::<kilogram>() * JUICE_KJ_PER_KG_K * rise;
                Energy::new::<kilojoule>(kilojoules) / (power * efficiency)
            }
            Self::Rate { .. } => Time::new::<hour>(0.0),
        }
    }
}

/// Water that leaves as litres of 20 °C.
#[must_use]
pub fn by_volume(water: MassRate) -> VolumeRate {
    water / density(0.0)
}

/// Litres of water of 20 °C that leave, by weight.
#[must_use]
pub fn by_weight(water: VolumeRate) -> MassRate {
    water * density(0.0)
}
