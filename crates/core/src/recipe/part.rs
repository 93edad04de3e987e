//! A part of a recipe: so much of something, and what it does to the acid.

use num_rational::BigRational;
use serde::{Deserialize, Serialize};

use super::measure::{Unit, exact, in_words};
use crate::measures::limits::{OutOfRange, RECIPE_AMOUNT};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// What a part does to the acid of the whole.
    "role", Role {
        /// Tomatoes or tomatillos: everything is in proportion to them.
        Tomato = "tomato", "tomatoes";
        /// Lemon or lime juice, vinegar, citric acid: never less.
        Acid = "acid", "acid";
        /// Onions, peppers, garlic, oil, fresh leaves: never more.
        LowAcid = "low_acid", "low in acid";
        /// Salt and dried spices: as liked.
        Free = "free", "as liked";
        /// Sugar: as liked.
        Sugar = "sugar", "sugar";
        /// Water and broth: thins the acid, never more.
        Liquid = "liquid", "liquid";
        /// Tinned tomato paste: only where the recipe has it, and never more.
        Concentrate = "concentrate", "tinned paste";
        /// Flour, starch, skin powder: never before canning.
        Thickener = "thickener", "thickener";
        /// In no tested recipe: meat, cream, pasta.
        NotAllowed = "not_allowed", "not for jars";
    }
}

vocabulary! {
    /// Which side of the recipe's proportion is safe.
    "side", Side {
        /// As much or more.
        Up = "never_less", "never less";
        /// As much or less.
        Down = "never_more", "never more";
        /// Any.
        Any = "any", "as you like";
        /// None of it.
        Never = "never", "none";
    }
}

impl Role {
    /// Which side of the recipe is safe.
    #[must_use]
    pub const fn side(self) -> Side {
        match self {
            Self::Acid => Side::Up,
            Self::LowAcid | Self::Liquid | Self::Concentrate => Side::Down,
            Self::Tomato | Self::Free | Self::Sugar => Side::Any,
            Self::Thickener | Self::NotAllowed => Side::Never,
        }
    }
}

/// So much of something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Part {
    /// What it is called.
    pub name: String,
    /// How much, 0 to 100,000; left out while nobody measured it.
    #[serde(default)]
    pub amount: Option<f64>,
    /// In which measure.
    #[serde(default)]
    pub unit: Option<Unit>,
    /// What it does to the acid.
    pub role: Role,
    /// What it may stand in for: all peppers together, all onions together. Without it, it stands by itself.
    #[serde(default)]
    pub group: Option<String>,
}

/// Why a list of parts cannot be compared at all.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum PartError {
    /// A part without a name.
    #[error("a part needs a name; give one")]
    NoName,
    /// An amount out of range.
    #[error(transparent)]
    Amount(#[from] OutOfRange),
}

impl PartError {
    /// The field that is wrong.
    #[must_use]
    pub const fn field(&self) -> &'static str {
        match self {
            Self::NoName => "name",
            Self::Amount(_) => "amount",
        }
    }
}

/// Lower case, one space between words, no accents.
pub(super) fn plain(name: &str) -> String {
    deunicode::deunicode(name).to_lowercase().split_whitespace().collect::<Vec<_>>().join(" ")
}

impl Part {
    /// Checks what a slip of the finger would break.
    ///
    /// # Errors
    /// [`PartError`].
    pub fn check(&self) -> Result<(), PartError> {
        if self.name.trim().is_empty() {
            return Err(PartError::NoName);
        }
        self.amount.map(|amount| RECIPE_AMOUNT.check(amount)).transpose()?;
        Ok(())
    }

    /// The amount with its measure; none while either is missing. Nothing of something needs no measure.
    #[must_use]
    pub fn measured(&self) -> Option<(BigRational, Unit)> {
        match (self.amount, self.unit) {
            (Some(amount), Some(unit)) => Some((exact(amount), unit)),
            (Some(0.0), None) => Some((exact(0.0), Unit::Gram)),
            _ => None,
        }
    }

    /// How much that is in millilitres, grams, pieces or packets; none while nobody measured it.
    #[must_use]
    pub fn size(&self) -> Option<BigRational> {
        self.measured().map(|(amount, unit)| amount * unit.size())
    }

    /// The line on which it is compared: its group, or its own name.
    #[must_use]
    pub fn line(&self) -> String {
        plain(self.group.as_deref().filter(|group| !group.trim().is_empty()).unwrap_or(&self.name))
    }

    /// Whether there is any of it; one that nobody measured is there.
    #[must_use]
    pub fn is_there(&self) -> bool {
        self.amount != Some(0.0)
    }

    /// "2 ½ cups onion, chopped".
    #[must_use]
    pub fn says(&self) -> String {
        match self.measured() {
            Some((amount, unit)) => format!("{}{} {}", in_words(&amount), unit.behind(&amount), self.name),
            None => self.name.clone(),
        }
    }
}
