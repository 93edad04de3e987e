//! Parts of a recipe one by one: what a name makes of them, what a label and a spoon say, and what goes into a jar of another size.

use bodega_core::recipe::back::ways_back;
use bodega_core::recipe::bowls::with_strength;
use bodega_core::recipe::compare::{compare, compare_filled};
use bodega_core::recipe::line::{ReadLine, read};
use bodega_core::recipe::packet::is_packet;
use bodega_core::recipe::role::role_by_name;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::moment::Minutes;
use bodega_model::recipe::part::{PacketLabel, Part, PartError, Per, Role, Strength};
use bodega_model::recipe::per_jar::dose_in;
use bodega_model::recipe::process::{AltitudePrinted, NoRecipeTime, PrintedTime, RecipeProcess};
use bodega_model::recipe::weights::never;
use bodega_model::records::recipe::RecipeLine;
use bodega_model::tables::process::{Method, Pack};

fn part(name: &str, amount: f64, unit: Unit, role: Role) -> Part {
    Part::new(name, Some(amount), Some(unit), role)
}

fn tomatoes() -> Part {
    part("tomatoes", 5.0, Unit::Pound, Role::Tomato)
}

#[test]
fn the_strength_of_vinegar_is_said_of_vinegar_alone() {
    let vinegar = part("vinegar", 1.0, Unit::Cup, Role::Acid);
    let said = with_strength(Strength::Weak, vec![tomatoes(), vinegar.clone()]);
    assert_eq!(said, [tomatoes(), Part { strength: Some(Strength::Weak), ..vinegar }]);
    // Said otherwise once more, it is otherwise; a name that says it is asked no more.
    assert_eq!(with_strength(Strength::Five, said)[1].strength, Some(Strength::Five));
    let named = part("vinegar 5 %", 1.0, Unit::Cup, Role::Acid);
    assert_eq!(with_strength(Strength::Weak, vec![named.clone()]), [named]);
}

#[test]
fn what_is_no_acid_is_said_whatever_it_was_called() {
    let base = vec![tomatoes(), part("vinegar 5 %", 1.0, Unit::Cup, Role::Acid)];
    let fresh = part("fresh lemon juice", 1.0, Unit::Cup, Role::Acid);
    let actual: Vec<Part> = base.iter().cloned().chain([fresh]).collect();
    let seen = compare(&base, &actual);
    let swap = seen.swaps.iter().find(|swap| swap.name == "fresh lemon juice").unwrap();
    assert!(!swap.safe && swap.says.contains("bottled"), "{swap:?}");
}

#[test]
fn of_two_acids_the_one_that_is_short_is_added() {
    let with = |vinegar: f64, lemon: f64| {
        vec![
            tomatoes(),
            part("vinegar 5 %", vinegar, Unit::Cup, Role::Acid),
            part("citric acid", lemon, Unit::Teaspoon, Role::Acid),
        ]
    };
    let ways = ways_back(&with(1.0, 4.0), &with(1.0, 2.0), true);
    assert_eq!(
        ways[0].iter().map(|step| step.says.as_str()).collect::<Vec<_>>(),
        ["add 2 teaspoons of citric acid"]
    );
}

#[test]
fn a_name_that_nobody_knows_is_what_the_recipe_says() {
    let relish = |role| part("grandfather's relish", 2.0, Unit::Cup, role);
    let base = [tomatoes(), relish(Role::LowAcid)];
    // Called tomatoes in the bowls, it would make room for twice as much of everything.
    let seen = compare(&base, &[tomatoes(), relish(Role::Tomato)]);
    assert!((seen.tomato_factor.unwrap() - 1.0).abs() < 1e-9, "{:?}", seen.tomato_factor);
    assert!(
        seen.proportions.iter().any(|line| line.name == "grandfather's relish" && line.role == Role::LowAcid)
    );
}

#[test]
fn a_role_gives_way_only_to_a_stricter_one() {
    let called = |name: &str, role| role_by_name(&part(name, 1.0, Unit::Cup, role));
    assert_eq!(called("corn", Role::Free), Role::LowAcid);
    assert_eq!(called("tomato juice", Role::LowAcid), Role::LowAcid, "as strict as its own");
    assert_eq!(called("tomato juice", Role::Free), Role::Liquid);
}

#[test]
fn one_packet_too_few_is_said_in_packets() {
    let mix = |count| part("salsa mix", count, Unit::Packet, Role::Packet);
    let ten = part("tomatoes", 10.0, Unit::Pound, Role::Tomato);
    let says = |count| {
        let seen = compare(&[tomatoes(), mix(1.0)], &[ten.clone(), mix(count)]);
        seen.proportions.into_iter().find(|line| line.name == "salsa mix").map(|line| line.says).unwrap()
    };
    assert_eq!(says(1.0), "salsa mix: 2 needed, 1 there");
    assert_eq!(says(2.0), "salsa mix: 2, as many as it takes");
}

#[test]
fn herbs_by_the_spoon_are_no_packet_and_a_packet_of_them_is_one() {
    let seasoning = |unit| is_packet(&part("Italian seasoning", 2.0, unit, Role::Free));
    assert_eq!((seasoning(Unit::Tablespoon), seasoning(Unit::Packet)), (false, true));
}

#[test]
fn only_what_is_measured_by_spoon_and_cup_is_told_in_teaspoons() {
    let told = |amount, unit| part("citric acid", amount, unit, Role::Acid).teaspoons();
    assert_eq!((told(1.0, Unit::Cup), told(2.0, Unit::Tablespoon)), (Some(48.0), Some(6.0)));
    for unit in [Unit::Gram, Unit::Ounce, Unit::Millilitre, Unit::Litre, Unit::Piece] {
        assert_eq!(told(5.0, unit), None, "{unit:?}");
    }
}

#[test]
fn a_dose_by_weight_is_rounded_up_to_its_own_step() {
    let of_quart = |amount, unit| Part {
        per: Per::Jar(JarSize::Quart),
        ..part("citric acid", amount, unit, Role::Acid)
    };
    let pint = |amount, unit| dose_in(&of_quart(amount, unit), JarSize::Pint).unwrap().amount.unwrap();
    for (amount, unit) in [
        (3.0, Unit::Gram),
        (1.0, Unit::Ounce),
        (2.5, Unit::Gram),
        (30.0, Unit::Millilitre),
        (25.0, Unit::Millilitre),
    ] {
        let dose = pint(amount, unit);
        // Half of it, and never less; a step more at the most.
        assert!(dose >= amount / 2.0 && dose < amount / 2.0 + 1.0, "{amount} {unit:?}: {dose}");
    }
    assert!(
        (pint(0.003, Unit::Kilogram) - 0.002).abs() < 1e-9 && (pint(0.03, Unit::Litre) - 0.015).abs() < 1e-9
    );
    assert!((pint(25.0, Unit::Millilitre) - 13.0).abs() < 1e-9);
}

#[test]
fn a_line_of_a_recipe_file_comes_in_for_each_jar() {
    let dose = Part {
        per: Per::Jar(JarSize::Quart),
        ..part("bottled lemon juice", 2.0, Unit::Tablespoon, Role::Acid)
    };
    let line = RecipeLine { part: dose.clone(), preparation: None, ticked: true };
    assert_eq!(ReadLine::from(line).part(), dose);
}

#[test]
fn a_page_that_says_nothing_of_altitude_says_nothing_of_any_of_its_lines() {
    let time = |up_to_ft| PrintedTime {
        jar: JarSize::Pint,
        method: Method::BoilingWater,
        up_to_ft,
        above: false,
        minutes: Minutes(15),
        psi: None,
    };
    let with = |altitude| RecipeProcess {
        pack: Pack::Hot,
        headspace_in: 0.5,
        altitude,
        times: vec![time(Some(500.0)), time(None)],
    };
    let at = |altitude| {
        with(altitude).time(JarSize::Pint, Method::BoilingWater, Altitude::from_feet(5000.0).unwrap())
    };
    assert_eq!(at(Some(AltitudePrinted::Nothing)), Err(NoRecipeTime::NothingSaid));
    // Written down before that was asked, the open band above a closed one is the highest.
    assert!(at(None).is_ok());
}

#[test]
fn what_is_in_no_jar_is_found_in_a_name_of_several_things() {
    assert_eq!(never("beef and onions"), Some(Role::NotAllowed));
    assert_eq!(never("onions thickened with flour"), Some(Role::Thickener));
    assert_eq!(
        (never("onions"), never("bottled lemon juice"), never("grandfather's relish")),
        (None, None, None)
    );
}

#[test]
fn pieces_of_two_things_are_not_added_up() {
    // Two onions and a head of something are no three onions.
    let piece = |name: &str, count| part(name, count, Unit::Piece, Role::LowAcid).in_group(Some("onions"));
    let safe = |actual: &[Part]| {
        let base = [tomatoes(), piece("onions", 3.0)];
        let all: Vec<Part> = std::iter::once(tomatoes()).chain(actual.iter().cloned()).collect();
        compare(&base, &all).proportions.into_iter().find(|line| line.role == Role::LowAcid).unwrap().safe
    };
    assert_eq!(safe(&[piece("onions", 3.0)]), Some(true));
    assert_eq!(safe(&[piece("onions", 2.0), piece("onions", 1.0)]), Some(true));
    assert_eq!(
        safe(&[piece("onions", 2.0), piece("wild alliums", 1.0)]),
        None,
        "nobody knows what one weighs"
    );
    // Cups are cups, whatever is in them.
    let cups = |name: &str, count| part(name, count, Unit::Cup, Role::LowAcid).in_group(Some("onions"));
    let seen = compare(
        &[tomatoes(), cups("onions", 3.0)],
        &[tomatoes(), cups("onions", 2.0), cups("wild alliums", 1.0)],
    );
    assert!(seen.proportions.iter().all(|line| line.safe == Some(true)), "{:?}", seen.proportions);
}

#[test]
fn where_nobody_knows_how_often_it_is_made_the_stricter_count_holds() {
    // As many grams, but fewer cups: tomatillos are lighter by the cup (132 g) than tomatoes (180 g).
    let cups = |name: &str, amount: f64, role| part(name, amount, Unit::Cup, role);
    let fruit = [cups("tomatoes", 4.0, Role::Tomato), cups("tomatillos", 4.0, Role::Tomato)];
    let there = part("tomatoes", 1248.0, Unit::Gram, Role::Tomato);
    let safe = |base: Vec<Part>, actual: Vec<Part>| {
        let base: Vec<Part> = fruit.iter().cloned().chain(base).collect();
        let actual: Vec<Part> = std::iter::once(there.clone()).chain(actual).collect();
        let seen = compare_filled(&base, &actual, &[(JarSize::Pint, 1)], true);
        seen.proportions.into_iter().find(|line| line.role != Role::Tomato).unwrap().safe
    };
    let acid = |amount| vec![cups("vinegar 5 %", amount, Role::Acid)];
    assert_eq!((safe(acid(1.0), acid(0.9)), safe(acid(1.0), acid(1.0))), (Some(false), Some(true)));
    let onion = |amount| vec![cups("onion", amount, Role::LowAcid)];
    assert_eq!((safe(onion(1.0), onion(0.95)), safe(onion(1.0), onion(0.85))), (Some(false), Some(true)));
    // Some of it in the pot and some in each jar.
    let both = |amount| {
        let in_each =
            Part { per: Per::Jar(JarSize::Pint), ..part("onion", 1.0, Unit::Tablespoon, Role::LowAcid) };
        vec![cups("onion", amount, Role::LowAcid), in_each]
    };
    assert_eq!((safe(both(1.0), both(1.0)), safe(both(1.0), both(0.85))), (Some(false), Some(true)));
}

#[test]
fn the_jar_behind_an_acid_is_known_by_its_size() {
    for (words, size) in [
        ("per pint", Some(JarSize::Pint)),
        ("in each pt jar", Some(JarSize::Pint)),
        ("to every quart jar", Some(JarSize::Quart)),
        ("per qt", Some(JarSize::Quart)),
        ("per half pint", Some(JarSize::HalfPint)),
        ("per half-pint jar", Some(JarSize::HalfPint)),
        ("per half litre", Some(JarSize::HalfLitre)),
        ("per half-liter", Some(JarSize::HalfLitre)),
        ("per litre", Some(JarSize::Litre)),
        ("in each 1 L jar", Some(JarSize::Litre)),
        ("in each 500 ml jar", Some(JarSize::HalfLitre)),
        ("in each 500ml jar", Some(JarSize::HalfLitre)),
        ("in each jar", None),
        ("/ quart", Some(JarSize::Quart)),
    ] {
        let line = read(&format!("2 Tbsp bottled lemon juice {words}"), Decimal::Point);
        assert_eq!((line.per_jar, line.per), (size, None), "{words}: {line:?}");
        assert_eq!(line.name, "bottled lemon juice", "{words}");
    }
}

#[test]
fn packets_too_few_are_half_and_packets_enough_are_no_change() {
    let mix = |count| part("salsa mix", count, Unit::Packet, Role::Packet);
    let change = |count| {
        let seen = compare(&[tomatoes(), mix(2.0)], &[tomatoes(), mix(count)]);
        seen.proportions.iter().find(|line| line.name == "salsa mix").and_then(|line| line.change).unwrap()
    };
    assert!((change(1.0) + 0.5).abs() < 1e-9, "{}", change(1.0));
    assert!(change(2.0).abs() < 1e-9, "{}", change(2.0));
}

#[test]
fn acids_that_nobody_knows_are_not_one_another() {
    let acid = |name: &str| part(name, 1.0, Unit::Cup, Role::Acid);
    let seen = compare(&[tomatoes(), acid("verjuice")], &[tomatoes(), acid("tamarind water")]);
    let names: Vec<&str> = seen.proportions.iter().map(|line| line.name.as_str()).collect();
    assert_eq!(names, ["verjuice", "tamarind water"]);
}

#[test]
fn an_amount_before_the_name_is_no_dose_for_each_jar() {
    let of_each = |line: &str| read(line, Decimal::Point).per_jar;
    assert_eq!(of_each("about a quart of vinegar"), None);
    assert_eq!(of_each("2 Tbsp lemon juice a quart"), Some(JarSize::Quart));
}

#[test]
fn a_part_that_is_wrong_names_its_field() {
    let wrong = |part: Part| part.check().map_err(|error| error.field());
    assert_eq!(wrong(part(" ", 1.0, Unit::Cup, Role::Free)), Err("name"));
    assert_eq!(wrong(part("salt", -1.0, Unit::Cup, Role::Free)), Err("amount"));
    let label = PacketLabel { tomatoes_lb: Some(-1.0), acid: None };
    let packet = Part { packet: Some(label), ..part("mix", 1.0, Unit::Packet, Role::Packet) };
    assert_eq!(wrong(packet), Err("packet.tomatoes_lb"));
    assert_eq!(PartError::NoName.to_string(), "a part needs a name; give one");
}
