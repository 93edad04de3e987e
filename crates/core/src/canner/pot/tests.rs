use bodega_model::canner::cover::COVER_IN;
use bodega_model::canner::outline::{JarOutside, Outline, Outsides, Pot, usual_outside};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Power, Temperature, inches, litres, millimetres as mm};
use uom::si::length::millimeter;
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::volume::liter;

use super::{Cover, Crowding, boils_away, fill, overhangs};
use crate::canner::heat::{Charge, come_up};
use crate::canner::standing::most_of;

fn standard() -> Pot {
    Pot { outline: Outline::round(mm(305.0)), inner_height: mm(255.0), rack_height: mm(12.0) }
}

/// So many millimetres over the lids, where two inches are asked for.
fn over(cover: f64) -> Cover {
    Cover { at_start: mm(cover), least: inches(COVER_IN) }
}

#[test]
fn standard_canner_holds_what_is_published() {
    // USDA Guide 1, from memory: a usual canner holds 7 quarts or 9 pints.
    for (jar, most) in [(JarSize::Quart, 7), (JarSize::Pint, 9)] {
        assert_eq!(most_of(Outline::round(mm(305.0)), jar, &Outsides::default()), most, "{jar}");
    }
}

#[test]
fn water_rises_by_what_the_jars_push_aside() {
    let filling = fill(&standard(), &[(JarSize::Quart, 7)], over(38.0), &Outsides::default());
    assert!(filling.fits, "{filling:?}");
    // 228 mm of water over 730.6 cm² less seven quarts of 1.17 L.
    let expected = 0.228 * 730.62e-4 * 1000.0 - 7.0 * 0.946_353 * 1.24;
    assert!((filling.water.get::<liter>() - expected).abs() < 0.05, "{filling:?}");
    assert!((filling.headroom.get::<millimeter>() - 27.0).abs() < 1e-6);
    assert!(filling.level_before < mm(228.0 - 60.0), "the jars push the rest up");
}

#[test]
fn too_many_too_tall_and_too_little_water_are_said() {
    let high = Pot { inner_height: mm(300.0), ..standard() };
    let crowded = fill(&high, &[(JarSize::Quart, 5), (JarSize::Pint, 4)], over(51.0), &Outsides::default());
    assert_eq!((crowded.fits, crowded.cautions), (false, vec![Crowding::TooMany]));
    let low = Pot { inner_height: mm(200.0), ..standard() };
    let tall = fill(&low, &[(JarSize::Quart, 7)], over(51.0), &Outsides::default());
    assert_eq!((tall.fits, tall.cautions), (false, vec![Crowding::TooTall]));
    let thin = fill(&standard(), &[(JarSize::Pint, 9)], over(10.0), &Outsides::default());
    assert_eq!((thin.fits, thin.cautions), (true, vec![Crowding::LowCover]));
}

#[test]
fn come_up_is_heat_over_power() {
    let celsius = Temperature::new::<degree_celsius>;
    // 10 L of water and 6.6 L of hot pack from 82 °C to 100 °C, by hand: 754 + 418 kJ.
    let charge =
        Charge { water: litres(10.0), water_at: celsius(82.0), food: litres(6.6), food_at: celsius(82.0) };
    let sea = Altitude::from_feet(0.0).unwrap().boiling_point();
    let minutes = come_up(&charge, sea, Power::new::<watt>(2000.0), 0.5).get::<uom::si::time::minute>();
    assert!((minutes - (753.0 + 418.0) / 60.0).abs() < 0.3, "{minutes}");
    let high = Altitude::from_feet(6000.0).unwrap().boiling_point();
    assert!(come_up(&charge, high, Power::new::<watt>(2000.0), 0.5).get::<uom::si::time::minute>() < minutes);
}

#[test]
fn a_canner_stands_at_most_two_inches_over_its_burner_on_a_side() {
    assert!(!overhangs(mm(330.0), mm(230.0)) && overhangs(mm(332.0), mm(230.0)));
    assert!((boils_away(Minutes(90)).get::<liter>() - 1.5).abs() < 1e-9);
}

#[test]
fn a_measured_jar_counts_as_it_was_measured() {
    let wide = JarOutside { diameter: mm(110.0), height: mm(178.0) };
    let outsides = Outsides([(JarSize::Quart, wide)].into());
    let high = Pot { inner_height: mm(300.0), ..standard() };
    let filling = fill(&high, &[(JarSize::Quart, 7)], over(51.0), &outsides);
    assert_eq!((filling.fits, filling.cautions), (false, vec![Crowding::TooMany]));
    assert_eq!(outsides.of(JarSize::Pint), usual_outside(JarSize::Pint));
}
