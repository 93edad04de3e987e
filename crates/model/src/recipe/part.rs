//! A part of a recipe: so much of something, and what it does to the acid.

use num_rational::BigRational;
use serde::{Deserialize, Serialize};

use crate::jars::size::JarSize;
use crate::measures::amounts::{Unit, decimal, exact, in_words};
use crate::measures::limits::{OutOfRange, PACKET_TOMATOES, RECIPE_AMOUNT};
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
        /// A bought packet of mix or seasoning: as many as its label asks for, never fewer.
        Packet = "packet", "packet";
        /// Flour, starch, skin powder: never before canning.
        Thickener = "thickener", "thickener";
        /// In no tested recipe: meat, cream, pasta.
        NotAllowed = "not_allowed", "not for jars";
    }
}

vocabulary! {
    /// Where the acid of a packet is.
    "acid of a packet", PacketAcid {
        /// The packet brings it.
        Inside = "inside", "it is in the packet";
        /// The label says which to add; that stands on a line of its own.
        Added = "added", "the label says which to add";
    }
}

vocabulary! {
    /// How strong vinegar is.
    "strength of vinegar", Strength {
        /// Five per cent or more, as its label says.
        Five = "five", "5 % or more";
        /// Weaker, or made at home.
        Weak = "weak", "weaker, or home-made";
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
            Self::Acid | Self::Packet => Side::Up,
            Self::LowAcid | Self::Liquid | Self::Concentrate => Side::Down,
            Self::Tomato | Self::Free | Self::Sugar => Side::Any,
            Self::Thickener | Self::NotAllowed => Side::Never,
        }
    }
}

/// What an amount is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Per {
    /// The whole batch: it goes into the pot.
    #[default]
    Batch,
    /// Each jar of this size: it goes into the jars, however many are filled.
    Jar(JarSize),
}

impl Per {
    /// Whether it is for the whole batch.
    #[must_use]
    pub fn is_batch(&self) -> bool {
        *self == Self::Batch
    }
}

/// What the label of a packet says.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PacketLabel {
    /// Pounds of tomatoes to one packet, 0.1 to 100; left out while nobody read it.
    #[serde(default)]
    pub tomatoes_lb: Option<f64>,
    /// Where its acid is; left out while nobody read it.
    #[serde(default)]
    pub acid: Option<PacketAcid>,
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
    /// Whether the amount is for the whole batch or for each jar; only an acid goes in jar by jar.
    #[serde(default, skip_serializing_if = "Per::is_batch")]
    pub per: Per,
    /// What the label says, of a packet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet: Option<PacketLabel>,
    /// How strong it is, of vinegar; left out while nobody looked at the bottle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub strength: Option<Strength>,
}

/// Why a list of parts cannot be compared at all.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum PartError {
    /// A part without a name.
    #[error("a part needs a name; give one")]
    NoName,
    /// An amount out of range.
    #[error(transparent)]
    Amount(OutOfRange),
    /// Pounds of tomatoes to a packet out of range.
    #[error(transparent)]
    PacketTomatoes(OutOfRange),
}

impl PartError {
    /// The field that is wrong.
    #[must_use]
    pub const fn field(&self) -> &'static str {
        match self {
            Self::NoName => "name",
            Self::Amount(_) => "amount",
            Self::PacketTomatoes(_) => "packet.tomatoes_lb",
        }
    }
}

/// Lower case, one space between words, no accents.
pub fn plain(name: &str) -> String {
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
        self.amount.map(|amount| RECIPE_AMOUNT.check(amount)).transpose().map_err(PartError::Amount)?;
        let to_one = self.packet.and_then(|label| label.tomatoes_lb);
        to_one.map(|pounds| PACKET_TOMATOES.check(pounds)).transpose().map_err(PartError::PacketTomatoes)?;
        Ok(())
    }

    /// So much of something for the whole batch, with no group and nothing said of its bottle or label.
    #[must_use]
    pub fn new(name: impl Into<String>, amount: Option<f64>, unit: Option<Unit>, role: Role) -> Self {
        Self {
            name: name.into(),
            amount,
            unit,
            role,
            group: None,
            per: Per::Batch,
            packet: None,
            strength: None,
        }
    }

    /// The same, with what it may stand in for.
    #[must_use]
    pub fn in_group(self, group: Option<impl Into<String>>) -> Self {
        Self { group: group.map(Into::into), ..self }
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

    /// US teaspoons of it, when it is measured by the spoon or the cup; none of a metric measure, of a weight and of pieces.
    #[must_use]
    pub fn teaspoons(&self) -> Option<f64> {
        let (amount, unit) = self.measured()?;
        unit.is_by_spoon().then(|| decimal(&(amount * unit.size() / Unit::Teaspoon.size())))
    }

    /// What is asked of it when its own page has no amount.
    #[must_use]
    pub fn not_on_its_page(&self) -> String {
        format!("How much {}? The recipe does not say.", self.name)
    }

    /// "2 tablespoons"; nothing while nobody measured it.
    #[must_use]
    pub fn amount_in_words(&self) -> String {
        self.measured()
            .map(|(amount, unit)| format!("{}{}", in_words(&amount), unit.behind(&amount)))
            .unwrap_or_default()
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

    /// "2 ½ cups onion", "2 tablespoons bottled lemon juice in each quart".
    #[must_use]
    pub fn says(&self) -> String {
        let what = match self.measured() {
            Some(_) => format!("{} {}", self.amount_in_words(), self.name),
            None => self.name.clone(),
        };
        match self.per {
            Per::Batch => what,
            Per::Jar(jar) => format!("{what} in each {}", jar.label()),
        }
    }
}
