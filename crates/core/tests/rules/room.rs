//! What a canner has room for, against the geometry of circles, and what rides along in it.

use bodega_core::canner::beside::{MOST_WAIT, rides_along, waits_too_long_from};
use bodega_core::canner::loads::{Group, group};
use bodega_core::canner::room::NoRoom;
use bodega_core::canner::room::room_of;
use bodega_core::canner::room::{CannerRoom, Room};
use bodega_core::canner::standing::{Place, standing};
use bodega_core::canner::standing::{holds, most_of};
use bodega_core::counter::of_bench;
use bodega_core::judge::records::judge_load;
use bodega_model::canner::events::BoilEvent;
use bodega_model::canner::outline::{JarOutside, Outline, Outsides, usual_outside};
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Code;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::millimetres as mm;
use bodega_model::records::canner::PotSize;
use bodega_model::records::load::AlsoIn;
use bodega_model::tables::process::Method;
use proptest::prelude::*;
use uom::si::length::millimeter;

use super::kitchen::{at, canner, jar, load};
use super::mixed::facts;

/// How far jars are in one another or in the wall, in units of half the width; `reach` is what a pot is longer than wide.
fn pressed(places: &[Place], reach: f64) -> f64 {
    let mut worst = 0.0_f64;
    for (number, a) in places.iter().enumerate() {
        let past_the_straight = (a.x.abs() - reach).max(0.0);
        worst = worst.max(past_the_straight.hypot(a.y) + a.r - 1.0);
        for b in &places[number + 1..] {
            worst = worst.max(a.r + b.r - (a.x - b.x).hypot(a.y - b.y));
        }
    }
    worst
}

fn jars_of(sizes: &[(JarSize, u32)]) -> Vec<JarSize> {
    sizes.iter().flat_map(|(jar, count)| vec![*jar; *count as usize]).collect()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn every_place_that_is_drawn_can_be_kept(
        quarts in 0_u32..5, pints in 0_u32..6, halves in 0_u32..6, wide in 200.0_f64..420.0, longer in 0.0_f64..200.0,
    ) {
        let outline = Outline { length: mm(wide + longer), width: mm(wide) };
        let sizes = [(JarSize::Quart, quarts), (JarSize::Pint, pints), (JarSize::HalfPint, halves)];
        let jars = jars_of(&sizes);
        let places = standing(outline, &jars, &Outsides::default());
        prop_assert_eq!(holds(outline, &sizes, &Outsides::default()), places.is_some() || jars.is_empty());
        let Some(places) = places else { return Ok(()) };
        prop_assert_eq!(places.len(), jars.len());
        for (place, jar) in places.iter().zip(&jars) {
            let radius = usual_outside(*jar).diameter.get::<millimeter>() / wide;
            prop_assert!((place.r - radius).abs() < 1e-9);
        }
        let millimetres = pressed(&places, longer / wide) * wide / 2.0;
        prop_assert!(millimetres < 0.7, "{millimetres} mm in one another");
    }
}

#[test]
fn a_ring_of_jars_round_a_wider_one_stands_just_where_geometry_says() {
    // A chain of n like circles between two concentric ones closes when sin(pi / n) = (R - r) / (R + r) (Steiner).
    for count in [5_u32, 6, 7, 8] {
        let slim = 73.0;
        let sine = (std::f64::consts::PI / f64::from(count)).sin();
        let outer = slim * (1.0 / sine + 1.0);
        let middle = JarOutside { diameter: mm(outer - 2.0 * slim), height: mm(100.0) };
        let outsides = Outsides([(JarSize::Quart, middle)].into());
        let jars = [(JarSize::Quart, 1), (JarSize::HalfPint, count)];
        assert!(holds(Outline::round(mm(outer + 0.5)), &jars, &outsides), "{count} round one");
        assert!(
            !holds(Outline::round(mm(outer - 3.0)), &jars, &outsides),
            "{count} round one in a narrower pot"
        );
    }
}

#[test]
fn a_roaster_takes_a_row_and_two_rows() {
    let quart = usual_outside(JarSize::Quart).diameter;
    let roaster = |along: f64, across: f64| Outline { length: quart * along, width: quart * across };
    let most = |outline: Outline| most_of(outline, JarSize::Quart, &Outsides::default());
    assert_eq!(most(roaster(4.01, 1.01)), 4, "one row");
    assert_eq!(most(roaster(3.97, 1.01)), 3);
    // Two rows of three between the round ends, and one in each end.
    assert!(most(roaster(5.0, 2.05)) >= 7);
    assert_eq!(most(roaster(3.0, 3.0)), 7, "as long as wide is round");
    let floor = roaster(4.0, 2.0).floor() / (quart * quart);
    assert!((floor.get::<uom::si::ratio::ratio>() - (std::f64::consts::PI + 4.0)).abs() < 1e-9);
    assert!(
        PotSize {
            inner_diameter_mm: 300.0,
            inner_length_mm: Some(200.0),
            inner_height_mm: 250.0,
            rack_height_mm: 10.0
        }
        .outline()
        .stretch()
        .eq(&1.0)
    );
}

const POT: PotSize =
    PotSize { inner_diameter_mm: 305.0, inner_length_mm: None, inner_height_mm: 255.0, rack_height_mm: 12.0 };

#[test]
fn a_measured_canner_places_what_shares_would_refuse_and_refuses_what_cannot_stand() {
    let room = CannerRoom::of_pot(POT, Method::BoilingWater);
    // 5/7 and 4/12 are more than one canner by shares; the half-pints stand in the gaps.
    let mixed = [(JarSize::Quart, 5), (JarSize::HalfPint, 4)];
    assert!(room.holds(&mixed));
    assert!(!room.holds(&[(JarSize::Quart, 7), (JarSize::HalfPint, 4)]));
    assert!(!room.holds(&[(JarSize::Quart, 8)]) && room.holds(&[(JarSize::Quart, 7), (JarSize::Pint, 0)]));
    // The household's own count still bounds each size.
    let counted = bodega_model::records::canner::Canner { pot: Some(POT), ..canner(Method::BoilingWater) };
    assert_eq!(room_of(&counted, &Outsides::default()).most_of(JarSize::Quart), Ok(7));
    assert_eq!(
        room_of(&counted, &Outsides::default()).most_of(JarSize::Litre),
        Err(NoRoom::NotCounted(JarSize::Litre))
    );
}

#[test]
fn a_jar_that_stands_out_of_the_water_or_through_the_wall_has_no_room() {
    let of = |high: f64, method| {
        CannerRoom::of_pot(PotSize { inner_height_mm: high, ..POT }, method).most_of(JarSize::Quart)
    };
    // 12 mm of rack, 178 mm of jar, an inch of water.
    assert_eq!(of(215.5, Method::BoilingWater), Ok(7));
    assert_eq!(of(215.3, Method::BoilingWater), Err(NoRoom::TooTall(JarSize::Quart)));
    assert_eq!(of(215.3, Method::AtmosphericSteam), Ok(7), "no water over them in steam");
    assert_eq!(of(189.9, Method::PressureDial), Err(NoRoom::TooTall(JarSize::Quart)));
    let narrow = CannerRoom::of_pot(PotSize { inner_diameter_mm: 90.0, ..POT }, Method::BoilingWater);
    assert_eq!(narrow.most_of(JarSize::Quart), Err(NoRoom::TooWide(JarSize::Quart)));
    assert_eq!(narrow.most_of(JarSize::Pint), Ok(1));
    assert_eq!(
        group(&[Group { jar: JarSize::Quart, minutes: Minutes(45), count: 2 }], &narrow, Minutes(10))
            .unwrap_err(),
        NoRoom::TooWide(JarSize::Quart)
    );
}

#[test]
fn loads_of_a_measured_canner_are_filled_by_where_jars_stand() {
    let room = CannerRoom::of_pot(POT, Method::BoilingWater);
    let groups = [
        Group { jar: JarSize::Quart, minutes: Minutes(45), count: 5 },
        Group { jar: JarSize::HalfPint, minutes: Minutes(35), count: 4 },
    ];
    let plan = group(&groups, &room, Minutes(25)).unwrap();
    assert_eq!((plan.loads.len(), plan.total), (1, Minutes(70)), "one load, where shares would make two");
    let more = [Group { count: 19, ..groups[0] }, Group { count: 3, ..groups[1] }];
    let plan = group(&more, &room, Minutes(25)).unwrap();
    let held: u32 = plan.loads.iter().flat_map(|load| &load.jars).map(|(_, count)| count).sum();
    assert_eq!((plan.loads.len(), held), (3, 22));
    assert_eq!(plan.total, plan.lower_bound, "nothing shorter holds nineteen quarts");
    for load in &plan.loads {
        let sizes: Vec<_> = load.jars.iter().map(|(group, count)| (more[*group].jar, *count)).collect();
        assert!(room.holds(&sizes), "{sizes:?}");
    }
}

#[test]
fn what_rides_along_counts_for_the_time_the_water_and_the_judge() {
    let quarts = (1..=4).map(|number| jar(1, number, JarSize::Quart)).collect();
    let mut mixed = load(Method::BoilingWater, 45, quarts, &[]);
    assert_eq!((rides_along(&mixed), mixed.stands()), (None, vec![(JarSize::Quart, 4)]));
    mixed.also = vec![
        AlsoIn { size: JarSize::Pint, count: 1, minutes: Minutes(20), name: None, broken: 0 },
        AlsoIn { size: JarSize::Quart, count: 2, minutes: Minutes(60), name: None, broken: 0 },
    ];
    assert_eq!(mixed.stands(), vec![(JarSize::Quart, 6), (JarSize::Pint, 1)]);
    let more = [(JarSize::Pint, 2), (JarSize::HalfPint, 1)];
    let all = vec![(JarSize::Quart, 6), (JarSize::Pint, 3), (JarSize::HalfPint, 1)];
    assert_eq!(mixed.stands_with(&more), all, "each size once");
    let altitude = Altitude::from_feet(500.0).unwrap();
    assert_eq!(mixed.longest_process(altitude).unwrap().unwrap().minutes, Minutes(60));
    let codes = |load: &_| {
        let judged = judge_load(load, &[facts()], Some(altitude));
        judged.findings.into_iter().map(|finding| finding.code).collect::<Vec<_>>()
    };
    assert!(codes(&mixed).contains(&Code::MixedLoadShort));
    mixed.clock = mixed.clock.retimed(Minutes(60));
    assert!(!codes(&mixed).contains(&Code::MixedLoadShort));
    let said = rides_along(&mixed).unwrap();
    assert!(
        said.contains("1 pint of something else (20 min), 2 quarts of something else (60 min)")
            && said.contains("60 minutes"),
        "{said}"
    );
    mixed.also.truncate(1);
    assert_eq!(
        mixed.longest_process(altitude).unwrap().unwrap().minutes,
        Minutes(45),
        "its own time is the longest"
    );
}

#[test]
fn filled_jars_wait_ten_minutes_and_then_they_call() {
    let quart = || vec![jar(1, 1, JarSize::Quart)];
    let mut waiting = load(Method::BoilingWater, 45, quart(), &[]);
    assert_eq!(waits_too_long_from(&waiting), None, "nothing is filled");
    waiting.filled_since = Some(at(0));
    assert_eq!(waits_too_long_from(&waiting), Some(Moment(at(0).0 + 10 * 60_000)));
    assert_eq!(of_bench(&waiting).map(|call| call.from), Some(at(0).plus(MOST_WAIT)));
    let mut inside = load(Method::BoilingWater, 45, quart(), &[(BoilEvent::JarsIn, 8)]);
    inside.filled_since = Some(at(0));
    assert_eq!(of_bench(&inside), None, "they are in");
}
