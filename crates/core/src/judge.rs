//! What is wrong with a batch as planned or recorded, what it means and what to do now.
//!
//! The judge compares; it never repairs and never invents a process. A verdict is fine, not fine or cannot tell. A field
//! that was not given is not a mistake, and it is not fine either: while the process depends on it, the verdict cannot
//! tell and names what to say. Each rule is one function in a file named after what it looks at.

use bodega_model::judge::finding::{Finding, Ruling};
use bodega_model::judge::question::Question;
use serde::Serialize;

mod acid;
mod additions;
pub mod against;
mod asks;
mod canner;
pub mod case;
mod fruit;
mod handling;
mod jars;
mod ph;
pub mod ph_bench;
mod recipe;
pub mod recipe_fit;
pub mod recipe_page;
pub mod records;
pub mod standing;
mod time;

pub use case::{Case, CaseCanner};

/// The judge's answer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Verdict {
    /// What was found, stops first.
    pub findings: Vec<Finding>,
    /// What has to be said before the judge can tell, in the order of the work.
    pub questions: Vec<Question>,
    /// Fine, not fine or cannot tell; a known mistake outweighs what is not known.
    pub ruling: Ruling,
    /// Whether the ruling is fine.
    pub ready: bool,
}

/// Every rule, in the order of the work.
const RULES: &[fn(&Case) -> Vec<Finding>] = &[
    fruit::judge,
    acid::judge,
    additions::judge,
    jars::judge,
    time::judge,
    canner::judge,
    handling::judge,
    ph::judge,
];
/// The rules of a recipe: its proportions stand for the dose of plain tomatoes and for what else may be in them.
const RECIPE_RULES: &[fn(&Case) -> Vec<Finding>] =
    &[fruit::judge, recipe::judge, jars::judge, time::judge, canner::judge, handling::judge, ph::judge];

/// Judges a batch by every rule.
#[must_use]
pub fn judge(case: &Case) -> Verdict {
    let rules = if case.recipe.is_some() { RECIPE_RULES } else { RULES };
    let mut findings: Vec<Finding> = rules.iter().flat_map(|rule| rule(case)).collect();
    findings.sort_by_key(|finding| finding.severity);
    let questions = asks::open(case);
    let ruling = Ruling::of(&findings, !questions.is_empty());
    Verdict { questions, ruling, ready: ruling == Ruling::Fine, findings }
}
