//! The lines of a recipe's own page as parts.

use bodega_model::recipe::part::{Part, Per, Role};
use bodega_model::recipe::weights::kind;
use bodega_model::records::recipe::{RecipeLine, RecipeText};

use super::line::{ReadLine, each_jar};

/// The part with what is done to it where that makes it another thing: lemon juice that is freshly squeezed is no bottled
/// juice, wherever the line says so.
#[must_use]
pub fn whole(line: &RecipeLine) -> Part {
    let Some(done) = line.preparation.as_ref().filter(|_| is_acid(line)) else {
        return line.part.clone();
    };
    let whole = Part { name: format!("{}, {done}", line.part.name), ..line.part.clone() };
    let is_other = kind(&whole.name) != kind(&line.part.name) || each_jar(&whole).is_some();
    if is_other { whole } else { line.part.clone() }
}

fn is_acid(line: &RecipeLine) -> bool {
    kind(&line.part.name).is_some_and(|(role, _)| role == Role::Acid)
}

/// Its parts, made once.
#[must_use]
pub fn parts_of(text: &RecipeText) -> Vec<Part> {
    text.lines.iter().map(whole).collect()
}

impl From<RecipeLine> for ReadLine {
    /// A line of a recipe file, which says all of itself.
    fn from(line: RecipeLine) -> Self {
        let RecipeLine { part, preparation, .. } = line;
        let each = match part.per {
            Per::Jar(jar) => Some(jar),
            Per::Batch => None,
        };
        Self {
            line: part.says(),
            amount: part.amount,
            up_to: None,
            unit: part.unit,
            preparation,
            role: Some(part.role),
            group: part.group,
            per: Some(part.per),
            per_jar: each,
            packet: part.packet,
            asks: Vec::new(),
            name: part.name,
        }
    }
}
