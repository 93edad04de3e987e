//! Batches: a plan that was accepted, with the fruit it draws, its jars and its canner loads.

use jiff::civil::Date;
use serde::Serialize;

use crate::contents::Added;
use crate::jars::acid::Agent;
use crate::jars::size::JarSize;
use crate::jars::spoons::Measured;
use crate::kitchen::altitude::Altitude;
use crate::measures::ids::{BatchId, BowlsId, CannerId, LotId};
use crate::measures::moment::{Minutes, Moment};
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::capital;
use crate::plan::making::{Making, Rest, Thickness};
use crate::recipe::part::Part;
use crate::records::kitchen::Units;
use crate::records::recipe::BatchRecipe;
use crate::tables::process::{Medium, Method, Pack, Product};

vocabulary! {
    /// Whether the household would make something again.
    "liking", Liking {
        /// Yes.
        Liked = "liked", "we liked it";
        /// No.
        NotAgain = "not_again", "not again";
    }
}

/// A batch on the line.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Batch {
    /// Number of the record.
    pub id: BatchId,
    /// Code on the label: the day and the batch of the day.
    pub code: String,
    /// What the household calls it: "with the yellow ones"; of a recipe, the recipe's name until it is changed.
    pub name: Option<String>,
    /// Anything else that is to be remembered of it.
    pub note: Option<String>,
    /// Whether it would be made again; `null` while nobody said.
    pub liked: Option<Liking>,
    /// The recipe it is made by; `null` for plain tomatoes.
    pub recipe: Option<BatchRecipe>,
    /// What stands in the bowls of that recipe.
    pub bowls: Option<BowlsId>,
    /// What it becomes.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// How the jars are heated.
    pub method: Method,
    /// Acid in every jar.
    pub agent: Agent,
    /// Salt wanted.
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// Altitude the times were looked up for, in feet.
    pub altitude_ft: f64,
    /// Grams of fruit drawn.
    pub weight_g: i64,
    /// Jars in the batch.
    pub jars: u32,
    /// Jars that have come out of the canner.
    pub jars_lifted: u32,
    /// Acid stirred into the pot instead of the jars, in US teaspoons.
    pub pot_dose_tsp: Option<f64>,
    /// The same as it was measured out, line by line; empty when nothing was.
    pub pot_said: Vec<Measured>,
    /// What goes in besides tomatoes, acid and salt; empty for nothing, `null` while nobody said.
    pub additions: Option<Vec<Added>>,
    /// Whether that was asked at all: it was not of batches recorded before the question existed.
    pub additions_asked: bool,
    /// When it was agreed that its juice waits overnight in the refrigerator.
    pub chilled_at: Option<Moment>,
}

impl Batch {
    /// What it is called where several are in sight: "260912-1, thin sauce", "260912-2, chile salsa".
    #[must_use]
    pub fn words(&self) -> String {
        let thickness = self.thickness.map(|thickness| format!("{thickness} ")).unwrap_or_default();
        format!("{}, {thickness}{}", self.code, self.product.called(self.name.as_deref()))
    }

    /// Whether nothing of it is canned: it is made by a recipe for the refrigerator, the freezer or the table.
    #[must_use]
    pub fn is_cold(&self) -> bool {
        self.recipe.as_ref().is_some_and(|recipe| recipe.process.is_none())
    }

    /// How a jar of its recipe is processed, by the recipe's own page: "20 min, boiling water · ½ in headspace". `None` of plain
    /// tomatoes, of what is not canned, and of a jar that the page has no time for: then something stands against it.
    #[must_use]
    pub fn printed(&self, jar: JarSize, units: Units) -> Option<String> {
        let process = self.recipe.as_ref()?.process.as_ref()?;
        let altitude = Altitude::from_feet(self.altitude_ft).ok()?;
        let option = process.time(jar, self.method, altitude).ok()?.option;
        let pounds = option.psi.map(|psi| format!(" at {psi} lb")).unwrap_or_default();
        let headspace = units.headspace(process.headspace_in);
        Some(format!("{} min, {}{pounds} · {headspace} headspace", option.minutes.0, self.method))
    }

    /// The same of several sizes, with whose recipe it is: "Chile salsa, by Our book, 2015, p. 4. Pints: 20 min, boiling water · ½ in
    /// headspace." `None` of plain tomatoes.
    #[must_use]
    pub fn printed_of(&self, jars: &[JarSize], units: Units) -> Option<String> {
        let recipe = self.recipe.as_ref()?;
        let name = self.name.as_ref().unwrap_or(&recipe.name);
        let each = jars
            .iter()
            .filter_map(|jar| Some(format!(" {}: {}.", capital(&jar.plural()), self.printed(*jar, units)?)));
        Some(format!("{name}, by {}.{}", recipe.source, each.collect::<String>()))
    }

    /// The year in which it was begun: its code starts with the day. `None` of a code that does not.
    #[must_use]
    pub fn year(&self) -> Option<i16> {
        let of_century: i16 = self.code.get(..2)?.parse().ok()?;
        Some(2_000 + of_century)
    }

    /// What its fruit becomes.
    #[must_use]
    pub const fn making(&self) -> Making {
        Making { product: self.product, medium: self.medium, pack: self.pack, thickness: self.thickness }
    }
}

/// Fruit drawn from a lot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Draw {
    /// The lot.
    pub lot: LotId,
    /// Grams.
    pub weight_g: i64,
}

/// One canner load of a new batch.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewLoad {
    /// Jars in it, by size.
    pub jars: Vec<(JarSize, u32)>,
    /// Tested minutes.
    pub minutes: Minutes,
    /// Tested pressure.
    pub psi: Option<u32>,
}

/// The recipe of a new batch.
#[derive(Debug, Clone, PartialEq)]
pub struct ByRecipe {
    /// The recipe as it stands now.
    pub recipe: BatchRecipe,
    /// Its bowls.
    pub bowls: SetOut,
}

/// Bowls of a new batch.
#[derive(Debug, Clone, PartialEq)]
pub enum SetOut {
    /// They stand there already.
    There(BowlsId),
    /// They are set out with the batch, with nothing measured yet.
    New {
        /// How many times the recipe is made.
        factor: f64,
        /// The recipe's parts, made once.
        base: Vec<Part>,
        /// The same so many times, without amounts.
        empty: Vec<Part>,
    },
}

/// An accepted plan.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBatch {
    /// Day of the batch, `YYYY-MM-DD`; the code is made from it.
    pub day: Date,
    /// What the household calls it.
    pub name: Option<String>,
    /// The recipe it is made by.
    pub recipe: Option<ByRecipe>,
    /// What it becomes.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// How the jars are heated.
    pub method: Method,
    /// Acid in every jar.
    pub agent: Agent,
    /// Salt wanted.
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// What goes in besides; `None` while nobody said.
    pub additions: Option<Vec<Added>>,
    /// Altitude the times were looked up for, in feet.
    pub altitude_ft: f64,
    /// Fruit it draws.
    pub draws: Vec<Draw>,
    /// Canner loads in order.
    pub loads: Vec<NewLoad>,
    /// The canner they go into.
    pub canner: CannerId,
}
