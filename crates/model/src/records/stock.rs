//! What stands in the cupboard: empty jars by size, lids by mouth, acid.

use jiff::civil::Date;
use serde::Serialize;

use crate::jars::acid::Agent;
use crate::jars::size::{JarSize, Mouth};

/// Empty jars of one size.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JarStock {
    /// Size.
    pub jar: JarSize,
    /// Mouth of the household's jars of this size.
    pub mouth: Mouth,
    /// How many stood there when they were counted; `null` when they never were.
    pub counted: Option<u32>,
    /// How many batches have taken since.
    pub used: u32,
}

impl JarStock {
    /// Jars still there; `None` when they were never counted.
    #[must_use]
    pub fn left(&self) -> Option<u32> {
        self.counted.map(|counted| counted.saturating_sub(self.used))
    }
}

/// New lids of one mouth.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LidStock {
    /// Mouth.
    pub mouth: Mouth,
    /// How many there were when they were counted.
    pub counted: Option<u32>,
    /// How many batches have taken since.
    pub used: u32,
}

impl LidStock {
    /// Lids still there; `None` when they were never counted.
    #[must_use]
    pub fn left(&self) -> Option<u32> {
        self.counted.map(|counted| counted.saturating_sub(self.used))
    }
}

/// One kind of acid.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AcidStock {
    /// Which.
    pub agent: Agent,
    /// Millilitres, or grams of citric acid, when it was measured.
    pub counted: Option<f64>,
    /// How much batches have taken since.
    pub used: f64,
    /// Day the bottle in use was opened, `YYYY-MM-DD`.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub opened_on: Option<Date>,
}

impl AcidStock {
    /// Millilitres or grams still there; `None` when it was never measured.
    #[must_use]
    pub fn left(&self) -> Option<f64> {
        self.counted.map(|counted| (counted - self.used).max(0.0))
    }
}

/// The whole cupboard.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Cupboard {
    /// Empty jars.
    pub jars: Vec<JarStock>,
    /// New lids.
    pub lids: Vec<LidStock>,
    /// Acid.
    pub acids: Vec<AcidStock>,
}

/// Something that is counted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Item {
    /// Empty jars of a size.
    Jar(JarSize),
    /// Lids of a mouth.
    Lid(Mouth),
    /// Acid, in millilitres or grams.
    Acid(Agent),
}
