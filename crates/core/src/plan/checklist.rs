//! The checklist of a batch: what to do in working order, with the amounts filled in.
//!
//! Sources: USDA Guide 3 and Guide 1, from memory; the order of acid before food is common practice, no source.

use bodega_model::canner::cover::cover_in;
use bodega_model::contents;
use bodega_model::contents::Added;
use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::ledger::food::Food;
use bodega_model::ledger::keep::{FREEZER_HEADSPACE, FRIDGE_DAYS};
use bodega_model::measures::amounts::{exact, in_words};
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::measures::words::{capital, counted};
use bodega_model::plan::making::{Making, Rest, Thickness};
use bodega_model::tables::process::{Medium, Method, Pack, Product, headspace};
use serde::Serialize;
use uom::si::length::inch;

use crate::jars::salt::salt_per_jar;
use crate::kettle::goal::{BOIL_BEFORE_FILLING, boils_before_filling};

vocabulary! {
    /// Where a step is done.
    "station", Station {
        /// Sorting and washing.
        Crates = "crates", "crates";
        /// Skinning, milling, cooking.
        Kettle = "kettle", "kettle";
        /// Acid, food, lid.
        Jars = "jars", "jars";
        /// The process.
        Canner = "canner", "canner";
        /// Cooling, seals, labels.
        Towel = "towel", "towel";
    }
}

/// How much of a batch's fruit was frozen.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Thawed {
    /// None of it.
    Nothing,
    /// A part of it.
    Part,
    /// All of it.
    All,
}

impl Thawed {
    /// Of lots of fruit, whether each was frozen.
    #[must_use]
    pub fn of(mut frozen: impl Iterator<Item = bool> + Clone) -> Self {
        match (frozen.clone().any(|is| is), frozen.all(|is| is)) {
            (false, _) => Self::Nothing,
            (true, true) => Self::All,
            (true, false) => Self::Part,
        }
    }
}

/// One line to tick.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Step {
    /// Where.
    pub station: Station,
    /// What, in one or two sentences.
    pub text: String,
}

/// What the checklist needs to know of a batch.
#[derive(Debug, Clone, PartialEq)]
pub struct Sheet {
    /// What it is made of.
    pub foods: Vec<Food>,
    /// How much of its fruit was frozen.
    pub thawed: Thawed,
    /// What it becomes.
    pub making: Making,
    /// The recipe, when it is made by one.
    pub recipe: Option<SheetRecipe>,
    /// Jars by size.
    pub jars: Vec<(JarSize, u32)>,
    /// What else goes in; `None` while nobody said.
    pub additions: Option<Vec<Added>>,
    /// Acid of choice.
    pub agent: Agent,
    /// The household's spoons.
    pub spoons: Spoons,
    /// Salt wanted.
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// How the jars are heated.
    pub method: Method,
    /// Minutes and pressure of each load.
    pub loads: Vec<(u32, Minutes, Option<u32>)>,
}

/// A recipe on a checklist.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetRecipe {
    /// What it is called.
    pub name: String,
    /// Where it is printed.
    pub source: String,
    /// Its parts as they are measured out, the tomatoes first.
    pub parts: Vec<String>,
    /// What goes into each jar of it and not into the pot: "2 Tbsp bottled lemon juice in each quart".
    pub doses: Vec<String>,
    /// Headspace in inches; `None` when nothing of it is canned.
    pub headspace_in: Option<f64>,
}

impl SheetRecipe {
    fn kettle(&self) -> Vec<String> {
        let mut list = vec![
            format!("{}: measure out {}.", capital(&self.name), self.parts.join(", ")),
            "Say what is in each bowl before it is mixed: nothing can be taken out afterwards.".to_owned(),
        ];
        list.push(match (self.source.as_str(), self.headspace_in) {
            ("", None) => "Cook it as you like it: it is not canned.".to_owned(),
            (source, None) => format!("Cook it as its page says: {source}. It is not canned."),
            (source, Some(_)) => format!("Cook it as its page says: {source}. No flour and no starch."),
        });
        list
    }

    fn acid(&self) -> String {
        if self.doses.is_empty() {
            return "The acid is in the recipe: no dose of its own goes into the jars, and nothing else does."
                .to_owned();
        }
        format!("Acid first, into the empty jar: {}.", self.doses.join(", "))
    }
}

/// What becomes of food that is not canned. Sources: USDA Guide 1 for the two hours, extension guidance on freezing, from memory.
fn cold() -> Vec<String> {
    vec![
        format!(
            "Cool it in shallow bowls or cold water: into the refrigerator within two hours, eaten within {FRIDGE_DAYS} days."
        ),
        format!("Or into the freezer, cold. {FREEZER_HEADSPACE}"),
        "Say how much went where: then it is found again, with its day.".to_owned(),
    ]
}

/// The checklist in working order.
#[must_use]
pub fn steps(sheet: &Sheet) -> Vec<Step> {
    let step = |station, text: String| Step { station, text };
    let mut list = Vec::new();
    if !sheet.is_through_the_mill() {
        let text = "Wash in running water, no soap. Leave out what is soft, mouldy or from a dead vine.";
        list.push(step(Station::Crates, text.to_owned()));
    }
    list.extend(kettle(sheet).into_iter().map(|text| step(Station::Kettle, text)));
    if sheet.is_cold() {
        list.extend(cold().into_iter().map(|text| step(Station::Kettle, text)));
        return list;
    }
    list.extend(jars(sheet).into_iter().map(|text| step(Station::Jars, text)));
    list.extend(canner(sheet).into_iter().map(|text| step(Station::Canner, text)));
    list.extend(
        [
            "Lift straight up onto a towel, gaps between the jars, no draught. Leave them alone for 12 to 24 hours.",
            "Ring off, press the middle, lift by the lid's edge. Wash, dry, label; store without rings.",
        ]
        .map(|text| step(Station::Towel, text.to_owned())),
    );
    list
}

impl Sheet {
    /// Whether nothing of it is canned.
    fn is_cold(&self) -> bool {
        self.recipe.as_ref().is_some_and(|recipe| recipe.headspace_in.is_none())
    }

    /// Whether nothing of it is fruit that is still to be washed and milled.
    fn is_through_the_mill(&self) -> bool {
        !self.foods.is_empty() && self.foods.iter().all(|food| *food != Food::Fruit)
    }
}

fn kettle(sheet: &Sheet) -> Vec<String> {
    let making = &sheet.making;
    if let Some(recipe) = &sheet.recipe {
        return recipe.kettle();
    }
    let skins = "Core, cut a cross, 30 to 60 seconds in boiling water until the skins split, ice water, slip them. \
                 Eight or nine at a time.";
    let mill = "Cut, simmer until soft, put through the mill; run the scraps twice.";
    let rest = match (making.product, making.pack) {
        (Product::Whole, Pack::Raw) => "Keep water, or juice, boiling to cover the fruit.",
        (Product::Whole, Pack::Hot) => "Cover with water or juice and boil gently for 5 minutes.",
        (Product::Crushed, _) => {
            "Crush a sixth of it and boil fast, add the rest in pieces, boil gently for 5 minutes. No water."
        }
        (Product::Juice | Product::VegetableJuice, _) => {
            "Heat the first pound fast while crushing, so that the juice does not separate; then all of it."
        }
        (Product::Sauce, _) if making.thickness == Some(Thickness::Thick) => {
            "Boil down by half. Stir more as it thickens."
        }
        (Product::Sauce, _) => "Boil down by a third, until two thirds are left. Stir more as it thickens.",
        (Product::Paste, _) => "Boil down until it mounds on a spoon. Stir without leaving it.",
        (Product::Recipe, _) => "Cook it as its page says.",
    };
    let first = match making.product {
        Product::Whole | Product::Crushed | Product::Recipe => skins,
        Product::Juice | Product::VegetableJuice | Product::Sauce | Product::Paste => mill,
    };
    let through = sheet.is_through_the_mill();
    let mut list = Vec::new();
    // Common practice, no source: skins of frozen fruit slip, and its water is free.
    if !through && sheet.thawed != Thawed::Nothing {
        list.push(
            "Let the frozen fruit thaw, pour off its clear water, and say at the crates how much that was."
                .to_owned(),
        );
    }
    let slips = "The skins of thawed fruit slip off as they are: no blanching. Core it.";
    let mut notes: Vec<&str> = sheet.foods.iter().filter_map(|food| food.note()).collect();
    notes.dedup();
    list.extend(notes.into_iter().map(str::to_owned));
    list.push(if through {
        "It is through the mill already: heat it to the boil.".to_owned()
    } else {
        match (sheet.thawed, first == skins) {
            (Thawed::All, true) => slips.to_owned(),
            (Thawed::Part, true) => format!("The fresh fruit: {skins} {slips}"),
            _ => first.to_owned(),
        }
    });
    if making.product == Product::Sauce && !through {
        list.push(
            "Thin juice may be ladled off before it thickens: say so at the kettle, and it waits for jars of its own."
                .to_owned(),
        );
    }
    if boils_before_filling(making.product) {
        list.push(BOIL_BEFORE_FILLING.to_owned());
    }
    // Juice that was milled is only heated.
    if !(through && matches!(making.product, Product::Juice | Product::VegetableJuice | Product::Crushed)) {
        list.push(rest.to_owned());
    }
    list
}

fn jars(sheet: &Sheet) -> Vec<String> {
    let count: u32 = sheet.jars.iter().map(|(_, count)| count).sum();
    let each = |of: &dyn Fn(JarSize) -> String| {
        sheet.jars.iter().map(|(jar, _)| format!("{} in each {jar}", of(*jar))).collect::<Vec<_>>().join(", ")
    };
    let mut list = vec![format!(
        "{}, hot; {}; rims without a nick.",
        counted(f64::from(count), "clean jar"),
        counted(f64::from(count), "new lid")
    )];
    if let Some(recipe) = &sheet.recipe {
        list.push(recipe.acid());
    } else {
        list.push(format!(
            "Acid first, into the empty jar: {}, {}.",
            sheet.agent,
            each(&|jar| sheet.spoons.dose_with_volume(sheet.agent, acid::per_jar(sheet.agent, jar)))
        ));
        if sheet.salt {
            list.push(format!("Salt for taste: {}.", each(&|jar| salt_per_jar(jar).label())));
        }
        list.push(match sheet.additions.as_deref() {
            None => "What else goes in was not said: say it in the plan before a jar is filled.".to_owned(),
            Some([]) => "Nothing else goes in.".to_owned(),
            Some(additions) => format!("In the whole batch, and no more: {}.", contents::in_words(additions)),
        });
    }
    let printed = sheet.recipe.as_ref().and_then(|recipe| recipe.headspace_in);
    let room = printed.or_else(|| headspace(sheet.making.product).map(|space| space.get::<inch>()));
    let room = in_words(&exact(room.unwrap_or_default()));
    // The liquid goes in before the bubbles come out.
    let liquid = match sheet.making.medium {
        Some(Medium::Water) => "boiling water over the fruit to the same mark. ",
        Some(Medium::Juice) => "boiling juice over the fruit to the same mark. ",
        Some(Medium::None) | None => "",
    };
    let liquid = if liquid.is_empty() { ". ".to_owned() } else { format!(", {liquid}") };
    list.push(format!(
        "Fill to {room} in under the rim{liquid}Bubbles out with a wooden stick, and look at the headspace again."
    ));
    list.extend(sheet.rest.map(|rest| {
        let how = match rest {
            Rest::Refrigerator => "to eat within days",
            Rest::Freezer => "with ½ in of headspace in a pint and 1 in in a quart",
        };
        format!("What fills no jar goes into the {rest}, {how}. Never process a part-filled jar.")
    }));
    list.push("Wipe the rim, lid on, ring to fingertip tight.".to_owned());
    list
}

fn canner(sheet: &Sheet) -> Vec<String> {
    let water = if sheet.making.pack == Pack::Raw { "140 °F (60 °C)" } else { "180 °F (82 °C)" };
    let loads = sheet
        .loads
        .iter()
        .map(|(jars, minutes, psi)| {
            let pressure = psi.map_or_else(String::new, |psi| format!(" at {psi} lb"));
            format!("{}, {} minutes{pressure}", counted(f64::from(*jars), "jar"), minutes.0)
        })
        .collect::<Vec<_>>()
        .join("; then ");
    let start = match sheet.method {
        Method::BoilingWater => {
            let longest = sheet.loads.iter().map(|(_, minutes, _)| minutes.0).max().unwrap_or_default();
            let cover = cover_in(f64::from(longest));
            format!("Water at {water}, rack in. Jars in, water {cover} in over the lids, lid on.")
        }
        Method::AtmosphericSteam => "Full water in, rack in. Jars in, dome on.".to_owned(),
        Method::PressureDial | Method::PressureWeighted => {
            "2 to 3 in of hot water, rack in. Jars in, lid locked, let it vent for 10 minutes, then close."
                .to_owned()
        }
    };
    let count = match sheet.method {
        Method::BoilingWater => "Count from the full rolling boil",
        Method::AtmosphericSteam => "Count from a full column of steam",
        Method::PressureDial | Method::PressureWeighted => "Count from the full pressure",
    };
    let rest = match sheet.method {
        Method::BoilingWater | Method::AtmosphericSteam => {
            "Heat off, lid off away from you, 5 minutes of rest."
        }
        Method::PressureDial | Method::PressureWeighted => {
            "Heat off. Let the pressure drop by itself; wait 10 minutes more, then open."
        }
    };
    vec![start, format!("{count}: {loads}. If it is lost, the whole time again."), rest.to_owned()]
}

/// What to do once the last load is out, in working order. Common practice, no source.
#[must_use]
pub fn wash_up(method: Method) -> Vec<&'static str> {
    let mut list = vec![
        "Count the jars on the towel against the batch; leave them alone until tomorrow.",
        "Let the canner cool before it is emptied; hot water scalds.",
        "Rinse and dry the canner and its rack, lid off, so that nothing rusts.",
        "Wash the kettle, the mill and the funnel before they dry on.",
        "Put away the acid and write on the bottle when it was opened.",
        "Rings off, washed and dried with tomorrow's check; they do not stay on the jars.",
    ];
    if method.is_pressure() {
        list.insert(3, "Look through the vent pipe and at the gasket; a dial gauge is tested once a year.");
    }
    list
}

#[cfg(test)]
mod tests {
    use super::{Added, Sheet, Station, steps};
    use bodega_model::contents::Ingredient;
    use bodega_model::jars::acid::Agent;
    use bodega_model::jars::size::JarSize;
    use bodega_model::jars::spoons::Spoons;
    use bodega_model::ledger::food::Food;
    use bodega_model::measures::moment::Minutes;
    use bodega_model::plan::making::Making;
    use bodega_model::tables::process::{Method, Product};

    fn sheet(product: Product, method: Method, psi: Option<u32>) -> Sheet {
        Sheet {
            foods: vec![Food::Fruit],
            thawed: super::Thawed::Nothing,
            making: Making::ALL.into_iter().find(|making| making.product == product).unwrap(),
            recipe: None,
            jars: vec![(JarSize::Quart, 7), (JarSize::Pint, 2)],
            additions: Some(Vec::new()),
            agent: Agent::BottledLemonJuice,
            spoons: Spoons::Us,
            salt: false,
            rest: Some(super::Rest::Freezer),
            method,
            loads: vec![(7, Minutes(50), psi), (2, Minutes(50), psi)],
        }
    }

    #[test]
    fn acid_comes_before_the_food_and_stations_in_the_order_of_the_work() {
        for product in Product::PLAIN.iter().filter(|product| **product != Product::VegetableJuice) {
            let list = steps(&sheet(*product, Method::BoilingWater, None));
            assert!(list.is_sorted_by_key(|step| step.station), "{product}");
            let place = |word: &str| list.iter().position(|step| step.text.contains(word)).unwrap();
            assert!(place("2 Tbsp (30 mL) in each quart, 1 Tbsp (15 mL) in each pint") < place("Fill to"));
            assert!(list[place("Count from")].text.contains("7 jars, 50 minutes; then 2 jars"));
        }
    }

    #[test]
    fn pressure_has_its_own_steps_and_still_its_acid() {
        let list = steps(&sheet(Product::Crushed, Method::PressureDial, Some(7)));
        let all = list.iter().map(|step| step.text.as_str()).collect::<Vec<_>>().join("\n");
        for words in
            ["vent for 10 minutes", "50 minutes at 7 lb", "drop by itself", "2 Tbsp", "goes into the freezer"]
        {
            assert!(all.contains(words), "{words} in\n{all}");
        }
        assert!(!all.contains("over the lids"));
        assert!(list.iter().any(|step| step.station == Station::Canner));
    }

    #[test]
    fn what_else_goes_in_is_on_the_sheet_and_so_is_that_nobody_said() {
        let said = |additions: Option<Vec<Added>>| {
            let sheet = Sheet { additions, ..sheet(Product::Whole, Method::BoilingWater, None) };
            steps(&sheet).iter().map(|step| step.text.as_str()).collect::<Vec<_>>().join("\n")
        };
        let added = |what, cups, leaves| Added { cups, leaves, ..Added::free(what) };
        assert!(said(None).contains("was not said"));
        assert!(said(Some(Vec::new())).contains("Nothing else goes in."));
        let some = vec![
            added(Ingredient::Onion, Some(1.5), None),
            added(Ingredient::BasilLeaf, None, Some(7.0)),
            added(Ingredient::DriedHerb, None, None),
        ];
        let text = said(Some(some));
        assert!(text.contains("no more: 1.5 cups of onion, 7 leaves of basil, dried herbs."), "{text}");
        assert!(text.contains("2 in over the lids"), "{text}");
    }

    #[test]
    fn frozen_fruit_is_thawed_poured_off_and_not_blanched() {
        let of = |thawed| Sheet { thawed, ..sheet(Product::Crushed, Method::BoilingWater, None) };
        let text =
            |thawed| steps(&of(thawed)).iter().map(|step| step.text.as_str()).collect::<Vec<_>>().join("\n");
        let all = text(super::Thawed::All);
        assert!(all.contains("pour off its clear water") && all.contains("no blanching"), "{all}");
        assert!(!all.contains("in boiling water until the skins split"), "{all}");
        let part = text(super::Thawed::Part);
        assert!(part.contains("The fresh fruit: Core") && part.contains("no blanching"), "{part}");
        assert!(!text(super::Thawed::Nothing).contains("thaw"));
    }

    #[test]
    fn the_liquid_goes_over_whole_fruit_before_the_bubbles_come_out() {
        let whole = steps(&sheet(Product::Whole, Method::BoilingWater, None));
        let fill = whole.iter().find(|step| step.text.contains("Bubbles out")).unwrap();
        let place = |word: &str| fill.text.find(word).unwrap();
        assert!(place("boiling water over") < place("Bubbles out") && place("Bubbles out") < place("again"));
    }

    #[test]
    fn juice_is_not_washed_and_thin_juice_says_what_it_stands_on() {
        let juice =
            Sheet { foods: vec![Food::ThinJuice], ..sheet(Product::Juice, Method::BoilingWater, None) };
        let all = steps(&juice).iter().map(|step| step.text.as_str()).collect::<Vec<_>>().join("\n");
        assert!(all.contains("No published process names thin juice") && all.contains("heat it to the boil"));
        assert!(!all.contains("Wash in running water") && !all.contains("put through the mill;"), "{all}");
        let sauce = steps(&sheet(Product::Sauce, Method::BoilingWater, None));
        let place = |word: &str| sauce.iter().position(|step| step.text.contains(word)).unwrap();
        assert!(place("ladled off before it thickens") < place("Boil down by"));
    }
}
