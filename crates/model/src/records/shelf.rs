//! Jars on the shelf, and what the shelf asks for.

use serde::{Deserialize, Serialize};

use crate::jars::acid::Agent;
use crate::jars::size::JarSize;
use crate::measures::ids::BatchId;
use crate::measures::moment::Moment;
use crate::plan::making::Thickness;
use crate::shelf::leaving::{Discard, Leaving};
use crate::tables::process::{Medium, Pack, Product};

/// Like jars on the shelf.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShelfGroup {
    /// The batch.
    pub batch: BatchId,
    /// Batch code.
    pub code: String,
    /// What its batch is called, when it has a name.
    pub named: Option<String>,
    /// What is in the jars.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Acid in every jar.
    pub agent: Agent,
    /// Size.
    pub size: JarSize,
    /// When the jars came out of the canner.
    pub canned_at: Moment,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// A jar of this batch spoiled: look at every one of these before it is opened, or discard them.
    pub recalled: bool,
    /// What nobody has said of them yet, in a few words; `null` when all was said.
    pub open: Option<String>,
    /// How many.
    pub count: u32,
}

/// What to look for on the shelf; absent fields ask for nothing.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ShelfSearch {
    /// Part of the batch code, or of its name.
    pub code: Option<String>,
    /// What is in the jars.
    pub product: Option<Product>,
    /// Lifted from this moment on.
    pub from: Option<Moment>,
    /// Lifted before this moment.
    pub before: Option<Moment>,
}

/// How a jar left the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Gone {
    /// How.
    pub how: Leaving,
    /// Why, when it was thrown away.
    pub why: Option<Discard>,
}

/// One line of the list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Goal {
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// In which jars.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
    /// How much they are wanted, 1 to 3.
    pub preference: u32,
}
