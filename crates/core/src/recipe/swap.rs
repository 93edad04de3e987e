//! What stands for something else among the acids of a recipe.

use bodega_model::recipe::acids::{Acid, Named, WEAK, acid, named, per_cent};
use bodega_model::recipe::part::{Part, Role, Strength, plain};
use serde::Serialize;

/// Why something in the bowls may not stand for what the recipe has.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Swap {
    /// What is in the bowls.
    pub name: String,
    /// Whether it may stay.
    pub safe: bool,
    /// Why, for a person.
    pub says: String,
}

/// What stands for something else among the acids. `actual` is as somebody called it: what its name makes of it is said here.
pub(super) fn swaps(base: &[Part], actual: &[Part]) -> Vec<Swap> {
    let has =
        |kind: Acid| base.iter().any(|part| part.role == Role::Acid && part.is_there() && acid(part) == kind);
    let strongest = base
        .iter()
        .filter(|other| acid(other) == Acid::Vinegar)
        .filter_map(|other| per_cent(&other.name))
        .fold(0.0, f64::max);
    let mut found = Vec::new();
    for part in actual.iter().filter(|part| part.is_there()) {
        let mut say = |safe: bool, says: &str| {
            found.push(Swap { name: part.name.clone(), safe, says: says.to_owned() });
        };
        // What the recipe itself has under this name is a matter of its own page.
        let is_of_recipe = base.iter().any(|other| plain(&other.name) == plain(&part.name));
        match named(&part.name) {
            Some(Named::NotAcid { why, .. }) if part.role == Role::Acid && !is_of_recipe => say(false, why),
            Some(Named::Acid(Acid::Vinegar)) => {
                if per_cent(&part.name).is_some_and(|given| given < strongest) {
                    say(false, "This vinegar is weaker than the recipe's: use one of at least its strength.");
                }
                if part.strength == Some(Strength::Weak) {
                    say(false, WEAK);
                }
                if !has(Acid::Vinegar) && has(Acid::Juice) {
                    say(false, "Vinegar is weaker than lemon or lime juice and never stands for it.");
                }
            }
            Some(Named::Acid(Acid::Juice)) if !has(Acid::Juice) && has(Acid::Vinegar) => {
                say(
                    true,
                    "Bottled lemon or lime juice may stand for vinegar, cup for cup; it tastes sharper.",
                );
            }
            Some(Named::Acid(Acid::Citric)) if !has(Acid::Citric) => {
                say(false, "Citric acid goes in only where the recipe has it.");
            }
            _ => {}
        }
    }
    found
}
