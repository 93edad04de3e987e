//! Recipes as the screens see them.

use bodega_core::judge::recipe_fit::forbidden;
use bodega_core::judge::recipe_page::{LineAsk, MayCan, Stands, line_asks, made_cold, may_can, stands};
use bodega_core::kettle::cooking::vessel;
use bodega_core::kettle::vessels::in_pots;
use bodega_core::recipe::back::{Change, instead, ways_back_filled};
use bodega_core::recipe::bowls::{asks_strength, planned, seen};
use bodega_core::recipe::compare::Comparison;
use bodega_core::recipe::line::ReadLine;
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::{raw_volume, scaled};
use bodega_core::recipe::shipped::Shipped;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Finding;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::ids::{BatchId, BowlsId, MoveId, RecipeId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::recipe::part::Part;
use bodega_model::recipe::process::{AltitudePrinted, RecipeProcess};
use bodega_model::records::batch::Batch;
use bodega_model::records::moved::Moved;
use bodega_model::records::recipe::{Bowls, Makes, Recipe, RecipeLine, RecipeText};
use bodega_model::tables::process::Method;
use bodega_store::{Store, StoreError};
use serde::Serialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::state::Shared;

/// The book: the household's recipes, and those that come with the program.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeBook {
    /// The household's, newest first.
    pub own: Vec<RecipeView>,
    /// Those that come with the program, recalled from memory: to be looked at, and copied to be checked.
    pub shipped: Vec<ShippedView>,
}

/// A recipe that comes with the program.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShippedView {
    /// The recipe.
    #[serde(flatten)]
    pub shipped: Shipped,
    /// Each line as it is read out.
    pub says: Vec<String>,
}

/// A printed time in the household's kitchen.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeTimeView {
    /// The jar.
    pub jar: JarSize,
    /// How it is heated.
    pub method: Method,
    /// Minutes at the kitchen's altitude; `null` when the table does not have them.
    pub minutes: Option<Minutes>,
    /// Pounds; `null` in water or steam.
    pub psi: Option<u32>,
    /// Why there are none.
    pub why_not: Option<String>,
}

/// A recipe.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeView {
    /// Number of the record.
    pub id: RecipeId,
    /// The recipe it was copied from.
    pub parent: Option<RecipeId>,
    /// What is written down.
    pub text: RecipeText,
    /// Each line as it is read out.
    pub says: Vec<String>,
    /// Whether it may be canned, and what is missing.
    pub stands: Stands,
    /// Lines with something to be said beside them.
    pub line_asks: Vec<LineAsk>,
    /// What the page says of altitude, as far as it can be told; `null` without a process.
    pub altitude_printed: Option<AltitudePrinted>,
    /// Its times in this kitchen; empty while the altitude is not known.
    pub times: Vec<RecipeTimeView>,
    /// Height of the kitchen; `null` while nobody said.
    pub altitude_ft: Option<f64>,
    /// When it was written down.
    pub at: Moment,
}

/// A line of a card for the wall.
#[derive(Debug, Serialize, ToSchema)]
pub struct CardLine {
    /// The part, so many times.
    pub part: Part,
    /// As it is read out.
    pub says: String,
    /// What is done to it.
    pub preparation: Option<String>,
}

/// A recipe made so many times.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeScale {
    /// How many times.
    pub factor: f64,
    /// What decided it, when it was the scarcest part.
    pub scarcest: Option<String>,
    /// Its lines.
    pub lines: Vec<CardLine>,
    /// What it fills; `null` when the source does not say.
    pub makes: Option<Makes>,
    /// Litres of raw fruit and vegetables that the pots have to hold, about.
    pub raw_l: f64,
    /// Which of the household's pots hold that, each filled to four fifths, in words; `null` without a pot.
    pub pots: Option<String>,
}

/// Some of a batch that went elsewhere than into jars.
#[derive(Debug, Serialize, ToSchema)]
pub struct Went {
    /// Number of the record.
    pub id: MoveId,
    /// How much went where.
    pub words: String,
}

impl From<Moved> for Went {
    fn from(moved: Moved) -> Self {
        Self { id: moved.id, words: moved.words() }
    }
}

/// What stands in the bowls of a recipe.
#[derive(Debug, Serialize, ToSchema)]
pub struct BowlsView {
    /// Number of the record.
    pub id: BowlsId,
    /// The recipe.
    pub recipe: RecipeId,
    /// How many times it is made.
    pub factor: f64,
    /// What the recipe asks for.
    pub planned: Vec<CardLine>,
    /// What is in the bowls; without an amount while nobody has measured it.
    pub actual: Vec<Part>,
    /// The same as it is read out.
    pub said: Vec<String>,
    /// Mixed: nothing can be taken out any more.
    pub mixed: bool,
    /// The bowls against the recipe.
    pub seen: Comparison,
    /// Ways back, the nearest first.
    pub ways_back: Vec<Vec<Change>>,
    /// What to do instead, when it is not the recipe any more.
    pub instead: Vec<String>,
    /// Whether it may be canned.
    pub may_can: MayCan,
    /// Whether nobody has said yet how strong the vinegar in them is.
    pub asks_strength: bool,
    /// The batch that is made from them; `null` while none is begun.
    pub batch: Option<Batch>,
    /// What is said of a batch of which nothing is canned; `null` of one with jars, and while none is begun.
    pub cold: Option<String>,
    /// Where that batch went, beside its jars.
    pub went: Vec<Went>,
    /// When it was begun.
    pub at: Moment,
}

/// Lines that were read out of a text.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadText {
    /// The name, when the text says one.
    pub name: Option<String>,
    /// Its lines.
    pub lines: Vec<ReadLine>,
    /// What keeps it out of jars, whatever its page prints.
    pub findings: Vec<Finding>,
}

impl ReadText {
    /// Lines with what is to be said of them at once.
    pub(crate) fn of(name: Option<String>, lines: Vec<ReadLine>) -> Self {
        let parts: Vec<Part> = lines.iter().map(ReadLine::part).collect();
        Self { name, findings: forbidden(&parts), lines }
    }
}

fn says(lines: &[RecipeLine]) -> Vec<String> {
    lines.iter().map(|line| line.part.says()).collect()
}

/// Times of a recipe in a kitchen.
fn times(text: &RecipeText, altitude: Option<Altitude>) -> Vec<RecipeTimeView> {
    let (Some(process), Some(altitude)) = (&text.process, altitude) else { return Vec::new() };
    let mut asked: Vec<(JarSize, Method)> = Vec::new();
    for line in &process.times {
        if !asked.contains(&(line.jar, line.method)) {
            asked.push((line.jar, line.method));
        }
    }
    asked
        .into_iter()
        .map(|(jar, method)| {
            let time = process.time(jar, method, altitude);
            RecipeTimeView {
                jar,
                method,
                minutes: time.as_ref().ok().map(|time| time.option.minutes),
                psi: time.as_ref().ok().and_then(|time| time.option.psi),
                why_not: time.err().map(|error| error.to_string()),
            }
        })
        .collect()
}

/// A recipe in the household's kitchen.
pub(crate) fn view(recipe: Recipe, altitude: Option<Altitude>) -> RecipeView {
    RecipeView {
        says: says(&recipe.text.lines),
        stands: stands(&recipe.text, altitude),
        line_asks: line_asks(&recipe.text),
        altitude_printed: recipe.text.process.as_ref().map(RecipeProcess::altitude_printed),
        times: times(&recipe.text, altitude),
        altitude_ft: altitude.map(Altitude::feet),
        id: recipe.id,
        parent: recipe.parent,
        at: recipe.at,
        text: recipe.text,
    }
}

/// A recipe that comes with the program.
pub(crate) fn shipped_view(shipped: &Shipped) -> ShippedView {
    ShippedView { says: says(&shipped.text.lines), shipped: shipped.clone() }
}

/// Parts of a recipe made so many times, with what is done to each.
fn card(scaled: Vec<Part>, preparations: impl Iterator<Item = Option<String>>) -> Vec<CardLine> {
    scaled
        .into_iter()
        .zip(preparations)
        .map(|(part, preparation)| CardLine { says: part.says(), part, preparation })
        .collect()
}

/// A recipe made so many times.
pub(crate) fn scale(
    store: &Store,
    text: &RecipeText,
    (factor, scarcest): (f64, Option<String>),
) -> Result<RecipeScale, StoreError> {
    let preparations = text.lines.iter().map(|line| line.preparation.clone());
    let parts = scaled(&parts_of(text), &exact(factor));
    let raw = raw_volume(&parts);
    let lines = card(parts, preparations);
    let kettles = store.kettles()?;
    let brims: Vec<_> = kettles.iter().map(|kettle| vessel(kettle).brim()).collect();
    let names: Vec<&str> = kettles.iter().map(|kettle| kettle.name.as_str()).collect();
    Ok(RecipeScale {
        pots: in_pots(raw, &brims).in_words(&names, store.kitchen()?.units),
        factor,
        scarcest,
        raw_l: raw.get::<liter>(),
        makes: text.makes.map(|makes| Makes { low: makes.low * factor, high: makes.high * factor, ..makes }),
        lines,
    })
}

/// A bowl as it is read out; that nobody measured it, is said too.
fn said(part: &Part) -> String {
    if part.amount.is_none() { format!("{}: not measured", part.name) } else { part.says() }
}

/// Where a batch went, beside its jars.
pub(crate) fn went(store: &Store, batch: BatchId) -> Result<Vec<Went>, StoreError> {
    Ok(store.moves(batch)?.into_iter().map(Went::from).collect())
}

/// Bowls beside their recipe.
pub(crate) fn bowls_view(shared: &Shared, bowls: Bowls) -> Result<BowlsView, StoreError> {
    let store = &shared.store;
    let recipe = store.any_recipe(bowls.recipe)?;
    let batch = store.batch_of_bowls(bowls.id)?;
    let jars = batch.map(|batch| store.batch_sizes(batch)).transpose()?.unwrap_or_default();
    let went = batch.map_or_else(|| Ok(Vec::new()), |batch| went(store, batch))?;
    let batch = batch.map(|id| store.batch(id)).transpose()?;
    let seen = seen(&bowls, &jars);
    let altitude = store.kitchen()?.altitude();
    let mixed = bowls.mixed_at.is_some();
    Ok(BowlsView {
        planned: card(planned(&bowls), std::iter::repeat(None)),
        ways_back: ways_back_filled(&bowls.base, &bowls.actual, &jars, mixed),
        instead: instead(&seen),
        may_can: may_can(&recipe.text, altitude, &bowls, &jars),
        asks_strength: asks_strength(&bowls),
        cold: batch.as_ref().is_some_and(Batch::is_cold).then(|| made_cold(!went.is_empty())),
        batch,
        went,
        id: bowls.id,
        recipe: bowls.recipe,
        factor: bowls.factor,
        said: bowls.actual.iter().map(said).collect(),
        actual: bowls.actual,
        at: bowls.at,
        mixed,
        seen,
    })
}
