//! A jar or bottle of unknown size: what it holds is found with water and a scale.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::units::{Mass, Volume, litres};
use serde::Serialize;
use uom::si::mass::kilogram;
use uom::si::volume::milliliter;

/// What a jar of unknown size is taken for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JarByWater {
    /// The size whose time and dose it gets; `null` when it holds more than every jar that tomatoes were tested in.
    pub jar: Option<JarSize>,
    /// That in words.
    pub says: String,
}

/// What a jar holds by the water that fills it to the rim: a kilogram of water is a litre, within half a percent at the tap's
/// temperature (a fact of physics, from memory). It is timed and dosed as the next size that holds as much: common practice, no
/// source.
///
/// ```
/// use bodega_model::jars::size::JarSize;
/// use bodega_core::jars::unknown::by_water;
/// use bodega_model::measures::units::kilograms;
/// assert_eq!(by_water(kilograms(0.43)).jar, Some(JarSize::Pint));
/// assert_eq!(by_water(kilograms(1.3)).jar, None);
/// ```
#[must_use]
pub fn by_water(water: Mass) -> JarByWater {
    let held: Volume = litres(water.get::<kilogram>());
    let ml = held.get::<milliliter>().round();
    let jar = JarSize::for_volume(held);
    let says = match jar {
        Some(jar) => format!(
            "It holds {ml} mL. Take it for a {jar}: that is the next size up with a tested time, so neither the minutes nor \
             the acid can be too little. Only if it is a canning jar with a two-piece lid: no other food jar or bottle is \
             canned in."
        ),
        None => format!(
            "It holds {ml} mL, and tomatoes were never tested in a jar so large. Fill quarts or pints, or freeze it."
        ),
    };
    JarByWater { jar, says }
}

#[cfg(test)]
mod tests {
    use super::by_water;
    use bodega_model::jars::size::JarSize;
    use bodega_model::measures::units::kilograms;

    #[test]
    fn a_bottle_is_never_taken_for_a_smaller_jar() {
        for grams in 20..=1_000 {
            let found = by_water(kilograms(f64::from(grams) / 1_000.0));
            let jar = found.jar.unwrap();
            assert!(
                jar.volume() >= super::litres(f64::from(grams) / 1_000.0 - 1e-9),
                "{grams} g are no {jar}"
            );
            assert!(jar.is_canned());
        }
        assert_eq!(by_water(kilograms(0.95)).jar, Some(JarSize::Litre));
        let large = by_water(kilograms(1.001));
        assert_eq!(large.jar, None);
        assert!(large.says.contains("never tested"), "{}", large.says);
    }
}
