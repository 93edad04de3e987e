//! What a label says of when its jar is eaten.

use std::fmt::Display;

use bodega_model::jars::size::JarSize;
use bodega_model::judge::standing::JarStanding;
use bodega_model::records::recipe::BatchRecipe;

/// Until when a jar is at its best; of one that something stands against, that it is not eaten.
///
/// ```
/// use bodega_model::judge::standing::JarStanding;
/// use bodega_core::shelf::label_words::best_line;
/// assert_eq!(best_line(&JarStanding::CLEAR, "2027-09-12"), "best before 2027-09-12");
/// ```
#[must_use]
pub fn best_line(standing: &JarStanding, best_before: impl Display) -> String {
    match standing.brief() {
        Some(stops) => format!("do not eat: {stops}"),
        None => format!("best before {best_before}"),
    }
}

/// Of a jar that is kept cold: until when it is eaten, or that it is frozen.
///
/// ```
/// use bodega_core::shelf::label_words::cold_line;
/// assert_eq!(cold_line(Some("2026-09-16")), "refrigerator: eat by 2026-09-16");
/// assert_eq!(cold_line(None::<&str>), "frozen");
/// ```
#[must_use]
pub fn cold_line(eat_by: Option<impl Display>) -> String {
    eat_by.map_or_else(|| "frozen".to_owned(), |day| format!("refrigerator: eat by {day}"))
}

/// What nobody has said of a jar yet, for the line of what is in it; nothing when all was said, or when it is not eaten anyway.
#[must_use]
pub fn open_words(standing: &JarStanding) -> Option<String> {
    let open = standing.open_brief().filter(|_| !standing.is_stopped())?;
    Some(format!("not said: {open}"))
}

/// The acid of a jar of a recipe: "with 2 tablespoons bottled lemon juice", or that it is in the pot. `None` of a recipe that has none
/// which can be relied on, as one for a pressure canner.
#[must_use]
pub fn recipe_acid(recipe: &BatchRecipe, jar: JarSize, brings_its_acid: bool) -> Option<String> {
    let doses: Vec<String> =
        recipe.doses_in(jar).map(|dose| format!("{} {}", dose.amount_in_words(), dose.name)).collect();
    if doses.is_empty() {
        return brings_its_acid.then(|| "its acid is in it".to_owned());
    }
    Some(format!("with {}", doses.join(", ")))
}
