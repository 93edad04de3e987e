//! Recipes: proportions, ways back, lines as people write them.

use bodega_core::judge::recipe_page::{Standing, stands};
use bodega_core::kitchen::number::{NumberRead, read_number};
use bodega_core::recipe::back::{changed, ways_back};
use bodega_core::recipe::compare::compare;
use bodega_core::recipe::line;
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_core::recipe::shipped::all;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Ruling;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::amounts;
use bodega_model::measures::amounts::{Unit, decimal, exact, ratio};
use bodega_model::recipe::part::{Part, Per, Role};
use bodega_model::tables::process::Method;

fn part(name: &str, amount: f64, unit: Unit, role: Role, group: Option<&str>) -> Part {
    Part::new(name, Some(amount), Some(unit), role).in_group(group)
}

/// Paste-tomato salsa, the proportions typed from memory of USDA Guide 3 a second time.
fn salsa() -> Vec<Part> {
    vec![
        part("paste tomatoes", 7.0, Unit::Quart, Role::Tomato, None),
        part("long green chiles", 4.0, Unit::Cup, Role::LowAcid, Some("peppers")),
        part("jalapeno", 0.5, Unit::Cup, Role::LowAcid, Some("peppers")),
        part("onion", 5.0, Unit::Cup, Role::LowAcid, Some("onions")),
        part("garlic cloves", 6.0, Unit::Piece, Role::LowAcid, None),
        part("bottled lemon or lime juice", 2.0, Unit::Cup, Role::Acid, None),
        part("coriander leaves", 2.0, Unit::Tablespoon, Role::LowAcid, None),
        part("salt", 2.0, Unit::Tablespoon, Role::Free, None),
    ]
}

#[test]
fn scaled_by_what_was_on_the_table_it_is_not_the_recipe_any_more() {
    // Common practice, no source: tomatoes half as much again, peppers doubled, acid a quarter more.
    let mut bowls = salsa();
    for (place, times) in [(0, 1.5), (1, 2.0), (2, 2.0), (3, 1.5), (4, 1.5), (5, 1.25), (6, 1.5), (7, 3.0)] {
        bowls[place].amount = bowls[place].amount.map(|amount| amount * times);
    }
    let seen = compare(&salsa(), &bowls);
    assert_eq!(seen.verdict, Ruling::NotFine);
    assert_eq!(seen.tomato_factor, Some(1.5));
    let change = |name: &str| seen.proportions.iter().find(|line| line.name == name).unwrap().change.unwrap();
    assert!((change("peppers") - 1.0 / 3.0).abs() < 1e-9);
    assert!((change("bottled lemon or lime juice") + 1.0 / 6.0).abs() < 1e-9);
    assert!((change("onions")).abs() < 1e-9);
    let ways = ways_back(&salsa(), &bowls, false);
    let words: Vec<Vec<&str>> =
        ways.iter().map(|way| way.iter().map(|step| step.says.as_str()).collect()).collect();
    insta::assert_debug_snapshot!(words);
    for way in &ways {
        assert_eq!(compare(&salsa(), &changed(&salsa(), &bowls, way)).verdict, Ruling::Fine);
    }
    assert!(ways_back(&salsa(), &bowls, true).iter().flatten().all(|step| step.change_amount > 0.0));
}

#[test]
fn what_is_safe_and_what_is_not() {
    let with = |name: &str, amount: Option<f64>, unit: Unit| {
        let mut bowls = salsa();
        let place = bowls.iter().position(|part| part.name == name).unwrap();
        bowls[place].amount = amount;
        bowls[place].unit = Some(unit);
        compare(&salsa(), &bowls)
    };
    // Like measures in other words: 16 fl oz are two cups.
    assert_eq!(with("bottled lemon or lime juice", Some(16.0), Unit::FluidOunce).verdict, Ruling::Fine);
    assert_eq!(with("bottled lemon or lime juice", Some(15.5), Unit::FluidOunce).verdict, Ruling::NotFine);
    assert_eq!(with("bottled lemon or lime juice", Some(0.0), Unit::Cup).verdict, Ruling::NotFine);
    assert_eq!(with("onion", Some(4.0), Unit::Cup).verdict, Ruling::Fine);
    assert_eq!(with("onion", Some(5.25), Unit::Cup).verdict, Ruling::NotFine);
    assert_eq!(with("salt", Some(40.0), Unit::Tablespoon).verdict, Ruling::Fine);
    // Pounds against cups by averages.
    let pounds = with("onion", Some(1.5), Unit::Pound);
    assert_eq!(pounds.verdict, Ruling::Fine);
    assert!(pounds.proportions.iter().any(|line| line.name == "onions" && line.averaged));
    assert_eq!(with("onion", Some(2.0), Unit::Pound).verdict, Ruling::NotFine);
    let unsaid = with("onion", None, Unit::Cup);
    assert_eq!(unsaid.verdict, Ruling::CannotTell);
    assert_eq!(unsaid.missing, ["How much onion?"]);
    assert_eq!(with("onion", Some(2.0), Unit::Packet).verdict, Ruling::CannotTell);
    // A mistake that is known outweighs what is not.
    let mut both = salsa();
    both[3].amount = None;
    both[5].amount = Some(1.0);
    assert_eq!(compare(&salsa(), &both).verdict, Ruling::NotFine);
}

#[test]
fn nothing_buys_anything_else() {
    let more = |name: &str, role: Role| {
        let mut bowls = salsa();
        bowls.push(part(name, 1.0, Unit::Cup, role, None));
        compare(&salsa(), &bowls)
    };
    for (name, role) in [
        ("corn", Role::LowAcid),
        ("flour", Role::Thickener),
        ("tinned tomato paste", Role::Concentrate),
        ("water", Role::Liquid),
        ("cream", Role::NotAllowed),
    ] {
        assert_eq!(more(name, role).verdict, Ruling::NotFine, "{name}");
    }
    assert_eq!(more("dried oregano", Role::Free).verdict, Ruling::Fine);
    // Less garlic never buys more onion.
    let mut bowls = salsa();
    (bowls[3].amount, bowls[4].amount) = (Some(6.0), Some(0.0));
    assert_eq!(compare(&salsa(), &bowls).verdict, Ruling::NotFine);
    // One pepper for another does.
    let mut bowls = salsa();
    (bowls[1].amount, bowls[2].amount) = (Some(0.5), Some(4.0));
    assert_eq!(compare(&salsa(), &bowls).verdict, Ruling::Fine);
}

#[test]
fn three_times_is_three_times_and_never_on_the_unsafe_side() {
    let says =
        |times: f64| -> Vec<String> { scaled(&salsa(), &exact(times)).iter().map(Part::says).collect() };
    assert_eq!(
        says(3.0),
        [
            "21 quarts paste tomatoes",
            "12 cups long green chiles",
            "1 ½ cups jalapeno",
            "15 cups onion",
            "18 garlic cloves",
            "6 cups bottled lemon or lime juice",
            "6 tablespoons coriander leaves",
            "6 tablespoons salt",
        ]
    );
    for tenths in 1..40 {
        let made = scaled(&salsa(), &exact(f64::from(tenths) / 10.0));
        assert_eq!(compare(&salsa(), &made).verdict, Ruling::Fine, "{tenths} tenths: {made:?}");
    }
    // Packets are rounded up. Common practice, no source.
    let packet = [part("seasoning", 1.0, Unit::Packet, Role::Free, None)];
    assert_eq!(scaled(&packet, &exact(1.2))[0].amount, Some(2.0));
}

#[test]
fn the_recipes_that_come_along_stand_as_they_are_remembered() {
    // Typed a second time from memory of USDA Guide 3: parts, tomatoes, acid, minutes from sea level up.
    for (key, parts, tomatoes, acid, minutes) in [
        ("salsa_paste_tomato", 8, "7 quarts", "2 cups bottled", [15, 20, 25]),
        ("salsa_slicing_tomato", 8, "4 cups", "2 cups vinegar", [15, 20, 25]),
        ("chile_salsa", 5, "5 lb", "1 cup vinegar", [15, 20, 25]),
        ("tomatillo_salsa", 6, "5 cups", "1 cup bottled", [15, 20, 25]),
        ("ketchup", 5, "24 lb", "3 cups cider vinegar", [15, 20, 25]),
        ("free_choice_salsa", 4, "6 cups", "1 ½ cups bottled", [15, 20, 25]),
        ("salsa_with_tinned_paste", 7, "3 quarts", "2 cups bottled", [15, 20, 25]),
    ] {
        let shipped = all().iter().find(|shipped| shipped.key == key).unwrap();
        let says: Vec<String> = shipped.text.lines.iter().map(|line| line.part.says()).collect();
        assert_eq!(says.len(), parts, "{key}");
        assert!(says[0].starts_with(tomatoes) && says.iter().any(|line| line.starts_with(acid)), "{says:?}");
        let process = shipped.text.process.as_ref().unwrap();
        let at = |feet: f64| {
            let altitude = Altitude::from_feet(feet).unwrap();
            process.time(JarSize::Pint, Method::BoilingWater, altitude).unwrap().option.minutes.0
        };
        assert_eq!([at(1000.0), at(1001.0), at(6001.0)], minutes, "{key}");
        assert_eq!(stands(&shipped.text, None).standing, Standing::Unchecked, "{key}");
        assert_eq!(
            compare(&parts_of(&shipped.text), &parts_of(&shipped.text)).verdict,
            Ruling::Fine,
            "{key}"
        );
    }
}

#[test]
fn what_a_part_is_called_does_not_make_it_another() {
    let mut bowls = salsa();
    bowls[1].amount = Some(8.0);
    bowls[1].role = Role::Tomato;
    assert_eq!(compare(&salsa(), &bowls).verdict, Ruling::NotFine);
    bowls[1].role = Role::Free;
    assert_eq!(compare(&salsa(), &bowls).verdict, Ruling::NotFine);
}

#[test]
fn acids_stand_for_each_other_one_way() {
    let acid = |name: &str| {
        vec![
            part("tomatoes", 4.0, Unit::Cup, Role::Tomato, None),
            part(name, 2.0, Unit::Cup, Role::Acid, None),
        ]
    };
    let (lemon, vinegar) = (acid("bottled lemon juice"), acid("vinegar 5 %"));
    assert_eq!(compare(&vinegar, &lemon).verdict, Ruling::Fine);
    assert_eq!(compare(&lemon, &vinegar).verdict, Ruling::NotFine);
    assert_eq!(compare(&lemon, &acid("bottled lime juice")).verdict, Ruling::Fine);
    assert_eq!(compare(&lemon, &acid("fresh lemon juice")).verdict, Ruling::NotFine);
    assert_eq!(compare(&lemon, &acid("citric acid")).verdict, Ruling::NotFine);
    assert_eq!(compare(&vinegar, &acid("vinegar 4 %")).verdict, Ruling::NotFine);
}

#[test]
fn lines_are_read_as_people_write_them() {
    let read = |text: &str| line::read(text, Decimal::Point);
    let onions = read("6 large onions, chopped");
    assert_eq!(
        (onions.amount, onions.unit, onions.name.as_str()),
        (Some(6.0), Some(Unit::Piece), "large onions")
    );
    assert_eq!((onions.preparation.as_deref(), onions.role), (Some("chopped"), Some(Role::LowAcid)));
    assert!(onions.asks.is_empty());
    assert_eq!((read("salt to taste").name.as_str(), read("salt to taste").asks.len()), ("salt", 0));
}

#[derive(Debug, serde::Deserialize)]
struct Expected {
    source: String,
    line: String,
    amount: Option<f64>,
    up_to: Option<f64>,
    unit: String,
}

#[test]
fn lines_that_other_readers_are_tested_with_are_read_or_asked_about() {
    let text = include_str!("../data/recipe_lines.csv");
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes());
    let all: Vec<Expected> = reader.deserialize().map(Result::unwrap).collect();
    let (mut right, mut silently) = (0, Vec::new());
    for expected in &all {
        let seen = line::read(&expected.line, Decimal::Point);
        let near = |seen: Option<f64>, wanted: Option<f64>| match (seen, wanted) {
            (_, None) => true,
            (None, Some(_)) => false,
            // The other tests round to three places.
            (Some(seen), Some(wanted)) => (seen - wanted).abs() < 0.0006,
        };
        let in_teaspoons = expected.unit == "tsp" && seen.unit == Some(Unit::Tablespoon);
        let amount = seen.amount.map(|amount| if in_teaspoons { amount * 3.0 } else { amount });
        let unit = match expected.unit.as_str() {
            "" => true,
            "?" => seen.unit.is_none(),
            word => seen.unit.is_some_and(|unit| unit.word() == word) || in_teaspoons,
        };
        if near(amount, expected.amount) && near(seen.up_to, expected.up_to) && unit {
            right += 1;
        } else if seen.asks.iter().all(|ask| ask.starts_with("What is ")) {
            silently.push(format!("{} of {}: {:?}", expected.line, expected.source, seen));
        } else {
            println!("asked: {} -> {:?}", expected.line, seen);
        }
    }
    assert!(silently.is_empty(), "read wrong and not asked about: {silently:#?}");
    assert!(right * 100 >= all.len() * 95, "{right} of {}", all.len());
}

#[test]
fn kitchen_measures_are_those_of_the_handbook_and_of_a_units_crate() {
    use uom::si::f64::{Mass, Volume};
    use uom::si::mass::{gram, kilogram, ounce, pound};
    use uom::si::volume::{
        cup, fluid_ounce, gallon, liter, milliliter, pint_liquid, quart_liquid, tablespoon, teaspoon,
    };
    let millilitres = |volume: Volume| volume.get::<milliliter>();
    let grams = |mass: Mass| mass.get::<gram>();
    // NIST Handbook 44, Appendix C, from memory: millilitres and grams as they are printed there.
    for (unit, printed, crate_says) in [
        (Unit::Teaspoon, 4.929, millilitres(Volume::new::<teaspoon>(1.0))),
        (Unit::Tablespoon, 14.787, millilitres(Volume::new::<tablespoon>(1.0))),
        (Unit::FluidOunce, 29.573_53, millilitres(Volume::new::<fluid_ounce>(1.0))),
        (Unit::Cup, 236.588, millilitres(Volume::new::<cup>(1.0))),
        (Unit::Pint, 473.176_5, millilitres(Volume::new::<pint_liquid>(1.0))),
        (Unit::Quart, 946.352_9, millilitres(Volume::new::<quart_liquid>(1.0))),
        (Unit::Gallon, 3785.412, millilitres(Volume::new::<gallon>(1.0))),
        (Unit::Litre, 1000.0, millilitres(Volume::new::<liter>(1.0))),
        (Unit::Ounce, 28.349_523, grams(Mass::new::<ounce>(1.0))),
        (Unit::Pound, 453.592_37, grams(Mass::new::<pound>(1.0))),
        (Unit::Kilogram, 1000.0, grams(Mass::new::<kilogram>(1.0))),
    ] {
        let size = decimal(&unit.size());
        assert!((size - printed).abs() < 5e-4, "{unit}: {size} and {printed}");
        assert!((size / crate_says - 1.0).abs() < 1e-6, "{unit}: {size} and {crate_says}");
    }
}

#[derive(Debug, serde::Deserialize)]
struct Typed {
    typed: String,
    decimal: Decimal,
    values: Vec<f64>,
}

#[test]
fn numbers_are_read_as_the_household_writes_them() {
    let table: Vec<Typed> = serde_json::from_str(include_str!("../data/numbers.json")).unwrap();
    for Typed { typed, decimal, values } in table {
        let found = match read_number(&typed, decimal) {
            NumberRead::Is(number) => vec![amounts::decimal(&number)],
            NumberRead::Asked(numbers) => numbers.iter().map(amounts::decimal).collect(),
            NumberRead::None => Vec::new(),
        };
        assert_eq!(found, values, "{typed:?} with a decimal {decimal:?}");
    }
}

#[test]
fn every_number_from_a_hundredth_to_a_hundred_thousand_is_read_as_it_is_written() {
    for hundredths in (1_u32..100_000).chain((100_000..=10_000_000).step_by(97)) {
        let (whole, share) = (hundredths / 100, hundredths % 100);
        let grouped = |sign: &str| match whole {
            0..1_000 => whole.to_string(),
            _ => format!("{}{sign}{:03}", whole / 1_000, whole % 1_000),
        };
        for (decimal, point, signs) in
            [(Decimal::Point, '.', [",", "\u{a0}", "'"]), (Decimal::Comma, ',', [".", "\u{202f}", "’"])]
        {
            for sign in signs {
                let typed = format!("{}{point}{share:02}", grouped(sign));
                let is = NumberRead::Is(ratio(i64::from(hundredths), 100));
                assert_eq!(read_number(&typed, decimal), is, "{typed}");
            }
        }
    }
}

#[test]
fn a_pasted_line_is_read_by_the_ways_of_the_household() {
    let read = |text: &str, decimal| {
        let seen = line::read(text, decimal);
        (seen.amount, seen.unit, seen.asks)
    };
    let grams = |amount| (Some(amount), Some(Unit::Gram), Vec::new());
    assert_eq!(read("1,000 g tomatoes", Decimal::Point), grams(1000.0));
    assert_eq!(read("1\u{202f}000 g tomatoes", Decimal::Comma), grams(1000.0));
    assert_eq!(read("1,5 g salt", Decimal::Comma), grams(1.5));
    assert_eq!(
        read("1.000 g tomatoes", Decimal::Comma),
        (None, Some(Unit::Gram), vec!["Which is it: 1000 or 1 g?".to_owned()])
    );
    let (amount, _, asks) = read("1,5 kg tomatoes", Decimal::Point);
    assert_eq!((amount, asks.len()), (None, 1), "{asks:?}");
    // What ends in a comma is a number and a pause.
    assert_eq!(read("2, crushed tomatoes", Decimal::Point).0, Some(2.0));
}

#[derive(serde::Deserialize)]
struct Own {
    line: String,
    wanted: String,
    amount: Option<f64>,
    unit: String,
    role: String,
    per: String,
}

#[test]
fn lines_as_people_copy_them_are_read_right_or_asked_about() {
    let text = include_str!("../data/recipe_lines_own.csv");
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes());
    let all: Vec<Own> = reader.deserialize().map(Result::unwrap).collect();
    let mut wrong = Vec::new();
    for own in &all {
        let seen = line::read(&own.line, Decimal::Point);
        let is_packet = seen.role == Some(Role::Packet);
        let asked = !seen.asks.is_empty() && (seen.is_open() || is_packet);
        let as_wanted = match own.wanted.as_str() {
            "asked" => asked,
            "read" => seen.asks.is_empty() && !seen.is_open(),
            other => panic!("{other}"),
        };
        let amount = own.amount.is_none_or(|wanted| seen.amount.is_some_and(|is| (is - wanted).abs() < 1e-4));
        let unit = own.unit.is_empty() || seen.unit.is_some_and(|unit| unit.word() == own.unit);
        let role = own.role.is_empty() || seen.role.is_some_and(|role| role.word() == own.role);
        let per = own.per.is_empty()
            || match seen.per {
                Some(Per::Batch) => own.per == "batch",
                Some(Per::Jar(jar)) => own.per == jar.word(),
                None => false,
            };
        if !(as_wanted && amount && unit && role && per) {
            wrong.push(format!("{} ({}): {seen:?}", own.line, own.wanted));
        }
    }
    assert!(all.len() >= 150);
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}
