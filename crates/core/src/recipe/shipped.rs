//! Recipes that come with the program, recalled from memory: to be looked at, and to be held against a copy before anybody cans
//! by them.

use std::sync::LazyLock;

use bodega_model::jars::size::JarSize;
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::moment::Minutes;
use bodega_model::published::reader::{TableError, rows};
use bodega_model::recipe::part::{Part, Role};
use bodega_model::recipe::process::{AltitudePrinted, PrintedTime, RecipeProcess};
use bodega_model::records::recipe::{Makes, RecipeLine, RecipeText};
use bodega_model::tables::process::{Method, Pack};
use serde::{Deserialize, Serialize};

const PARTS: &str = "recipes.csv";
const TIMES: &str = "recipe_times.csv";

#[derive(Debug, Deserialize)]
struct PartRow {
    recipe: String,
    name: String,
    part: String,
    amount: f64,
    unit: Unit,
    role: Role,
    group: Option<String>,
}

#[derive(Debug, Deserialize)]
struct TimeRow {
    recipe: String,
    jar: JarSize,
    method: Method,
    up_to_ft: Option<f64>,
    minutes: u32,
    psi: Option<u32>,
    headspace_in: f64,
    low: f64,
    high: f64,
}

/// A recipe that comes with the program.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Shipped {
    /// Its word.
    pub key: String,
    /// What is remembered of it; nothing of it is ticked.
    pub text: RecipeText,
}

static ALL: LazyLock<Vec<Shipped>> =
    LazyLock::new(|| parse_recipes().expect("the tables are checked at start"));

/// All of them.
#[must_use]
pub fn all() -> &'static [Shipped] {
    &ALL
}

/// Parses the recipes and their times.
///
/// # Errors
/// A row that does not fit, or a recipe without a time.
pub fn parse_recipes() -> Result<Vec<Shipped>, TableError> {
    let parts: Vec<PartRow> = rows(PARTS, include_str!("../../data/recipes.csv"))?;
    let times: Vec<TimeRow> = rows(TIMES, include_str!("../../data/recipe_times.csv"))?;
    let mut found: Vec<Shipped> = Vec::new();
    for row in parts {
        let part = Part::new(row.part, Some(row.amount), Some(row.unit), row.role).in_group(row.group);
        part.check().map_err(|error| TableError::new(PARTS, error))?;
        let line = RecipeLine { part, preparation: None, ticked: false };
        match found.iter_mut().find(|shipped| shipped.key == row.recipe) {
            Some(shipped) => shipped.text.lines.push(line),
            None => found.push(Shipped { text: text(&row.recipe, row.name, line, &times)?, key: row.recipe }),
        }
    }
    Ok(found)
}

fn text(key: &str, name: String, first: RecipeLine, times: &[TimeRow]) -> Result<RecipeText, TableError> {
    let own: Vec<&TimeRow> = times.iter().filter(|row| row.recipe == key).collect();
    let Some(row) = own.first() else {
        return Err(TableError::new(TIMES, format!("{key} has no time")));
    };
    let printed = own.iter().map(|row| PrintedTime {
        jar: row.jar,
        method: row.method,
        up_to_ft: row.up_to_ft,
        above: row.up_to_ft.is_none(),
        minutes: Minutes(row.minutes),
        psi: row.psi,
    });
    let process = RecipeProcess {
        pack: Pack::Hot,
        headspace_in: row.headspace_in,
        altitude: Some(AltitudePrinted::Bands),
        times: printed.collect(),
    };
    process.check().map_err(|error| TableError::new(TIMES, error))?;
    Ok(RecipeText {
        name,
        lines: vec![first],
        makes: Some(Makes { jar: row.jar, low: row.low, high: row.high }),
        process: Some(process),
        process_ticked: false,
        kind: None,
        is_all_its_acid: false,
        title: String::new(),
        edition: String::new(),
        page: String::new(),
        note: String::new(),
    })
}
