//! What else is in the jars: vegetables against the weight of tomatoes, and things that no tested process covers.

use bodega_model::contents::{leaves, leaves_in};
use bodega_model::judge::finding::{Code, Finding, Subject};
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::units::{Mass, Volume, cups, in_cups, in_pounds, pounds};
use bodega_model::measures::words::{capital, counted};
use bodega_model::published::source::Source;
use bodega_model::recipe::part::{Part, Role};
use bodega_model::tables::process::Product;

use super::case::{Addition, Case, Ingredient};
use crate::recipe::back::{ways_back, ways_in_words};

/// Cups of chopped vegetables that 22 lb of tomatoes carry in the tested juice. Source: USDA Guide 3, from memory.
pub const VEGETABLE_CUPS: f64 = 3.0;
/// Pounds of tomatoes to [`VEGETABLE_CUPS`].
pub const VEGETABLE_LB: f64 = 22.0;
/// Leaves of basil that a jar carries. Common practice, no source.
const LEAVES_PER_JAR: u32 = 1;
/// Slack for a number of leaves that was kept as cups: far less than a leaf.
const SLACK_LEAVES: f64 = 1e-3;
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
    /// Thickens: heat comes through it far more slowly.
    Thickens,
    /// Takes the acid away.
    TakesAcid,
    /// Taken for acid, and none.
    NoAcid,
    /// Thins the acid.
    Thins,
    /// Nobody can tell.
    Unknown,
    /// One to a jar; more is low in acid.
    Leaves,
    /// Free.
    Free,
}

fn place(what: Ingredient, product: Option<Product>) -> Place {
    match what {
        // Tested in vegetable juice only; while the product is not known they are counted against its limit.
        Ingredient::Onion | Ingredient::Pepper | Ingredient::Carrot | Ingredient::Celery => match product {
            Some(Product::VegetableJuice) | None => Place::Vegetable,
            Some(_) => Place::LowAcid,
        },
        Ingredient::Beet
        | Ingredient::Spinach
        | Ingredient::Parsley
        | Ingredient::Garlic
        | Ingredient::Mushroom
        | Ingredient::Meat
        | Ingredient::Oil
        | Ingredient::Corn
        | Ingredient::Beans
        | Ingredient::Zucchini
        | Ingredient::OtherVegetable
        | Ingredient::FreshHerb
        | Ingredient::Butter
        | Ingredient::Dairy
        | Ingredient::Pesto => Place::LowAcid,
        Ingredient::Wine | Ingredient::TinnedPaste => Place::Untested,
        Ingredient::Starch | Ingredient::Pasta | Ingredient::Rice => Place::Thickens,
        Ingredient::BakingSoda => Place::TakesAcid,
        Ingredient::Aspirin => Place::NoAcid,
        // Whole tomatoes are covered with it.
        Ingredient::Water if product == Some(Product::Whole) => Place::Free,
        Ingredient::Water => Place::Thins,
        Ingredient::Other => Place::Unknown,
        Ingredient::BasilLeaf => Place::Leaves,
        Ingredient::DriedHerb
        | Ingredient::GarlicPowder
        | Ingredient::ChiliFlakes
        | Ingredient::FirmingSalt
        | Ingredient::Salt
        | Ingredient::Sugar => Place::Free,
    }
}

/// What was added in any amount.
fn added(case: &Case) -> impl Iterator<Item = &Addition> {
    case.additions.iter().flatten().filter(|addition| in_cups(addition.amount) > 0.0)
}

/// Whether there are vegetables in it that the weight of the tomatoes limits.
pub(super) fn has_vegetables(case: &Case) -> bool {
    added(case).any(|addition| matches!(place(addition.what, case.product), Place::Vegetable))
}

/// Cups of chopped vegetables that a weight of tomatoes carries in vegetable juice.
fn vegetables_carried(tomatoes: Mass) -> Volume {
    cups(VEGETABLE_CUPS * (tomatoes / pounds(VEGETABLE_LB)).get::<uom::si::ratio::ratio>())
}

const OWN_RECIPE: &str =
    "Leave it out and add it when you open the jar, or follow a tested recipe that has it, whole.";

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let mut vegetables = Volume::default();
    let mut basil = Volume::default();
    let mut low_acid = Vec::new();
    let mut others = Vec::new();
    let mut found = Vec::new();
    for addition in added(case) {
        match place(addition.what, case.product) {
            Place::Vegetable => vegetables += addition.amount,
            Place::Leaves => basil += addition.amount,
            Place::LowAcid => low_acid.push(addition.what.label()),
            Place::Untested => others.push(addition.what.label()),
            Place::Thickens => found.push(thickens(addition.what.label())),
            Place::TakesAcid => found.push(takes_acid(addition.what.label())),
            Place::NoAcid => found.push(is_no_acid(addition.what.label())),
            Place::Thins => found.push(thins(addition.what.label())),
            // Said by its name, below.
            Place::Unknown | Place::Free => {}
        }
    }
    found.extend(case.unknown_additions.iter().map(|name| nobody_knows(name)));
    if !low_acid.is_empty() {
        let named = low_acid.join(", ");
        let message =
            format!("{} in it: low in acid, and in no tested process for this product.", capital(&named));
        found.push(low(message).naming(named));
    }
    if !others.is_empty() {
        found.push(untested(
            &others.join(", "),
            "no tested process covers that",
            "It thins the acid and changes what was tested.",
            OWN_RECIPE,
        ));
    }
    found.extend(too_many_leaves(case, basil));
    found.extend(too_many_vegetables(case, vegetables));
    found
}

/// Flour, starch, pasta, rice. Source: USDA Guide 3, from memory.
fn thickens(what: &str) -> Finding {
    Finding::new(
        Code::Thickener,
        format!("{} in it: never before canning.", capital(what)),
        "A thickened jar heats through far more slowly than the one that was tested.",
        "Leave it out and thicken when you open the jar.",
        Source::usda_guide_3(),
    )
    .naming(what)
}

/// Baking soda. A fact of chemistry: it neutralizes the acid that was added.
fn takes_acid(what: &str) -> Finding {
    low(format!("{} in it: it takes the acid away.", capital(what))).naming(what)
}

/// Something that no tested process has, and what it does.
fn untested(what: &str, says: &str, why: &str, do_now: &str) -> Finding {
    let message = format!("{} in it: {says}.", capital(what));
    let finding = Finding::new(Code::NoTestedProcess, message, why, do_now, Source::usda_guide_3());
    finding.about(Subject::Contents).naming(what)
}

/// Aspirin. Source: USDA and extension guidance on canning with aspirin, from memory.
fn is_no_acid(what: &str) -> Finding {
    untested(
        what,
        "it is no acid for this, and no tested process has it",
        "Only bottled lemon juice, citric acid and vinegar of 5 % were tested to keep tomatoes acid enough.",
        "Leave it out, and give every jar its dose.",
    )
}

/// Water where none belongs. Source: USDA Guide 3, which adds none to crushed tomatoes, juice or sauce, from memory.
fn thins(what: &str) -> Finding {
    untested(
        what,
        "no tested process for this product has any",
        "It thins the acid of the tomatoes, and the dose was made without it.",
        "Leave it out; boil what is too thick a little less.",
    )
}

/// Something that has no word here.
fn nobody_knows(name: &str) -> Finding {
    let finding = untested(
        name,
        "nobody here can tell what that does to the acid and to the heat",
        "A tested process holds for what was tested; anything else may lift the pH or slow the heat.",
        "Leave it out, follow a tested recipe that has it, or ask your local extension office.",
    );
    finding.untold()
}

fn low(message: String) -> Finding {
    Finding::new(
        Code::LowAcidAddition,
        message,
        "Low-acid food lifts the pH and slows the heat; the tested time and dose were made without it.",
        OWN_RECIPE,
        Source::usda_guide_3(),
    )
}

fn too_many_leaves(case: &Case, basil: Volume) -> Option<Finding> {
    // The leaves are the whole batch's, however many loads its jars go in.
    let jars: u32 = case.jars_of_batch().iter().map(|(_, count)| count).sum();
    let carried = jars * LEAVES_PER_JAR;
    // Jars that nobody named are asked for by themselves.
    (carried > 0 && basil > leaves(f64::from(carried)) + cups(SLACK_CUPS)).then(|| {
        let message = format!(
            "{:.0} leaves of basil are too many for {}: more than a leaf a jar is low in acid.",
            // A leaf that was counted stays one, whatever became of it as a part of a cup.
            (leaves_in(basil) - SLACK_LEAVES).ceil(),
            counted(f64::from(jars), "jar")
        );
        low(message).naming("too much basil")
    })
}

/// The nearest way back to the tested juice, as for any recipe: its vegetables are one group, cups to pounds.
fn way_back(vegetables: Volume, tomatoes: Mass) -> String {
    let part =
        |name: &str, amount: f64, unit: Unit, role: Role| Part::new(name, Some(amount), Some(unit), role);
    let juice = |cups: f64, pounds: f64| {
        [
            part("tomatoes", pounds, Unit::Pound, Role::Tomato),
            part("vegetables", cups, Unit::Cup, Role::LowAcid),
        ]
    };
    let actual = juice(in_cups(vegetables), in_pounds(tomatoes));
    let ways = ways_back(&juice(VEGETABLE_CUPS, VEGETABLE_LB), &actual, false);
    format!("{}. More acid does not make up for it.", capital(&ways_in_words(&ways)))
}

fn too_many_vegetables(case: &Case, vegetables: Volume) -> Option<Finding> {
    if in_cups(vegetables) <= SLACK_CUPS {
        return None;
    }
    let ratio = |message: String, do_now: &str| {
        Finding::new(
            Code::VegetableRatio,
            message,
            "Vegetables are low in acid. The juice was tested with at most 3 cups to 22 lb of tomatoes.",
            do_now,
            Source::usda_guide_3(),
        )
    };
    let Some(weight) = case.fruit.weight else {
        let message = format!(
            "{:.1} cups of vegetables, and nobody said in how many pounds of tomatoes.",
            in_cups(vegetables)
        );
        return Some(ratio(message, "Say what the tomatoes weigh; 22 lb carry 3 cups.").untold());
    };
    let allowed = vegetables_carried(weight);
    (in_cups(vegetables) > in_cups(allowed) + SLACK_CUPS).then(|| {
        ratio(
            format!(
                "{:.1} cups of vegetables are too many for {:.0} lb of tomatoes, which carry {:.1}.",
                in_cups(vegetables),
                in_pounds(weight),
                in_cups(allowed)
            ),
            &way_back(vegetables, weight),
        )
    })
}
