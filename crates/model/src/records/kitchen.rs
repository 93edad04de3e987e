//! The kitchen: its height, its units and the containers it counts in.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use uom::si::length::{inch, millimeter};
use uom::si::mass::kilogram;
use uom::si::volume::liter;

use crate::canner::outline::{JarOutside, Outsides};
use crate::jars::acid::Agent;
use crate::jars::size::JarSize;
use crate::jars::spoons::Spoons;
use crate::kitchen::altitude::Altitude;
use crate::kitchen::altitudes::AltitudeReason;
use crate::kitchen::ways::{Days, Decimal, HeatIn, HeightIn, HoursIn, Ways};
use crate::measures::amounts::{exact, in_words};
use crate::measures::ids::{CannerId, ContainerId};
use crate::measures::units::{Length, Mass, Volume, in_pounds, in_quarts, inches, millimetres};
use crate::measures::words::short;
use crate::records::canner::Canner;

/// Units a kitchen reads; records are metric whatever is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Units {
    /// Pounds, quarts, inches.
    Us,
    /// Kilograms, litres, centimetres.
    Metric,
}

impl Units {
    /// The word used in the API and the database.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Us => "us",
            Self::Metric => "metric",
        }
    }

    /// A volume as this kitchen reads it, to a tenth.
    #[must_use]
    pub fn volume(self, volume: Volume) -> String {
        match self {
            Self::Us => format!("{} qt", short((in_quarts(volume) * 10.0).round() / 10.0)),
            Self::Metric => format!("{} L", short((volume.get::<liter>() * 10.0).round() / 10.0)),
        }
    }

    /// A depth as this kitchen reads it off a stick: tenths of an inch, or of a centimetre.
    #[must_use]
    pub fn depth(self, depth: Length) -> String {
        match self {
            Self::Us => format!("{} in", short((depth.get::<inch>() * 10.0).round() / 10.0)),
            Self::Metric => format!("{} cm", short(depth.get::<millimeter>().round() / 10.0)),
        }
    }

    /// A weight as this kitchen reads it, to a tenth.
    #[must_use]
    pub fn weight(self, mass: Mass) -> String {
        match self {
            Self::Us => format!("{} lb", short((in_pounds(mass) * 10.0).round() / 10.0)),
            Self::Metric => format!("{} kg", short((mass.get::<kilogram>() * 10.0).round() / 10.0)),
        }
    }

    /// Headspace as this kitchen measures it: "½ in", "1.3 cm".
    #[must_use]
    pub fn headspace(self, inches_of_it: f64) -> String {
        match self {
            Self::Us => format!("{} in", in_words(&exact(inches_of_it))),
            Self::Metric => self.depth(inches(inches_of_it)),
        }
    }

    /// What heat is read in where nobody has said otherwise.
    #[must_use]
    pub const fn usual_heat(self) -> HeatIn {
        match self {
            Self::Us => HeatIn::Fahrenheit,
            Self::Metric => HeatIn::Celsius,
        }
    }

    /// What heights are read in where nobody has said otherwise.
    #[must_use]
    pub const fn usual_height(self) -> HeightIn {
        match self {
            Self::Us => HeightIn::Feet,
            Self::Metric => HeightIn::Metres,
        }
    }
}

/// The kitchen and its canner.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Kitchen {
    /// What the household calls it.
    pub name: String,
    /// Height above sea level in feet; `null` until somebody finds it out, and then nothing is timed.
    pub altitude_ft: Option<f64>,
    /// Units to show.
    pub units: Units,
    /// How hours, days, numbers, heat and height are written.
    pub ways: Ways,
    /// Acid that was reached for last.
    pub agent: Agent,
    /// Whether the last jars got salt.
    pub salt: bool,
    /// Spoons and cups that doses are measured with.
    pub spoons: Spoons,
    /// Minutes from lifting one load to the next one's jars going in.
    pub turnaround_minutes: u32,
    /// Pounds of fruit to expect of one plant.
    pub pounds_per_plant: f64,
    /// Pairs of hands.
    pub people: u32,
    /// Burners.
    pub burners: u32,
    /// When the day's work is to be done, in minutes after midnight.
    pub day_ends: u32,
    /// When everybody sits down, in minutes after midnight; `null` for no break.
    pub break_at: Option<u32>,
    /// How long the break is, in minutes.
    pub break_minutes: u32,
    /// The canner that is planned for.
    pub canner: Canner,
    /// Every canner.
    pub canners: Vec<Canner>,
    /// Jars that somebody measured from outside; the others are the usual ones.
    #[cfg_attr(feature = "schema", schema(value_type = BTreeMap<String, JarMeasure>))]
    pub jar_outsides: BTreeMap<JarSize, JarMeasure>,
}

/// A jar from outside, with its lid and ring, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct JarMeasure {
    /// Widest part.
    pub diameter_mm: f64,
    /// From the base to the top of the lid.
    pub height_mm: f64,
}

impl Kitchen {
    /// The kitchen's altitude, as far as it is known.
    #[must_use]
    pub fn altitude(&self) -> Option<Altitude> {
        self.altitude_ft.and_then(|feet| Altitude::from_feet(feet).ok())
    }

    /// Outer sizes of the jars in the core's terms.
    #[must_use]
    pub fn outsides(&self) -> Outsides {
        let outside = |measure: &JarMeasure| JarOutside {
            diameter: millimetres(measure.diameter_mm),
            height: millimetres(measure.height_mm),
        };
        Outsides(self.jar_outsides.iter().map(|(jar, measure)| (*jar, outside(measure))).collect())
    }
}

/// A change to the kitchen; absent fields stay.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct KitchenChange {
    /// New name.
    pub name: Option<String>,
    /// New altitude in feet.
    pub altitude_ft: Option<f64>,
    /// Why it is another one.
    pub altitude_reason: Option<AltitudeReason>,
    /// New units.
    pub units: Option<Units>,
    /// New spoons.
    pub spoons: Option<Spoons>,
    /// How times of day are written from now on.
    pub hours: Option<HoursIn>,
    /// How days are written.
    pub days: Option<Days>,
    /// How numbers are written.
    pub decimal: Option<Decimal>,
    /// What heat is read in.
    pub heat: Option<HeatIn>,
    /// What heights are read in.
    pub height: Option<HeightIn>,
    /// New turnaround.
    pub turnaround_minutes: Option<u32>,
    /// New number of hands.
    pub people: Option<u32>,
    /// New number of burners.
    pub burners: Option<u32>,
    /// New end of the day, in minutes after midnight.
    pub day_ends: Option<u32>,
    /// New break, in minutes after midnight; `Some(None)` for none.
    pub break_at: Option<Option<u32>>,
    /// New pounds of fruit to expect of one plant.
    pub pounds_per_plant: Option<f64>,
    /// The canner to plan for.
    pub canner: Option<CannerId>,
    /// Jars that were measured from outside.
    pub jar_outsides: BTreeMap<JarSize, JarMeasure>,
}

/// A container the household has taught: counted instead of weighed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Container {
    /// Number of the record.
    pub id: ContainerId,
    /// What the household calls it.
    pub name: String,
    /// Grams of tomatoes in one.
    pub weight_g: i64,
}

/// Minutes between two loads to begin with; common practice, no source.
pub const USUAL_TURNAROUND: u32 = 25;
