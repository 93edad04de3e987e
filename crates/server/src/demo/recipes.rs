//! A recipe in the demo's book, copied to be checked, and bowls into which too much went.

use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_core::recipe::shipped;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::moment::Moment;
use bodega_model::recipe::part::{Part, Role};
use bodega_model::records::recipe::RecipeText;
use bodega_store::{Store, StoreError};

/// How many times it is made.
const TIMES: f64 = 2.0;

/// Writes it down.
///
/// # Errors
/// What the store says.
pub(super) fn recipes(store: &Store, now: Moment) -> Result<(), StoreError> {
    let Some(remembered) = shipped::all().iter().find(|shipped| shipped.key == "free_choice_salsa") else {
        return Ok(());
    };
    let text = RecipeText { name: "Terrace salsa".to_owned(), ..remembered.text.clone() };
    let recipe = store.add_recipe(&text, None, now)?;
    let base = parts_of(&text);
    let in_them = |part: Part| {
        let amount = part.amount.map(|amount| if part.role == Role::LowAcid { amount + 4.0 } else { amount });
        Part { amount, ..part }
    };
    let actual: Vec<Part> = scaled(&base, &exact(TIMES)).into_iter().map(in_them).collect();
    store.add_bowls(recipe.id, TIMES, (&base, &actual), now)?;
    Ok(())
}
