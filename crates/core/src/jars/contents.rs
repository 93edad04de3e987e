//! What goes into the jars besides tomatoes, acid and salt.

use serde::{Deserialize, Serialize};

use crate::measures::limits::{ADDITION, LEAVES, OutOfRange};
use crate::measures::units::{Volume, cups, in_cups};
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::short;

vocabulary! {
    /// What else goes into the jar or the pot.
    "addition", Ingredient {
        /// Onion.
        Onion = "onion", "onion";
        /// Sweet or hot pepper.
        Pepper = "pepper", "pepper";
        /// Mushroom.
        Mushroom = "mushroom", "mushroom";
        /// Garlic.
        Garlic = "garlic", "garlic";
        /// Carrot.
        Carrot = "carrot", "carrot";
        /// Celery.
        Celery = "celery", "celery";
        /// Beet.
        Beet = "beet", "beet";
        /// Spinach.
        Spinach = "spinach", "spinach";
        /// Parsley, fresh.
        Parsley = "parsley", "parsley";
        /// Meat.
        Meat = "meat", "meat";
        /// Oil or fat.
        Oil = "oil", "oil";
        /// Wine.
        Wine = "wine", "wine";
        /// Dried herbs and spices.
        DriedHerb = "dried_herb", "dried herbs";
        /// One leaf of basil in a jar.
        BasilLeaf = "basil_leaf", "basil leaf";
        /// Salt.
        Salt = "salt", "salt";
        /// Sugar.
        Sugar = "sugar", "sugar";
    }
}

/// Something added, in the whole batch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Addition {
    /// What.
    pub what: Ingredient,
    /// How much, chopped or, of leaves, pressed down.
    pub amount: Volume,
}

impl Ingredient {
    /// Whether any amount of it may go in, so that nobody has to measure it.
    #[must_use]
    pub const fn is_free(self) -> bool {
        matches!(self, Self::DriedHerb | Self::Salt | Self::Sugar)
    }
}

/// Leaves of basil in a cup. Common practice, no source.
const LEAVES_PER_CUP: f64 = 48.0;

/// An amount of basil as leaves.
#[must_use]
pub fn leaves_in(amount: Volume) -> f64 {
    in_cups(amount) * LEAVES_PER_CUP
}

/// So many leaves of basil as an amount.
#[must_use]
pub fn leaves(count: f64) -> Volume {
    cups(count / LEAVES_PER_CUP)
}

/// Something added as people say it: cups of it, or leaves of basil.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Added {
    /// What.
    pub what: Ingredient,
    /// Cups in the whole batch, chopped, 0 to 1,000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cups: Option<f64>,
    /// Leaves in the whole batch instead of cups, for basil, 0 to 48,000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leaves: Option<f64>,
}

/// What was added, with how much of each: "3 cups of onion, 12 leaves of basil, dried herbs".
#[must_use]
pub fn in_words(additions: &[Added]) -> String {
    let line = |added: &Added| match (added.cups, added.leaves) {
        (Some(1.0), _) => format!("1 cup of {}", added.what),
        (Some(cups), _) => format!("{} cups of {}", short(cups), added.what),
        (None, Some(1.0)) => "1 leaf of basil".to_owned(),
        (None, Some(leaves)) => format!("{} leaves of basil", short(leaves)),
        (None, None) => added.what.to_string(),
    };
    additions.iter().map(line).collect::<Vec<_>>().join(", ")
}

/// Why something added cannot be counted.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NotCounted {
    /// No amount.
    #[error("cups is missing; give it")]
    Missing,
    /// Leaves of something that is not counted in leaves.
    #[error("only basil is counted in leaves; give cups")]
    OnlyBasil,
    /// Two amounts.
    #[error("give cups or leaves, not both")]
    Both,
    /// Cups out of range.
    #[error(transparent)]
    Cups(OutOfRange),
    /// Leaves out of range.
    #[error(transparent)]
    Leaves(OutOfRange),
}

impl NotCounted {
    /// The field that is wrong.
    #[must_use]
    pub const fn field(&self) -> &'static str {
        match self {
            Self::Missing | Self::Cups(_) => "cups",
            Self::OnlyBasil | Self::Both | Self::Leaves(_) => "leaves",
        }
    }
}

impl Added {
    /// The same as an amount.
    ///
    /// # Errors
    /// [`NotCounted`].
    pub fn counted(&self) -> Result<Addition, NotCounted> {
        let amount = match (self.cups, self.leaves) {
            (Some(given), None) => cups(ADDITION.check(given).map_err(NotCounted::Cups)?),
            (None, Some(given)) if self.what == Ingredient::BasilLeaf => {
                leaves(LEAVES.check(given).map_err(NotCounted::Leaves)?)
            }
            (None, Some(_)) => return Err(NotCounted::OnlyBasil),
            (None, None) if self.what.is_free() => Volume::default(),
            (None, None) => return Err(NotCounted::Missing),
            (Some(_), Some(_)) => return Err(NotCounted::Both),
        };
        Ok(Addition { what: self.what, amount })
    }
}
