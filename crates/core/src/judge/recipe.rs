//! A tested recipe against what is in the bowls: proportions, swaps, thickeners, and whether there is a process at all.

use super::case::{Case, CaseRecipe};
use super::{Code, Finding, Severity};
use crate::jars::size::JarSize;
use crate::measures::units::litres;
use crate::measures::words::{capital, counted, with_article};
use crate::recipe::back::{instead, ways_back, ways_in_words};
use crate::recipe::compare::{Comparison, compare};
use crate::recipe::part::{Part, Role};
use crate::recipe::process::RecipeProcess;
use crate::tables::process::Pack;
use crate::tables::source::Source;

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let Some(recipe) = &case.recipe else { return Vec::new() };
    let mut found = untested(recipe);
    found.extend(packed_raw(case, recipe));
    if let Some(actual) = &recipe.actual {
        let seen = compare(&recipe.base, actual);
        found.extend(thinner(case, recipe, &seen));
        found.extend(proportions(recipe, actual, &seen));
    }
    found
}

/// Jars beyond what the recipe fills from which its acid is thinner in each. Ours.
const FAR_BEYOND: f64 = 1.25;

/// Far more jars than so many recipes fill: something else went in, or it was thinned.
fn thinner(case: &Case, recipe: &CaseRecipe, seen: &Comparison) -> Option<Finding> {
    let (makes, factor) = (recipe.makes?, seen.tomato_factor?);
    let jars = case.jars_of_batch();
    let filled = jars.iter().fold(litres(0.0), |sum, (jar, count)| sum + jar.volume() * f64::from(*count));
    let count: u32 = jars.iter().map(|(_, count)| count).sum();
    let most = makes.jar.volume() * makes.high * factor;
    (filled > most * FAR_BEYOND).then(|| {
        Finding::new(
            Code::RecipeRatio,
            format!(
                "{} are far more than the recipe fills with these tomatoes: {:.0} {}.",
                capital(&counted(f64::from(count), "jar")),
                makes.high * factor,
                makes.jar.plural()
            ),
            "The same acid in more jars is thinner in each of them.",
            "Look again at what went in: water, broth or vegetables that nobody wrote down.",
            source(),
        )
        .lighter(Severity::Warn)
    })
}

fn source() -> Source {
    Source::recalled("USDA Guide 3 and university extension guidance on changing tested recipes")
}

/// No process of its own, or one that nobody held against a copy.
fn untested(recipe: &CaseRecipe) -> Vec<Finding> {
    let why = "A recipe's time was tested for its own proportions. Nobody can work one out at home, and no other recipe's \
               time may be borrowed, plain sauce's neither.";
    if recipe.process.is_none() {
        return vec![Finding::new(
            Code::RecipeUntested,
            "This recipe has no tested process: its jars cannot be canned.",
            why,
            "Keep it in the refrigerator and eat it within a week, or freeze it.",
            source(),
        )];
    }
    if recipe.checked == Some(true) {
        return Vec::new();
    }
    let unchecked = Finding::new(
        Code::RecipeUntested,
        "Nobody has checked this recipe and its minutes against a copy.",
        why,
        "Tick every line and the minutes against the printed page, with title, edition and page; until then keep the jars \
         cold or freeze them.",
        source(),
    );
    vec![if recipe.checked.is_none() { unchecked.untold() } else { unchecked }]
}

/// A recipe is packed as its page says: its time begins with food that is boiling hot.
fn packed_raw(case: &Case, recipe: &CaseRecipe) -> Option<Finding> {
    let is_hot = recipe.process.as_ref().is_some_and(|process| process.pack == Pack::Hot);
    (is_hot && case.pack == Some(Pack::Raw)).then(|| {
        Finding::new(
            Code::NoTestedProcess,
            "The recipe is packed hot, and this went in raw.",
            "Its minutes begin with food that is boiling hot in the jar; cold food is still cold in the middle when they end.",
            "Heat it to the boil and pack it hot, or keep it cold and eat it within days.",
            source(),
        )
    })
}

/// A jar that is larger than the recipe was tested in.
pub(super) fn jar_too_large(process: &RecipeProcess, jar: JarSize) -> Finding {
    Finding::new(
        Code::RecipeJar,
        format!(
            "{} is larger than any jar that this recipe was tested in.",
            capital(&with_article(jar.label()))
        ),
        "The middle of a larger jar heats far more slowly; no time is known for it.",
        process.or_smaller(),
        source(),
    )
}

fn proportions(recipe: &CaseRecipe, actual: &[Part], seen: &Comparison) -> Vec<Finding> {
    let ways = ways_back(&recipe.base, actual, recipe.mixed);
    let mut found = Vec::new();
    let thick: Vec<&str> = seen
        .proportions
        .iter()
        .filter(|line| line.role == Role::Thickener && line.safe == Some(false))
        .map(|line| line.name.as_str())
        .collect();
    if !thick.is_empty() {
        let named = thick.join(", ");
        let finding = Finding::new(
            Code::Thickener,
            format!("{} in it: never before canning.", capital(&named)),
            "A thickened jar heats through far more slowly than the one that was tested.",
            "Leave it out and thicken when you open the jar.",
            source(),
        );
        found.push(finding.naming(named));
    }
    for swap in &seen.swaps {
        let finding = Finding::new(
            Code::RecipeSwap,
            format!("{}: {}", capital(&swap.name), swap.says),
            "The recipe was tested with its own acid; another one is stronger or weaker.",
            if swap.safe { "Nothing." } else { "Use the acid that the recipe names." },
            source(),
        );
        found.push(if swap.safe { finding.lighter(Severity::Note) } else { finding });
    }
    let ratio = |message: String, do_now: String| {
        Finding::new(
            Code::RecipeRatio,
            message,
            "The recipe was tested in these proportions. More of what is low in acid, or less acid, to the same tomatoes \
             lifts the pH, and nobody can see that in the bowls.",
            do_now,
            source(),
        )
    };
    let off: Vec<&str> = seen
        .proportions
        .iter()
        .filter(|line| line.safe == Some(false) && line.role != Role::Thickener)
        .map(|line| line.says.as_str())
        .collect();
    if !off.is_empty() {
        let do_now = if ways.is_empty() {
            instead(seen).join(" ")
        } else {
            format!("{}.", capital(&ways_in_words(&ways)))
        };
        found.push(ratio(format!("{}.", capital(&off.join("; "))), do_now));
    }
    if !seen.missing.is_empty() {
        found.push(
            ratio(
                format!("The proportions cannot be told. {}", seen.missing.join(" ")),
                "Measure it and say how much it is.".to_owned(),
            )
            .untold(),
        );
    }
    found
}
