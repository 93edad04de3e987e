//! What becomes of a recipe that was made: its checklist, what was changed, its labels, and the cold when nothing of it is canned.

use bodega_core::jars::doses::{doses, each_takes};
use bodega_core::judge::recipe_page::{made_cold, may_can, stands};
use bodega_core::plan::checklist::{Sheet, SheetRecipe, Station, Thawed, steps};
use bodega_core::recipe::bowls::{changes, empty};
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::chopped;
use bodega_core::shelf::label_words::recipe_acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace, NotForTheLine, Told};
use bodega_model::ledger::keep::COLD_INSTEAD;
use bodega_model::ledger::keep::FRIDGE_DAYS;
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::ids::{BatchId, BowlsId, MoveId, RecipeId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::plan::making::{Making, Thickness};
use bodega_model::recipe::part::{Part, Per, Role};
use bodega_model::recipe::process::{AltitudePrinted, PrintedTime, RecipeProcess};
use bodega_model::records::batch::Batch;
use bodega_model::records::kitchen::Units;
use bodega_model::records::moved::{ColdFood, Moved};
use bodega_model::records::recipe::{BatchRecipe, Bowls};
use bodega_model::tables::process::{Method, Pack, Product};
use uom::si::mass::gram;

use super::kitchen::{batch, house, jar, load};

fn in_grams(parts: &[Part]) -> f64 {
    chopped(parts).get::<gram>()
}

fn part(name: &str, amount: f64, unit: Unit, role: Role) -> Part {
    Part::new(name, Some(amount), Some(unit), role)
}

fn salsa() -> Vec<Part> {
    vec![
        part("tomatoes", 5.0, Unit::Pound, Role::Tomato),
        part("onion", 3.0, Unit::Cup, Role::LowAcid),
        part("garlic", 2.0, Unit::Teaspoon, Role::LowAcid),
        part("salt", 1.0, Unit::Tablespoon, Role::Free),
    ]
}

fn in_each(name: &str, amount: f64, jar: JarSize) -> Part {
    Part { per: Per::Jar(jar), ..part(name, amount, Unit::Tablespoon, Role::Acid) }
}

fn printed(jar: JarSize, up_to_ft: Option<f64>, minutes: u32) -> PrintedTime {
    let above = up_to_ft.is_none();
    PrintedTime { jar, method: Method::BoilingWater, up_to_ft, above, minutes: Minutes(minutes), psi: None }
}

fn by(doses: Vec<Part>, canned: bool) -> BatchRecipe {
    let times = vec![printed(JarSize::Pint, Some(1000.0), 15), printed(JarSize::Pint, None, 25)];
    let bands = Some(AltitudePrinted::Bands);
    let process = RecipeProcess { pack: Pack::Hot, headspace_in: 0.5, altitude: bands, times };
    BatchRecipe {
        recipe: RecipeId(1),
        name: "Terrace salsa".to_owned(),
        source: "Booklet, 2015, p. 4".to_owned(),
        makes: None,
        process: canned.then_some(process),
        doses,
    }
}

fn bowls(base: Vec<Part>, actual: Vec<Part>) -> Bowls {
    Bowls {
        id: BowlsId(1),
        recipe: RecipeId(1),
        factor: 2.0,
        base,
        actual,
        mixed_at: None,
        labels_asked: true,
        at: Moment(0),
    }
}

fn sheet(doses: &[&str], source: &str, headspace_in: Option<f64>) -> Vec<(Station, String)> {
    let recipe = SheetRecipe {
        name: "salsa".to_owned(),
        source: source.to_owned(),
        parts: salsa().iter().map(Part::says).collect(),
        doses: doses.iter().map(|dose| (*dose).to_owned()).collect(),
        headspace_in,
    };
    let sheet = Sheet {
        foods: vec![Food::Fruit],
        thawed: Thawed::Nothing,
        making: Making { product: Product::Recipe, medium: None, pack: Pack::Hot, thickness: None },
        recipe: Some(recipe),
        jars: vec![(JarSize::Pint, 8)],
        additions: Some(Vec::new()),
        agent: Agent::BottledLemonJuice,
        spoons: Spoons::Us,
        salt: false,
        rest: None,
        method: Method::BoilingWater,
        loads: vec![(8, Minutes(15), None)],
    };
    steps(&sheet).into_iter().map(|step| (step.station, step.text)).collect()
}

#[test]
fn the_checklist_of_a_recipe_says_its_own_acid_and_of_a_cold_one_no_jars() {
    let at = |list: &[(Station, String)], station: Station| -> String {
        list.iter()
            .filter(|(of, _)| *of == station)
            .map(|(_, text)| text.as_str())
            .collect::<Vec<_>>()
            .join(" ")
    };
    let in_pot = at(&sheet(&[], "Booklet", Some(0.5)), Station::Jars);
    assert!(in_pot.contains("The acid is in the recipe") && in_pot.contains("Fill to ½ in"), "{in_pot}");
    let in_jar = at(&sheet(&["1 Tbsp lime juice in each pint"], "Booklet", Some(0.25)), Station::Jars);
    assert!(in_jar.contains("Acid first, into the empty jar: 1 Tbsp lime juice in each pint."), "{in_jar}");
    assert!(!in_jar.contains("no dose") && in_jar.contains("Fill to ¼ in"), "{in_jar}");
    let cold = sheet(&[], "", None);
    assert!(cold.iter().all(|(station, _)| matches!(station, Station::Crates | Station::Kettle)), "{cold:?}");
    let kettle = at(&cold, Station::Kettle);
    for words in
        ["3 cups onion", "as you like it: it is not canned", "within 4 days", "1 in (25 mm) in a quart"]
    {
        assert!(kettle.contains(words), "{words}: {kettle}");
    }
    assert!(
        at(&sheet(&[], "Booklet", None), Station::Kettle)
            .contains("as its page says: Booklet. It is not canned.")
    );
}

#[test]
fn the_days_in_the_refrigerator_are_one_number() {
    assert!(COLD_INSTEAD.contains(&format!("within {FRIDGE_DAYS} days")));
    assert!(made_cold(false).contains(&format!("within {FRIDGE_DAYS} days")));
    assert!(made_cold(true).contains("put the bowls away"));
}

#[test]
fn what_was_changed_is_said_beside_the_card() {
    let said = |change: &dyn Fn(&mut Vec<Part>)| {
        let mut actual = vec![
            part("tomatoes", 10.0, Unit::Pound, Role::Tomato),
            part("onion", 6.0, Unit::Cup, Role::LowAcid),
            part("garlic", 4.0, Unit::Teaspoon, Role::LowAcid),
            part("salt", 2.0, Unit::Tablespoon, Role::Free),
        ];
        change(&mut actual);
        changes(&bowls(salsa(), actual))
    };
    assert!(said(&|_| {}).is_empty());
    // Another measure of the same amount is no change: six cups are three pints.
    assert!(said(&|bowls| (bowls[1].amount, bowls[1].unit) = (Some(3.0), Some(Unit::Pint))).is_empty());
    assert_eq!(said(&|bowls| bowls[1].amount = Some(4.0)), ["4 cups onion, not 6 cups"]);
    assert_eq!(said(&|bowls| bowls[1].amount = Some(0.0)), ["no onion"]);
    assert_eq!(said(&|bowls| bowls[1].amount = None), Vec::<String>::new(), "nobody said");
    let corn = || part("corn", 1.0, Unit::Cup, Role::LowAcid);
    assert_eq!(said(&|bowls| bowls.push(corn())), ["1 cup corn, not on the card"]);
    assert!(said(&|bowls| bowls.push(Part { amount: Some(0.0), ..corn() })).is_empty());
    // A cup is not a pound, whatever it weighs.
    assert_eq!(
        said(&|bowls| (bowls[1].amount, bowls[1].unit) = (Some(2.0), Some(Unit::Pound))),
        ["2 lb onion, not 6 cups"]
    );
    // A page that does not say how much.
    let garlic = Part::new("garlic", None, None, Role::LowAcid);
    let told = part("garlic", 1.0, Unit::Teaspoon, Role::LowAcid);
    assert_eq!(changes(&bowls(vec![garlic], vec![told])), ["1 teaspoon garlic, not said on the card"]);
    // What goes into the jars stands in no bowl.
    let dose = in_each("bottled lemon juice", 1.0, JarSize::Pint);
    assert!(changes(&bowls(vec![dose.clone()], vec![Part { amount: Some(9.0), ..dose }])).is_empty());
}

#[test]
fn what_is_chopped_is_what_is_low_in_acid_and_comes_by_the_cup() {
    // Three cups of onion at 160 g; garlic by the spoon, the tomatoes and the salt are not chopped for it.
    assert!((in_grams(&salsa()) - 480.0).abs() < 0.5, "{}", in_grams(&salsa()));
    let pound = part("green peppers", 1.0, Unit::Pound, Role::LowAcid);
    assert!((in_grams(&[pound]) - 453.6).abs() < 0.1);
    assert!(in_grams(&[Part::new("celery", None, None, Role::LowAcid)]).abs() < 1e-9);
}

#[test]
fn food_of_a_recipe_waits_for_no_other_jars() {
    let of_recipe = Some(Product::Recipe);
    for food in [Food::Product, Food::Cooked, Food::Juice, Food::ThinJuice] {
        assert_eq!(food.can_wait(of_recipe), Err(NotForTheLine::OfARecipe), "{food}");
        assert_eq!(food.can_wait(Some(Product::Sauce)), Ok(()), "{food}");
        assert_eq!(food.can_wait(None), Ok(()), "{food}");
    }
    assert_eq!((Food::Fruit.can_wait(of_recipe), Food::Bits.can_wait(of_recipe)), (Ok(()), Ok(())));
    for food in [Food::Water, Food::Trimmings] {
        assert_eq!(food.can_wait(None), Err(NotForTheLine::FillsNoJar(food)));
    }
}

#[test]
fn food_in_the_cold_goes_by_its_name() {
    let told = Told { amount: 3.0, measure: FoodMeasure::Quart };
    let cold = |food, product, named: Option<&str>, thickness| ColdFood {
        id: MoveId(1),
        at: Moment(0),
        food,
        place: FoodPlace::Freezer,
        left_g: 1,
        told,
        weight_g: 1,
        packs: None,
        code: Some("260912-3".to_owned()),
        named: named.map(str::to_owned),
        product,
        thickness,
    };
    let salsa = cold(Food::Product, Some(Product::Recipe), Some("Garden salsa"), None);
    assert_eq!(salsa.words(), "Garden salsa of 260912-3");
    let sauce = cold(Food::Product, Some(Product::Sauce), None, Some(Thickness::Thin));
    assert_eq!(sauce.words(), "thin sauce of 260912-3");
    assert_eq!(cold(Food::Juice, Some(Product::Sauce), None, None).words(), "juice of 260912-3");
    assert_eq!(ColdFood { code: None, ..cold(Food::Fruit, None, None, None) }.words(), "tomatoes");
    let moved = Moved {
        id: MoveId(1),
        at: Moment(0),
        from_lot: None,
        from_batch: Some(BatchId(1)),
        from_cold: None,
        food: Food::Product,
        place: FoodPlace::Freezer,
        told,
        weight_g: 1,
        packs: Some(6),
        to_lot: None,
    };
    assert_eq!(moved.words(), "3 quarts, 6 packs: freezer");
    assert_eq!(Moved { packs: None, place: FoodPlace::Table, ..moved }.words(), "3 quarts: dinner");
}

#[test]
fn a_label_says_the_acid_the_minutes_and_the_headspace_of_its_recipe() {
    let with = |feet: f64| Batch { altitude_ft: feet, ..batch(1, Method::BoilingWater) };
    let in_pot = by(Vec::new(), true);
    let acid = |recipe: &BatchRecipe, is_there| recipe_acid(recipe, JarSize::Pint, is_there);
    assert_eq!(acid(&in_pot, true).unwrap(), "its acid is in it");
    assert_eq!(acid(&in_pot, false), None, "a recipe for a pressure canner may have none");
    let process = |recipe: &BatchRecipe, feet: f64, jar| {
        Batch { recipe: Some(recipe.clone()), ..with(feet) }.printed(jar, Units::Us)
    };
    assert_eq!(process(&in_pot, 900.0, JarSize::Pint).unwrap(), "15 min, boiling water · ½ in headspace");
    assert_eq!(process(&in_pot, 1001.0, JarSize::Pint).unwrap(), "25 min, boiling water · ½ in headspace");
    assert_eq!(process(&in_pot, 900.0, JarSize::Quart), None, "larger than any that was printed");
    assert_eq!(process(&by(Vec::new(), false), 900.0, JarSize::Pint), None, "nothing of it is canned");
    let in_jar = by(vec![in_each("bottled lime juice", 2.0, JarSize::Quart)], true);
    assert_eq!(acid(&in_jar, true).unwrap(), "with 1 tablespoon bottled lime juice");
    let under_pressure = BatchRecipe {
        process: in_pot.process.clone().map(|process| RecipeProcess {
            times: vec![PrintedTime {
                method: Method::PressureWeighted,
                psi: Some(10),
                ..printed(JarSize::Pint, None, 20)
            }],
            ..process
        }),
        ..in_pot
    };
    let canner =
        Batch { altitude_ft: 500.0, recipe: Some(under_pressure), ..batch(1, Method::PressureWeighted) };
    assert_eq!(
        canner.printed(JarSize::Pint, Units::Us).unwrap(),
        "20 min, pressure, weighted gauge at 10 lb · ½ in headspace"
    );
}

#[test]
fn whose_recipe_it_is_and_how_long_is_said_at_the_bench_and_the_kettle() {
    let plain = Batch { altitude_ft: 900.0, ..batch(1, Method::BoilingWater) };
    assert_eq!(plain.printed_of(&[JarSize::Pint], Units::Us), None, "plain tomatoes have no page");
    let made = Batch { recipe: Some(by(Vec::new(), true)), ..plain };
    let says = "Terrace salsa, by Booklet, 2015, p. 4. Pints: 15 min, boiling water · ½ in headspace.";
    assert_eq!(made.printed_of(&[JarSize::Pint, JarSize::Quart], Units::Us).unwrap(), says);
    let us = house(Some(900.0));
    let each = "the acid is in the recipe; 15 min, boiling water · ½ in headspace";
    assert_eq!(each_takes(&made, JarSize::Pint, &us), each);
    assert_eq!(each_takes(&made, JarSize::Quart, &us), "the acid is in the recipe");
    let metric = made.printed(JarSize::Pint, Units::Metric).unwrap();
    assert_eq!(metric, "15 min, boiling water · 1.3 cm headspace");
}

#[test]
fn the_bench_names_the_acid_of_the_recipe_and_not_the_batch_s() {
    let mut dosed = load(Method::BoilingWater, 15, vec![jar(1, 1, JarSize::Pint)], &[]);
    dosed.jars[0].product = Product::Recipe;
    assert_eq!(dosed.jars[0].agent, Agent::BottledLemonJuice);
    let recipe = by(vec![in_each("bottled lime juice", 2.0, JarSize::Quart)], true);
    dosed.recipes = vec![(dosed.jars[0].batch, recipe)];
    assert_eq!(doses(&dosed, &[], Spoons::Us)[0].acid_name, "bottled lime juice");
}

#[test]
fn bowls_are_judged_by_what_is_in_them() {
    // The verdict has to see the bowls: empty ones are not the recipe.
    use bodega_model::judge::finding::Ruling;
    use bodega_model::kitchen::altitude::Altitude;
    use bodega_model::recipe::source::SourceKind;
    use bodega_model::records::recipe::{RecipeLine, RecipeText};
    let acid = part("bottled lemon juice", 1.0, Unit::Cup, Role::Acid);
    let lines =
        salsa().into_iter().chain([acid]).map(|part| RecipeLine { part, preparation: None, ticked: true });
    let text = RecipeText {
        name: "Salsa".to_owned(),
        lines: lines.collect(),
        makes: None,
        process: by(Vec::new(), true).process,
        process_ticked: true,
        kind: Some(SourceKind::Guide),
        is_all_its_acid: true,
        title: "Booklet".to_owned(),
        edition: "2015".to_owned(),
        page: "4".to_owned(),
        note: String::new(),
    };
    let here = Altitude::from_feet(900.0).ok();
    let ruling = |actual: Vec<Part>| {
        let once = Bowls { factor: 1.0, ..bowls(parts_of(&text), actual) };
        may_can(&text, here, &once, &[]).ruling
    };
    assert_eq!(ruling(parts_of(&text)), Ruling::Fine);
    assert_eq!(ruling(empty(&parts_of(&text))), Ruling::CannotTell);
    let mut more = parts_of(&text);
    more[1].amount = Some(4.0);
    assert_eq!(ruling(more), Ruling::NotFine);
    // Without a process there are no jars, and nothing is found in what nobody cans.
    let no_acid =
        salsa().into_iter().map(|part| RecipeLine { part, preparation: None, ticked: true }).collect();
    let cold = RecipeText { process: None, lines: no_acid, ..text };
    assert_eq!(stands(&cold, here).findings, []);
}
