//! Recipes of the household, and what stands in the bowls of one.

use serde::{Deserialize, Serialize};

use crate::jars::ph::PhSample;
use crate::jars::size::JarSize;
use crate::measures::ids::{BenchPhId, BowlsId, RecipeId};
use crate::measures::limits::{RECIPE_JARS, RECIPE_PARTS};
use crate::measures::moment::Moment;
use crate::measures::names::clean_name;
use crate::recipe::part::Part;
use crate::recipe::per_jar::dose_in;
use crate::recipe::process::RecipeProcess;
use crate::recipe::source::SourceKind;
use crate::records::jar::PhRecord;

/// Letters of the longest description of how a recipe is made.
const LONGEST_STEPS: usize = 5_000;

/// A line of a recipe.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RecipeLine {
    /// So much of something.
    pub part: Part,
    /// What is done to it.
    #[serde(default)]
    pub preparation: Option<String>,
    /// Whether somebody has held it against a copy of the source.
    #[serde(default)]
    pub ticked: bool,
}

/// What a recipe fills when it is made once.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Makes {
    /// Jars of this size.
    pub jar: JarSize,
    /// At the least, 0.25 to 1,000.
    pub low: f64,
    /// At the most, 0.25 to 1,000.
    pub high: f64,
}

/// A recipe as it is written down.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RecipeText {
    /// What it is called.
    pub name: String,
    /// Its lines, 1 to 100.
    pub lines: Vec<RecipeLine>,
    /// What it fills; `null` when its source does not say.
    #[serde(default)]
    pub makes: Option<Makes>,
    /// The process printed with it; `null` when its source has none.
    #[serde(default)]
    pub process: Option<RecipeProcess>,
    /// Whether somebody has held the process against a copy.
    #[serde(default)]
    pub process_ticked: bool,
    /// Who printed it; `null` while nobody said.
    #[serde(default)]
    pub kind: Option<SourceKind>,
    /// Whether somebody looked for more acid on the page and found none.
    #[serde(default)]
    pub is_all_its_acid: bool,
    /// Title of the source.
    #[serde(default)]
    pub title: String,
    /// Its edition or year.
    #[serde(default)]
    pub edition: String,
    /// The page; of a packet, where it stands on it.
    #[serde(default)]
    pub page: String,
    /// How it is made, in the household's words, a line for each step; up to 5,000 letters.
    #[serde(default)]
    pub note: String,
}

/// Something in a recipe that cannot be written down, with its field.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("{says}")]
pub struct NotARecipe {
    /// The field, as in `lines[2].part.amount`.
    pub field: String,
    /// What is wrong with it, and what would do.
    pub says: String,
}

impl NotARecipe {
    fn new(field: impl Into<String>, says: impl std::fmt::Display) -> Self {
        Self { field: field.into(), says: says.to_string() }
    }
}

impl RecipeText {
    /// Checks what a slip of the finger would break.
    ///
    /// # Errors
    /// [`NotARecipe`].
    pub fn check(&self) -> Result<(), NotARecipe> {
        clean_name(&self.name).map_err(|error| NotARecipe::new("name", error))?;
        #[allow(clippy::cast_precision_loss)] // a count
        RECIPE_PARTS.check(self.lines.len() as f64).map_err(|error| NotARecipe::new("lines", error))?;
        for (place, line) in self.lines.iter().enumerate() {
            line.part
                .check()
                .map_err(|error| NotARecipe::new(format!("lines[{place}].part.{}", error.field()), error))?;
        }
        if self.note.chars().count() > LONGEST_STEPS {
            let says = format!("the steps have up to {LONGEST_STEPS} letters; say them shorter");
            return Err(NotARecipe::new("note", says));
        }
        for (field, count) in self.makes.iter().flat_map(|makes| [("low", makes.low), ("high", makes.high)]) {
            RECIPE_JARS.check(count).map_err(|error| NotARecipe::new(format!("makes.{field}"), error))?;
        }
        if self.makes.is_some_and(|makes| makes.low > makes.high) {
            return Err(NotARecipe::new("makes.high", "the most is below the least; give a larger number"));
        }
        if let Some(process) = &self.process {
            process.check().map_err(|error| NotARecipe::new(format!("process.{}", error.field), &error))?;
        }
        Ok(())
    }

    /// Title, edition and page in one line.
    #[must_use]
    pub fn source(&self) -> String {
        let said = [self.title.trim(), self.edition.trim(), self.page.trim()];
        said.into_iter().filter(|part| !part.is_empty()).collect::<Vec<_>>().join(", ")
    }
}

/// A recipe of the household.
#[derive(Debug, Clone, PartialEq)]
pub struct Recipe {
    /// Number of the record.
    pub id: RecipeId,
    /// The recipe it was copied from.
    pub parent: Option<RecipeId>,
    /// What is written down.
    pub text: RecipeText,
    /// When it was written down.
    pub at: Moment,
}

/// The recipe that a batch is made by, as it stood when the batch was begun: what is changed in the book later does not
/// change what was canned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BatchRecipe {
    /// The recipe in the book.
    pub recipe: RecipeId,
    /// What it is called there.
    pub name: String,
    /// Title, edition and page of its source.
    pub source: String,
    /// What it fills when it is made once; `null` when the source does not say.
    pub makes: Option<Makes>,
    /// The process printed with it; `null` when nothing of it is canned: it is for the refrigerator, the freezer or the table.
    #[serde(default)]
    pub process: Option<RecipeProcess>,
    /// What goes into each jar of it, and not into the pot.
    #[serde(default)]
    pub doses: Vec<Part>,
}

impl BatchRecipe {
    /// Headspace in inches, of what goes into jars for the canner.
    #[must_use]
    pub fn headspace_in(&self) -> Option<f64> {
        self.process.as_ref().map(|process| process.headspace_in)
    }

    /// What goes into each jar of a size.
    pub fn doses_in(&self, jar: JarSize) -> impl Iterator<Item = Part> {
        self.doses.iter().filter_map(move |dose| dose_in(dose, jar))
    }
}

/// A recipe that is being made: what it asks for, and what is in the bowls.
#[derive(Debug, Clone, PartialEq)]
pub struct Bowls {
    /// Number of the record.
    pub id: BowlsId,
    /// The recipe.
    pub recipe: RecipeId,
    /// How many times it is made.
    pub factor: f64,
    /// The recipe's parts, made once, as they were when it was begun.
    pub base: Vec<Part>,
    /// What is in the bowls; an amount that nobody has measured yet is left out.
    pub actual: Vec<Part>,
    /// When it was mixed: from then on nothing can be taken out.
    pub mixed_at: Option<Moment>,
    /// Whether the strength of vinegar and the labels of packets were asked at all: they were not before the questions existed.
    pub labels_asked: bool,
    /// When it was begun.
    pub at: Moment,
}

/// A reading at the pH bench: of a part, or of the mix.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BenchPh {
    /// Number of the record.
    pub id: BenchPhId,
    /// When.
    pub at: Moment,
    /// The bowls it was read of, when it was read of some.
    pub bowls: Option<BowlsId>,
    /// The part; `null` for the mix.
    pub part: Option<String>,
    /// The value.
    pub ph: f64,
    /// Temperature of the sample in degrees Celsius.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated that day.
    pub calibrated_today: Option<bool>,
    /// Whether the sample was drained of its juice; `null` when nobody said.
    pub drained: Option<bool>,
    /// From a simulated meter.
    pub simulated: bool,
}

impl BenchPh {
    /// The same as a reading of a batch.
    #[must_use]
    pub fn as_record(&self) -> PhRecord {
        PhRecord {
            at: self.at,
            ph: self.ph,
            sample: Some(PhSample::Dosed),
            did: None,
            sample_c: self.sample_c,
            compensated: self.compensated,
            calibrated_today: self.calibrated_today,
        }
    }
}
