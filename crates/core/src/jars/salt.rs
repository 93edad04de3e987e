//! Salt for taste.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::teaspoons::Teaspoons;

/// Salt for one jar, taste only: 1 tsp a quart, in proportion, to the next ⅛ tsp. Source: USDA Guide 3, from memory.
#[must_use]
pub fn salt_per_jar(jar: JarSize) -> Teaspoons {
    Teaspoons::new(1, 2).in_proportion(jar.pints()).rounded_up_to(Teaspoons::new(1, 8))
}
