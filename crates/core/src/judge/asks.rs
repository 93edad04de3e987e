//! What the judge has to be told before it can tell: everything that a tested process depends on.

use bodega_model::judge::question::{Ask, Question};
use bodega_model::tables::process::Product;

use super::case::{Case, Heating};
use super::{additions, time};

/// The questions that are open, in the order of the work.
pub(super) fn open(case: &Case) -> Vec<Question> {
    let is_open = |ask: &Ask| match (ask, &case.recipe) {
        (Ask::Amounts, recipe) => recipe.as_ref().is_some_and(|recipe| recipe.actual.is_none()),
        // A recipe has its own parts, acid and pack.
        (
            Ask::Product | Ask::Medium | Ask::Pack | Ask::Additions | Ask::Weight | Ask::Agent | Ask::Dose,
            Some(_),
        ) => false,
        (ask, _) => is_open_of_plain(case, *ask),
    };
    Ask::ALL
        .iter()
        .filter(|ask| is_open(ask))
        .map(|ask| Question { ask: *ask, says: ask.label(), batch: None })
        .collect()
}

/// Whether a question is open of plain tomatoes.
fn is_open_of_plain(case: &Case, ask: Ask) -> bool {
    match ask {
        Ask::Product => case.product.is_none(),
        Ask::Medium => case.product == Some(Product::Whole) && case.medium.is_none(),
        Ask::Pack => case.pack.is_none(),
        Ask::Additions => case.additions.is_none(),
        Ask::Weight => case.fruit.weight.is_none() && additions::has_vegetables(case),
        Ask::Jars => case.jar_count() == 0,
        Ask::Agent => case.acid.as_ref().is_some_and(|acid| acid.agent.is_none()),
        Ask::Dose => match &case.acid {
            None => true,
            Some(acid) => {
                let is_named = |jar| acid.per_jar_tsp.as_ref().is_some_and(|doses| doses.contains_key(&jar));
                acid.pot_dose_tsp.is_none() && case.sizes().any(|(jar, _)| !is_named(jar))
            }
        },
        Ask::Method => case.heating.is_none(),
        Ask::Altitude => case.altitude.is_none(),
        Ask::Minutes => case.heating != Some(Heating::None) && case.minutes.is_none(),
        Ask::Pounds => case.is_pressure() && case.psi.is_none(),
        // They stand on a load of the records, and a case has their answers.
        Ask::Claims | Ask::Water => false,
        Ask::OtherJars => time::unknown_others(case),
        // Of a recipe only.
        Ask::Amounts => false,
    }
}
