//! A tested recipe against what is in the bowls: proportions and swaps, and whether there is a process at all. What makes the
//! recipe itself unfit for jars is [its page's](super::recipe_fit).

use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Finding, Severity};
use bodega_model::ledger::keep::COLD_INSTEAD;
use bodega_model::measures::units::litres;
use bodega_model::measures::words::{capital, counted, with_article};
use bodega_model::recipe::part::{Part, Side};
use bodega_model::recipe::per_jar::acid_doses;
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::tables::process::Pack;

use super::case::{Case, CaseRecipe};
use super::recipe_fit::{fit, forbidden, source};
use crate::recipe::back::{instead, ways_back_filled, ways_in_words};
use crate::recipe::compare::{Comparison, compare_filled};

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let Some(recipe) = &case.recipe else { return Vec::new() };
    let mut found = untested(recipe);
    found.extend(forbidden(recipe.base.iter().chain(recipe.actual.iter().flatten())));
    found.extend(fit(recipe, case.heating));
    found.extend(packed_raw(case, recipe));
    found.extend(undosed(recipe));
    if let Some(actual) = &recipe.actual {
        let jars = case.jars_of_batch();
        let seen = compare_filled(&recipe.base, actual, &jars, recipe.labels_asked);
        found.extend(thinner(case, recipe, &seen));
        found.extend(proportions(recipe, actual, &jars, &seen));
    }
    found
}

/// Jars without what the recipe puts into each of them.
fn undosed(recipe: &CaseRecipe) -> Option<Finding> {
    let named = acid_doses(&recipe.base).iter().map(Part::says).collect::<Vec<_>>().join(" and ");
    if named.is_empty() || recipe.dosed == Some(true) {
        return None;
    }
    let finding = Finding::new(
        Code::NoAcid,
        format!("The recipe puts {named}."),
        "Its acid is measured out jar by jar; a jar without it is not the tested recipe.",
        "Put the dose into every jar, and tick it.",
        source(),
    );
    Some(if recipe.dosed.is_none() { finding.untold() } else { finding })
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

/// No process of its own, or one that nobody held against a copy.
fn untested(recipe: &CaseRecipe) -> Vec<Finding> {
    let why = "A recipe's time was tested for its own proportions. Nobody can work one out at home, and no other recipe's \
               time may be borrowed, plain sauce's neither.";
    if recipe.process.is_none() {
        return vec![Finding::new(
            Code::RecipeUntested,
            "This recipe has no tested process: its jars cannot be canned.",
            why,
            COLD_INSTEAD,
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

fn proportions(
    recipe: &CaseRecipe,
    actual: &[Part],
    jars: &[(JarSize, u32)],
    seen: &Comparison,
) -> Vec<Finding> {
    let ways = ways_back_filled(&recipe.base, actual, jars, recipe.mixed);
    let mut found = Vec::new();
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
        .filter(|line| line.safe == Some(false) && line.side != Side::Never)
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
