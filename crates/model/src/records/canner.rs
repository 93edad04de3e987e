//! The household's canners: how each heats, what it holds, what it stands on.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::canner::outline::{Outline, Pot};
use crate::jars::size::JarSize;
use crate::measures::ids::CannerId;
use crate::measures::units::millimetres;
use crate::tables::process::Method;

/// A canner with what it holds.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Canner {
    /// Number of the record.
    pub id: CannerId,
    /// What the household calls it.
    pub name: String,
    /// How it heats.
    pub method: Method,
    /// Jars that fit when all are of one size.
    #[cfg_attr(feature = "schema", schema(value_type = BTreeMap<String, u32>))]
    pub capacity: BTreeMap<JarSize, u32>,
    /// Its inside, when somebody measured it.
    pub pot: Option<PotSize>,
    /// Power of the burner under it in watts, when it is known.
    pub power_w: Option<f64>,
    /// Width of that burner in millimetres, when it is known.
    pub burner_mm: Option<f64>,
    /// Whether it is an electric multi-cooker.
    pub multi_cooker: bool,
    /// Year in which its dial gauge was tested last; `null` when nobody said.
    pub gauge_tested_in: Option<i16>,
}

/// A canner from inside, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PotSize {
    /// Inner width; of an oblong one across.
    pub inner_diameter_mm: f64,
    /// Inner length of an oblong one with rounded ends; `null` for a round one.
    #[serde(default)]
    pub inner_length_mm: Option<f64>,
    /// Inner height.
    pub inner_height_mm: f64,
    /// Top of the rack over the bottom.
    pub rack_height_mm: f64,
}

impl PotSize {
    /// From above. One that is not longer than wide is round.
    #[must_use]
    pub fn outline(self) -> Outline {
        let width = millimetres(self.inner_diameter_mm);
        let length = self.inner_length_mm.map_or(width, millimetres);
        Outline { length: length.max(width), width }
    }

    /// All of it.
    #[must_use]
    pub fn inside(self) -> Pot {
        Pot {
            outline: self.outline(),
            inner_height: millimetres(self.inner_height_mm),
            rack_height: millimetres(self.rack_height_mm),
        }
    }
}

/// A change to a canner; absent fields stay.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct CannerChange {
    /// New name.
    pub name: Option<String>,
    /// How it heats.
    pub method: Option<Method>,
    /// New inside.
    pub pot: Option<PotSize>,
    /// New capacity of the sizes that are named, `None` for one that the canner does not hold; the others stay.
    pub capacity: Option<BTreeMap<JarSize, Option<u32>>>,
    /// Power of its burner in watts.
    pub power_w: Option<f64>,
    /// Width of its burner in millimetres.
    pub burner_mm: Option<f64>,
    /// Whether it is an electric multi-cooker.
    pub multi_cooker: Option<bool>,
    /// Year in which its dial gauge was tested last.
    pub gauge_tested_in: Option<i16>,
}

/// Jars of each size a usual household canner holds. Quart and pint: USDA Guide 1, from memory; the rest common
/// practice, no source, to be corrected by the person.
pub const USUAL_CAPACITY: [(JarSize, u32); 11] = [
    (JarSize::QuarterPint, 12),
    (JarSize::HalfPint, 12),
    (JarSize::Ml250, 12),
    (JarSize::ThreeQuarterPint, 9),
    (JarSize::Ml370, 9),
    (JarSize::Pint, 9),
    (JarSize::HalfLitre, 8),
    (JarSize::PintAndHalf, 8),
    (JarSize::Ml720, 7),
    (JarSize::Quart, 7),
    (JarSize::Litre, 6),
];
