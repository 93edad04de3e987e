//! What else is in the jars: vegetables against the weight of tomatoes, and things that no tested process covers.

use super::case::{Case, Ingredient};
use super::{Code, Finding};
use crate::measures::units::{Volume, cups, in_cups, in_pounds, pounds};
use crate::measures::words::capital;
use crate::tables::process::Product;
use crate::tables::source::Source;

/// Cups of chopped vegetables that 22 lb of tomatoes carry in the tested juice. Source: USDA Guide 3, from memory.
pub const VEGETABLE_CUPS: f64 = 3.0;
/// Pounds of tomatoes to [`VEGETABLE_CUPS`].
pub const VEGETABLE_LB: f64 = 22.0;
/// Slack for a decimal number of cups.
const SLACK_CUPS: f64 = 1e-6;

/// How an ingredient is judged.
enum Place {
    /// Counts as a vegetable.
    Vegetable,
    /// Low in acid; in no tested process for tomatoes alone.
    LowAcid,
    /// Not low in acid, but in no tested process either.
    Untested,
    /// Free.
    Free,
}

fn place(what: Ingredient, product: Option<Product>) -> Place {
    match what {
        Ingredient::Garlic if product == Some(Product::VegetableJuice) => Place::Vegetable,
        Ingredient::Mushroom | Ingredient::Garlic | Ingredient::Meat | Ingredient::Oil => Place::LowAcid,
        Ingredient::Onion
        | Ingredient::Pepper
        | Ingredient::Carrot
        | Ingredient::Celery
        | Ingredient::Beet
        | Ingredient::Spinach
        | Ingredient::Parsley => match product {
            // Juice and sauce carry the tested share; there is none for the others.
            Some(Product::Whole | Product::Crushed | Product::Paste) => Place::LowAcid,
            _ => Place::Vegetable,
        },
        Ingredient::Wine => Place::Untested,
        Ingredient::DriedHerb | Ingredient::BasilLeaf | Ingredient::Salt | Ingredient::Sugar => Place::Free,
    }
}

const OWN_RECIPE: &str =
    "Leave it out and add it when you open the jar, or follow a tested recipe that has it, whole.";

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let mut vegetables = Volume::default();
    let mut low_acid = Vec::new();
    let mut untested = Vec::new();
    for addition in case.additions.iter().filter(|addition| in_cups(addition.amount) > 0.0) {
        match place(addition.what, case.product) {
            Place::Vegetable => vegetables += addition.amount,
            Place::LowAcid => low_acid.push(addition.what.label()),
            Place::Untested => untested.push(addition.what.label()),
            Place::Free => {}
        }
    }
    let mut found = Vec::new();
    if !low_acid.is_empty() {
        found.push(Finding::new(
            Code::LowAcidAddition,
            format!(
                "{} in it: low in acid, and in no tested process for this product.",
                capital(&low_acid.join(", "))
            ),
            "Low-acid food lifts the pH and slows the heat; the tested time and dose were made without it.",
            OWN_RECIPE,
            Source::usda_guide_3(),
        ));
    }
    if !untested.is_empty() {
        found.push(Finding::new(
            Code::NoTestedProcess,
            format!("{} in it: no tested process covers that.", capital(&untested.join(", "))),
            "It thins the acid and changes what was tested.",
            OWN_RECIPE,
            Source::usda_guide_3(),
        ));
    }
    if let Some(weight) = case.fruit.weight {
        let allowed = cups(VEGETABLE_CUPS * (weight / pounds(VEGETABLE_LB)).get::<uom::si::ratio::ratio>());
        if in_cups(vegetables) > in_cups(allowed) + SLACK_CUPS {
            found.push(Finding::new(
                Code::VegetableRatio,
                format!(
                    "{:.1} cups of vegetables are too many for {:.0} lb of tomatoes, which carry {:.1}.",
                    in_cups(vegetables),
                    in_pounds(weight),
                    in_cups(allowed)
                ),
                "Vegetables are low in acid. The process was tested with at most 3 cups to 22 lb of tomatoes.",
                "Take vegetables out or add tomatoes until the share is right. More acid does not make up for it.",
                Source::usda_guide_3(),
            ));
        }
    }
    found
}
