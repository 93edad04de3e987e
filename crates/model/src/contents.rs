//! What goes into the jars besides tomatoes, acid and salt.

use serde::{Deserialize, Serialize};

use crate::measures::amounts;
use crate::measures::amounts::{Unit, decimal, exact};
use crate::measures::limits::{ADDITION, LEAVES, OutOfRange, RECIPE_AMOUNT};
use crate::measures::units::{Volume, cups, in_cups};
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::short;
use crate::recipe::part::{Part, Role};

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
        /// Corn.
        Corn = "corn", "corn";
        /// Beans of any kind.
        Beans = "beans", "beans";
        /// Zucchini and other squash.
        Zucchini = "zucchini", "zucchini";
        /// Any other vegetable.
        OtherVegetable = "other_vegetable", "another vegetable";
        /// Fresh herbs beyond a leaf of basil.
        FreshHerb = "fresh_herb", "fresh herbs";
        /// Butter.
        Butter = "butter", "butter";
        /// Milk, cream, cheese.
        Dairy = "dairy", "milk, cream or cheese";
        /// Pesto.
        Pesto = "pesto", "pesto";
        /// Pasta.
        Pasta = "pasta", "pasta";
        /// Rice.
        Rice = "rice", "rice";
        /// Flour, starch or any other thickener.
        Starch = "starch", "flour or starch";
        /// Tinned tomato paste.
        TinnedPaste = "tinned_paste", "tinned tomato paste";
        /// Water, where the jars are not whole tomatoes in water.
        Water = "water", "water";
        /// Baking soda.
        BakingSoda = "baking_soda", "baking soda";
        /// Aspirin.
        Aspirin = "aspirin", "aspirin";
        /// Dried herbs and spices.
        DriedHerb = "dried_herb", "dried herbs";
        /// Garlic or onion powder.
        GarlicPowder = "garlic_powder", "garlic or onion powder";
        /// Chili flakes and other dried spices.
        ChiliFlakes = "chili_flakes", "chili flakes, dried spices";
        /// Firming salt, calcium chloride.
        FirmingSalt = "firming_salt", "firming salt (calcium chloride)";
        /// One leaf of basil in a jar.
        BasilLeaf = "basil_leaf", "basil leaf";
        /// Salt.
        Salt = "salt", "salt";
        /// Sugar.
        Sugar = "sugar", "sugar";
        /// Something that has no word here, called by its name.
        Other = "other", "something else";
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
        matches!(
            self,
            Self::DriedHerb
                | Self::GarlicPowder
                | Self::ChiliFlakes
                | Self::FirmingSalt
                | Self::Salt
                | Self::Sugar
        )
    }

    /// Whether how much of it there is decides anything: of what may not go in at all, nobody has to measure any.
    #[must_use]
    pub const fn is_measured(self) -> bool {
        matches!(
            self,
            Self::Onion
                | Self::Pepper
                | Self::Mushroom
                | Self::Garlic
                | Self::Carrot
                | Self::Celery
                | Self::Beet
                | Self::Spinach
                | Self::Parsley
                | Self::Meat
                | Self::Oil
                | Self::Wine
                | Self::BasilLeaf
        )
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

/// Something added as people say it: cups of it, leaves of basil, or any measure of the kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Added {
    /// What.
    pub what: Ingredient,
    /// What it is called, of something that has no word here; 1 to 80 letters.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Cups in the whole batch, chopped, 0 to 1,000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cups: Option<f64>,
    /// Leaves in the whole batch instead of cups, for basil, 0 to 48,000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leaves: Option<f64>,
    /// So much in the whole batch in another measure, 0 to 100,000; goes with `unit`, and instead of cups.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amount: Option<f64>,
    /// That measure: pieces and weights are turned into cups by an average.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub unit: Option<Unit>,
}

/// What was added, with how much of each: "3 cups of onion, 12 leaves of basil, dried herbs".
#[must_use]
pub fn in_words(additions: &[Added]) -> String {
    let other = |added: &Added| {
        let (amount, unit) = added.amount.zip(added.unit)?;
        let of = if unit == Unit::Piece { "" } else { " of" };
        let amount = exact(amount);
        Some(format!("{}{}{of} {}", amounts::in_words(&amount), unit.behind(&amount), added.what))
    };
    let plain = |added: &Added| match (added.cups, added.leaves) {
        (Some(1.0), _) => format!("1 cup of {}", added.what),
        (Some(cups), _) => format!("{} cups of {}", short(cups), added.what),
        (None, Some(1.0)) => "1 leaf of basil".to_owned(),
        (None, Some(leaves)) => format!("{} leaves of basil", short(leaves)),
        (None, None) => added.called().to_owned(),
    };
    additions.iter().map(|added| other(added).unwrap_or_else(|| plain(added))).collect::<Vec<_>>().join(", ")
}

/// The same, with a word for an empty list.
#[must_use]
pub fn in_words_or_nothing(additions: &[Added]) -> String {
    if additions.is_empty() { "nothing".to_owned() } else { in_words(additions) }
}

/// Why something added cannot be counted.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NotCounted {
    /// No amount.
    #[error("cups is missing; give it")]
    Missing,
    /// Something that has no word here, without its name.
    #[error("say what it is called, in 1 to 80 letters")]
    NoName,
    /// A name for something that has a word.
    #[error("a name goes with something else, and only with it")]
    Named,
    /// Leaves of something that is not counted in leaves.
    #[error("only basil is counted in leaves; give cups")]
    OnlyBasil,
    /// Two amounts.
    #[error("give one of cups, leaves, and amount with its unit")]
    Both,
    /// An amount without its measure, or the other way round.
    #[error("give amount and unit together")]
    Half,
    /// No average says what so much of it is in cups.
    #[error("nobody knows what that is in cups; chop it and give cups")]
    NoAverage,
    /// An amount out of range.
    #[error(transparent)]
    Amount(OutOfRange),
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
            Self::Half | Self::NoAverage => "unit",
            Self::Amount(_) => "amount",
            Self::NoName | Self::Named => "name",
        }
    }
}

/// Most letters of a name.
const NAME_LETTERS: usize = 80;

impl Added {
    /// What it is called.
    #[must_use]
    pub fn called(&self) -> &str {
        self.name.as_deref().map_or(self.what.label(), str::trim)
    }

    /// The same as an amount.
    ///
    /// # Errors
    /// [`NotCounted`].
    pub fn counted(&self) -> Result<Addition, NotCounted> {
        let is_name = |name: &String| (1..=NAME_LETTERS).contains(&name.trim().chars().count());
        match (&self.name, self.what) {
            (Some(name), Ingredient::Other) if is_name(name) => {}
            (_, Ingredient::Other) => return Err(NotCounted::NoName),
            (Some(_), _) => return Err(NotCounted::Named),
            (None, _) => {}
        }
        if self.amount.is_some() || self.unit.is_some() {
            return self.measured();
        }
        let amount = match (self.cups, self.leaves) {
            (Some(given), None) => cups(ADDITION.check(given).map_err(NotCounted::Cups)?),
            (None, Some(given)) if self.what == Ingredient::BasilLeaf => {
                leaves(LEAVES.check(given).map_err(NotCounted::Leaves)?)
            }
            (None, Some(_)) => return Err(NotCounted::OnlyBasil),
            (None, None) if self.what.is_free() => Volume::default(),
            // Any of it is too much.
            (None, None) if !self.what.is_measured() => cups(1.0),
            (None, None) => return Err(NotCounted::Missing),
            (Some(_), Some(_)) => return Err(NotCounted::Both),
        };
        Ok(Addition { what: self.what, amount })
    }

    /// The same of a weight, of pieces or of another measure than cups, by average.
    fn measured(&self) -> Result<Addition, NotCounted> {
        if self.cups.is_some() || self.leaves.is_some() {
            return Err(NotCounted::Both);
        }
        let (Some(amount), Some(unit)) = (self.amount, self.unit) else { return Err(NotCounted::Half) };
        let amount = RECIPE_AMOUNT.check(amount).map_err(NotCounted::Amount)?;
        let part = Part::new(self.what.label(), Some(amount), Some(unit), Role::LowAcid);
        let millilitres = part.millilitres().ok_or(NotCounted::NoAverage)?;
        let cups = cups(decimal(&(millilitres / Unit::Cup.size())));
        ADDITION.check(in_cups(cups)).map_err(NotCounted::Cups)?;
        Ok(Addition { what: self.what, amount: cups })
    }

    /// Cups of something.
    #[must_use]
    pub fn in_cups(what: Ingredient, cups: f64) -> Self {
        Self { cups: Some(cups), ..Self::free(what) }
    }

    /// Leaves of basil.
    #[must_use]
    pub fn in_leaves(leaves: f64) -> Self {
        Self { leaves: Some(leaves), ..Self::free(Ingredient::BasilLeaf) }
    }

    /// Something of which nobody has to say how much.
    #[must_use]
    pub const fn free(what: Ingredient) -> Self {
        Self { what, name: None, cups: None, leaves: None, amount: None, unit: None }
    }
}
