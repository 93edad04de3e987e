//! A recipe on its own page: which may be canned and which must not, and whether its bowls ever say otherwise.

use bodega_core::jars::bench::before_filling;
use bodega_core::jars::doses::doses;
use bodega_core::judge::case::{Case, CaseRecipe};
use bodega_core::judge::judge;
use bodega_core::judge::recipe_page::{LineAbout, Standing, Stands, acid_words, line_asks, may_can, stands};
use bodega_core::recipe::back::ways_back;
use bodega_core::recipe::compare::{compare, compare_filled};
use bodega_core::recipe::line;
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::finding::{Code, Ruling};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::amounts::{Unit, exact};
use bodega_model::measures::ids::{BowlsId, RecipeId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::recipe::part::{PacketAcid, PacketLabel, Part, Per, Role, Strength};
use bodega_model::recipe::per_jar::dose_in;
use bodega_model::recipe::process::{AltitudePrinted, NoRecipeTime, PrintedTime, RecipeProcess};
use bodega_model::recipe::source::SourceKind;
use bodega_model::records::recipe::{BatchRecipe, Bowls, RecipeLine, RecipeText};
use bodega_model::tables::process::{Method, Pack, Product};

use crate::kitchen::{jar, load};

/// A line as it was read, with what somebody answered: "2 Tbsp bottled lemon juice@quart", "1 packet salsa mix#6 inside".
fn part(line: &str) -> (Part, Option<String>) {
    let (line, jar) = line.split_once('@').map_or((line, None), |(line, jar)| (line, Some(jar)));
    let (line, label) = line.split_once('#').map_or((line, None), |(line, label)| (line, Some(label)));
    let read = line::read(line, Decimal::Point);
    let label = label.map(|label| {
        let (pounds, acid) = label.split_once(' ').unwrap();
        PacketLabel { tomatoes_lb: pounds.parse().ok(), acid: acid.parse::<PacketAcid>().ok() }
    });
    let part = Part {
        group: read.group,
        per: jar.map_or(Per::Batch, |jar| Per::Jar(jar.parse().unwrap())),
        packet: label,
        // Somebody who is asked what it is may call anything an acid.
        ..Part::new(read.name, read.amount, read.unit, read.role.unwrap_or(Role::Acid))
    };
    (part, read.preparation)
}

/// "pint 15@1000 20@6000 25@over": the jar and its minutes; "-" where the page says nothing of altitude.
fn process(times: &str) -> Option<RecipeProcess> {
    let (jar, bands) = times.split_once(' ')?;
    let line = |band: &str| {
        let (minutes, up_to) = band.split_once('@').unwrap();
        let method = match &minutes[..1] {
            "p" => Method::PressureDial,
            "s" => Method::AtmosphericSteam,
            _ => Method::BoilingWater,
        };
        PrintedTime {
            jar: jar.parse().unwrap(),
            method,
            up_to_ft: up_to.parse().ok(),
            above: up_to == "over",
            minutes: Minutes(minutes.trim_start_matches(['p', 's']).parse().unwrap()),
            psi: method.is_pressure().then_some(11),
        }
    };
    let altitude = if times.contains("@-") { AltitudePrinted::Nothing } else { AltitudePrinted::Bands };
    let times: Vec<PrintedTime> = bands.split(' ').map(line).collect();
    let process = RecipeProcess { pack: Pack::Hot, headspace_in: 0.5, altitude: Some(altitude), times };
    process.check().unwrap();
    Some(process)
}

#[derive(serde::Deserialize)]
struct Row {
    name: String,
    lines: String,
    kind: String,
    edition: String,
    times: String,
    feet: f64,
    wanted: String,
    why: String,
}

impl Row {
    fn text(&self) -> RecipeText {
        let line = |line: &str| {
            let (part, preparation) = part(line);
            RecipeLine { part, preparation, ticked: true }
        };
        let edition = if self.edition.is_empty() { "2015" } else { &self.edition };
        RecipeText {
            name: self.name.clone(),
            lines: self.lines.split('|').map(line).collect(),
            makes: None,
            process: process(&self.times),
            process_ticked: true,
            kind: Some(self.kind.parse::<SourceKind>().unwrap()),
            is_all_its_acid: false,
            title: "County kitchen booklet".to_owned(),
            edition: edition.to_owned(),
            page: "12".to_owned(),
            note: String::new(),
        }
    }
}

fn rows() -> Vec<Row> {
    let text = include_str!("../data/recipes_fit.csv");
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes());
    reader.deserialize().map(Result::unwrap).collect()
}

fn row(name: &str) -> Row {
    rows().into_iter().find(|row| row.name == name).unwrap_or_else(|| panic!("{name}"))
}

fn at(feet: f64) -> Option<Altitude> {
    Altitude::from_feet(feet).ok()
}

fn bowls(base: &[Part], actual: &[Part]) -> Bowls {
    Bowls {
        id: BowlsId(1),
        recipe: RecipeId(1),
        factor: 1.0,
        base: base.to_vec(),
        actual: actual.to_vec(),
        mixed_at: None,
        labels_asked: true,
        at: Moment(0),
    }
}

/// Everything that a page says of a recipe.
fn words(stands: &Stands) -> String {
    let findings = stands.findings.iter().map(|finding| finding.message.as_str());
    std::iter::once(stands.says.as_str()).chain(findings).collect::<Vec<_>>().join(" ")
}

#[test]
fn which_may_be_canned_and_which_must_not() {
    let all = rows();
    let may = all.iter().filter(|row| row.wanted == "may").count();
    assert!(may >= 20 && all.len() - may >= 60);
    let mut wrong = Vec::new();
    for row in &all {
        let text = row.text();
        let seen = stands(&text, at(row.feet));
        let wanted = match row.wanted.as_str() {
            "may" => (Standing::Checked, Ruling::Fine),
            "never" => (Standing::NotForJars, Ruling::NotFine),
            "open" => (Standing::Unchecked, Ruling::CannotTell),
            "cold" => (Standing::NoProcess, Ruling::NotFine),
            other => panic!("{other}"),
        };
        if (seen.standing, seen.ruling) != wanted || !words(&seen).contains(&row.why) {
            wrong.push(format!("{} ({}): {:?} {}", row.name, row.wanted, seen.standing, words(&seen)));
        }
        // That its acid is in it, is said only when it is.
        let needs_none = row.times.contains(" p");
        if row.wanted == "may" && !needs_none {
            assert!(seen.acid.is_some(), "{}", row.name);
        }
        if words(&seen).contains("No acid is in it") {
            assert_eq!(seen.acid, None, "{}", row.name);
        }
        // The bowls, filled as the card says, never say more than the page.
        let full: Vec<Part> = parts_of(&text)
            .into_iter()
            .map(|part| Part { strength: Some(Strength::Five), amount: part.amount.or(Some(1.0)), ..part })
            .collect();
        let bowls = may_can(&text, at(row.feet), &bowls(&parts_of(&text), &full), &[]);
        if row.wanted == "may" {
            assert_eq!(bowls.ruling, Ruling::Fine, "{}: {}", row.name, bowls.says);
        } else {
            assert_ne!(bowls.ruling, Ruling::Fine, "{}: {}", row.name, bowls.says);
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn what_a_source_gives_itself_away_as_is_asked() {
    let with = |kind: Option<SourceKind>, title: &str, edition: &str| {
        let text = RecipeText {
            kind,
            title: title.to_owned(),
            edition: edition.to_owned(),
            ..row("Ketchup").text()
        };
        stands(&text, None)
    };
    let guide = Some(SourceKind::Guide);
    assert_eq!(with(guide, "County kitchen booklet", "2015").standing, Standing::Checked);
    assert_eq!(with(guide, "extension web page", "2015").standing, Standing::Checked);
    for (kind, title, edition) in [
        (None, "County kitchen booklet", "2015"),
        (guide, "found it in a post", "2015"),
        (guide, "a video", "2015"),
        (guide, "Grandmother's salsa", "2015"),
        (guide, "", "2015"),
        (guide, "County kitchen booklet", ""),
        (Some(SourceKind::Maker), "www.salsa.example", "2015"),
        (Some(SourceKind::Maker), "salsa.example", "2015"),
        (Some(SourceKind::Maker), "a website", "2015"),
        (Some(SourceKind::Maker), "County kitchen booklet", "third edition"),
    ] {
        let seen = with(kind, title, edition);
        assert_eq!(seen.standing, Standing::Unchecked, "{kind:?} {title} {edition}");
        assert_eq!(seen.missing.len(), 1 + usize::from(kind.is_none()), "{:?}", seen.missing);
    }
}

#[test]
fn a_time_holds_for_what_is_printed() {
    let time = |process: &RecipeProcess, feet: f64| {
        let found = process.time(JarSize::Pint, Method::BoilingWater, at(feet).unwrap());
        found.map(|time| time.option.minutes.0)
    };
    let with = |altitude: Option<AltitudePrinted>, bands: &[(Option<f64>, bool, u32)]| {
        let line = |(up_to_ft, above, minutes): &(Option<f64>, bool, u32)| PrintedTime {
            jar: JarSize::Pint,
            method: Method::BoilingWater,
            up_to_ft: *up_to_ft,
            above: *above,
            minutes: Minutes(*minutes),
            psi: None,
        };
        RecipeProcess {
            pack: Pack::Hot,
            headspace_in: 0.5,
            altitude,
            times: bands.iter().map(line).collect(),
        }
    };
    let nothing = with(Some(AltitudePrinted::Nothing), &[(None, false, 40)]);
    assert_eq!((time(&nothing, 1000.0), time(&nothing, 1001.0)), (Ok(40), Err(NoRecipeTime::NothingSaid)));
    // Written down before altitude was asked for: one open band said nothing, one above another was the highest.
    let alone = with(None, &[(None, false, 40)]);
    assert_eq!((time(&alone, 1000.0), time(&alone, 6500.0)), (Ok(40), Err(NoRecipeTime::NothingSaid)));
    assert_eq!(alone.altitude_printed(), AltitudePrinted::Nothing);
    let highest = with(None, &[(Some(1000.0), false, 15), (None, false, 25)]);
    assert_eq!((time(&highest, 900.0), time(&highest, 6500.0)), (Ok(15), Ok(25)));
    assert_eq!(highest.altitude_printed(), AltitudePrinted::Bands);
    // An empty field is no answer any more.
    let open = with(Some(AltitudePrinted::Bands), &[(Some(1000.0), false, 15), (None, false, 25)]);
    assert_eq!(open.check().unwrap_err().field, "times[1].up_to_ft");
    let above = with(Some(AltitudePrinted::Added), &[(Some(1000.0), false, 15), (None, true, 25)]);
    assert!(above.check().is_ok());
    assert_eq!((time(&above, 1000.0), time(&above, 6500.0)), (Ok(15), Ok(25)));
    let closed = with(Some(AltitudePrinted::Bands), &[(Some(6000.0), false, 15)]);
    assert_eq!(time(&closed, 6001.0), Err(NoRecipeTime::Altitude));
}

fn lemon(amount: f64, unit: Unit, jar: JarSize) -> Part {
    Part { per: Per::Jar(jar), ..Part::new("bottled lemon juice", Some(amount), Some(unit), Role::Acid) }
}

#[test]
fn a_dose_for_each_jar_goes_by_the_jars_and_never_by_the_card() {
    let base = vec![
        Part::new("tomatoes", Some(21.0), Some(Unit::Pound), Role::Tomato),
        lemon(2.0, Unit::Tablespoon, JarSize::Quart),
    ];
    assert_eq!(base[1].says(), "2 tablespoons bottled lemon juice in each quart");
    assert_eq!(acid_words(&base).unwrap(), "2 tablespoons bottled lemon juice in each quart.");
    for times in [0.5, 1.0, 3.0] {
        assert_eq!(scaled(&base, &exact(times))[1], base[1], "the card keeps what is printed");
    }
    let dose = |jar: JarSize| dose_in(&base[1], jar).map(|dose| dose.says()).unwrap();
    assert_eq!(dose(JarSize::Quart), "2 tablespoons bottled lemon juice in each quart");
    assert_eq!(dose(JarSize::Pint), "1 tablespoon bottled lemon juice in each pint");
    assert_eq!(
        dose(JarSize::HalfPint),
        "½ tablespoon bottled lemon juice in each half-pint".replace("½ tablespoon", "1 ½ teaspoons")
    );
    // 2 Tbsp are 6 tsp; a litre is 1.0567 of a quart, 6.34 tsp, and that is 6 ½ tsp on the spoons.
    assert_eq!(dose(JarSize::Litre), "6 ½ teaspoons bottled lemon juice in each litre");

    let seven = [(JarSize::Quart, 7)];
    let with = |parts: &[Part], jars: &[(JarSize, u32)]| {
        let actual: Vec<Part> = base[..1].iter().chain(parts).cloned().collect();
        compare_filled(&base, &actual, jars, true).verdict
    };
    assert_eq!(with(&base[1..], &seven), Ruling::Fine);
    assert_eq!(with(&base[1..], &[]), Ruling::Fine, "dose against dose");
    assert_eq!(with(&[lemon(1.0, Unit::Tablespoon, JarSize::Pint)], &[(JarSize::Pint, 14)]), Ruling::Fine);
    assert_eq!(with(&[lemon(1.5, Unit::Tablespoon, JarSize::Quart)], &seven), Ruling::NotFine);
    assert_eq!(
        with(&[lemon(2.0, Unit::Tablespoon, JarSize::Litre)], &[(JarSize::Litre, 7)]),
        Ruling::NotFine
    );
    // Two spoons in all of seven quarts are no two spoons in each.
    let in_pot =
        |spoons: f64| [Part::new("bottled lemon juice", Some(spoons), Some(Unit::Tablespoon), Role::Acid)];
    assert_eq!(with(&in_pot(2.0), &seven), Ruling::NotFine);
    assert_eq!(with(&in_pot(14.0), &seven), Ruling::Fine);
    assert_eq!(with(&in_pot(14.0), &[(JarSize::Quart, 8)]), Ruling::NotFine);
    assert_eq!(with(&in_pot(14.0), &[]), Ruling::CannotTell, "into how many jars?");
    assert_eq!(with(&[], &seven), Ruling::NotFine);
}

#[test]
fn packets_are_rounded_up_whatever_they_are_called() {
    let packet = |count: f64, role: Role, label: Option<PacketLabel>| Part {
        packet: label,
        ..Part::new("salsa mix", Some(count), Some(Unit::Packet), role)
    };
    let label = Some(PacketLabel { tomatoes_lb: Some(6.0), acid: Some(PacketAcid::Inside) });
    let pounds = |pounds: f64| Part::new("tomatoes", Some(pounds), Some(Unit::Pound), Role::Tomato);
    for role in [Role::Packet, Role::Free, Role::LowAcid, Role::Acid] {
        let base = [pounds(6.0), packet(1.0, role, label)];
        let with = |tomatoes: f64, count: f64| {
            compare(&base, &[pounds(tomatoes), packet(count, role, label)]).verdict
        };
        assert_eq!(with(6.0, 1.0), Ruling::Fine, "{role}");
        assert_eq!(
            (with(12.0, 2.0), with(13.0, 2.0), with(13.0, 3.0)),
            (Ruling::Fine, Ruling::NotFine, Ruling::Fine)
        );
        assert_eq!(scaled(&base, &exact(2.5))[1].amount, Some(3.0));
        // One short comes back by one more.
        let short = [pounds(13.0), packet(2.0, role, label)];
        assert_eq!(ways_back(&base, &short, true)[0][0].says, "add 1 packet of salsa mix");
    }
    // By the label, when the recipe has another number of tomatoes.
    let base = [pounds(10.0), packet(1.0, Role::Packet, label)];
    assert_eq!(compare(&base, &base).verdict, Ruling::NotFine);
    let unread = [pounds(6.0), packet(1.0, Role::Packet, None)];
    let seen = compare(&unread, &unread);
    assert_eq!((seen.verdict, seen.missing.len()), (Ruling::CannotTell, 2));
    // One that the recipe does not have.
    let plain = [pounds(6.0), Part::new("vinegar 5 %", Some(1.0), Some(Unit::Cup), Role::Acid)];
    let more = [plain[0].clone(), plain[1].clone(), packet(1.0, Role::Free, label)];
    assert_eq!(compare(&plain, &more).verdict, Ruling::NotFine);
}

#[test]
fn the_strength_of_vinegar_is_asked_at_the_bowls() {
    let base = [
        Part::new("tomatoes", Some(5.0), Some(Unit::Pound), Role::Tomato),
        Part::new("white vinegar", Some(1.0), Some(Unit::Cup), Role::Acid),
    ];
    let with = |strength: Option<Strength>| {
        let actual = [base[0].clone(), Part { strength, ..base[1].clone() }];
        compare(&base, &actual).verdict
    };
    assert_eq!(with(None), Ruling::CannotTell);
    assert_eq!(with(Some(Strength::Five)), Ruling::Fine);
    assert_eq!(with(Some(Strength::Weak)), Ruling::NotFine);
}

#[test]
fn what_stands_in_the_bowls_twice_is_added_up() {
    let base = [
        Part::new("tomatoes", Some(10.0), Some(Unit::Cup), Role::Tomato),
        Part::new("onion", Some(4.0), Some(Unit::Cup), Role::LowAcid),
        Part::new("vinegar 5 %", Some(2.0), Some(Unit::Cup), Role::Acid),
    ];
    let onion = |cups: f64| Part { amount: Some(cups), ..base[1].clone() };
    let bowls = [base[0].clone(), onion(3.0), base[2].clone(), onion(2.5)];
    assert_eq!(compare(&base, &bowls).verdict, Ruling::NotFine);
    let ways = ways_back(&base, &bowls, false);
    assert_eq!(ways[0].len(), 1);
    assert_eq!(ways[0][0].says, "take out 1 ½ cups of onion");
    let back = bodega_core::recipe::back::changed(&base, &bowls, &ways[0]);
    assert_eq!(compare(&base, &back).verdict, Ruling::Fine);
    // More than one of the two bowls holds comes out of both.
    let much = [base[0].clone(), onion(1.0), base[2].clone(), onion(9.0)];
    for way in ways_back(&base, &much, false) {
        let back = bodega_core::recipe::back::changed(&base, &much, &way);
        assert_eq!(compare(&base, &back).verdict, Ruling::Fine, "{way:?}");
    }
}

#[test]
fn a_client_cannot_call_corn_a_spice_nor_vinegar_a_vegetable() {
    let base = [
        Part::new("tomatoes", Some(10.0), Some(Unit::Cup), Role::Tomato),
        Part::new("corn", Some(2.0), Some(Unit::Cup), Role::Free),
        Part::new("vinegar 5 %", Some(2.0), Some(Unit::Cup), Role::LowAcid),
    ];
    let with = |corn: f64, vinegar: f64| {
        let mut bowls = base.clone();
        (bowls[1].amount, bowls[2].amount) = (Some(corn), Some(vinegar));
        compare(&base, &bowls).verdict
    };
    assert_eq!(with(2.0, 2.0), Ruling::Fine);
    assert_eq!(with(3.0, 2.0), Ruling::NotFine, "corn");
    assert_eq!(with(2.0, 1.0), Ruling::NotFine, "vinegar");
    // On the card too: what is low in acid is rounded down, acid up.
    let card = scaled(&base, &exact(1.03));
    assert_eq!((card[1].amount, card[2].amount), (Some(2.0), Some(2.25)));
}

#[test]
fn recipes_that_were_ticked_before_are_asked_who_printed_them() {
    let old = RecipeText { kind: None, ..row("Chile salsa").text() };
    let seen = stands(&old, at(2640.0));
    assert_eq!((seen.standing, seen.missing.len()), (Standing::Unchecked, 2));
    assert_eq!(seen.missing[0], "Say who printed it.");
    assert!(seen.missing[1].contains("judged anew"), "{:?}", seen.missing);
}

/// Everything that a page says of the recipes of the table, each sentence once, and what the reader asks of lines.
pub fn everything_said() -> Vec<String> {
    let mut said: Vec<String> = Vec::new();
    let mut say = |line: String| {
        if !said.contains(&line) {
            said.push(line);
        }
    };
    for row in rows() {
        let text = row.text();
        let seen = stands(&text, at(row.feet));
        for finding in &seen.findings {
            say(finding.message.clone());
            say(format!("    {}\n    {}", finding.why, finding.do_now));
        }
        let repeated = seen.findings.iter().find(|finding| seen.says.contains(&finding.message));
        let says = repeated.map_or(seen.says.clone(), |finding| seen.says.replace(&finding.message, "…"));
        say(format!("[{}] {says}", seen.standing.word()));
        seen.acid.into_iter().for_each(&mut say);
        let unsaid = RecipeText {
            kind: None,
            title: String::new(),
            edition: String::new(),
            page: String::new(),
            ..text
        };
        let unticked = RecipeText { process_ticked: false, ..unsaid };
        stands(&unticked, None).missing.into_iter().for_each(&mut say);
    }
    let lines = include_str!("../data/recipe_lines_own.csv");
    let mut reader = csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(lines.as_bytes());
    for line in reader.records().map(Result::unwrap) {
        let asks = line::read(&line[0], Decimal::Point).asks;
        if !asks.is_empty() {
            say(format!("{}: {}", &line[0], asks.join(" ")));
        }
    }
    said
}

#[test]
fn an_old_line_that_speaks_of_each_jar_is_asked_where_it_stands() {
    for (name, done) in [("bottled lemon juice per quart", None), ("bottled lemon juice", Some("per quart"))]
    {
        let mut text = row("Acid in each quart").text();
        let place = text.lines.len() - 1;
        let acid = Part::new(name, Some(40.0), Some(Unit::Tablespoon), Role::Acid);
        text.lines[place] = RecipeLine { part: acid, preparation: done.map(str::to_owned), ticked: true };
        let seen = stands(&text, at(500.0));
        assert_eq!(seen.ruling, Ruling::CannotTell, "{name}");
        assert!(words(&seen).contains("In every quart, or in the whole batch?"), "{}", words(&seen));
        let asks = line_asks(&text);
        assert_eq!(
            (asks[0].place, asks[0].about, asks[0].jar),
            (place, LineAbout::EachJar, Some(JarSize::Quart))
        );
        assert_eq!(asks[0].name, "bottled lemon juice");
    }
    assert!(line_asks(&row("Acid in each quart").text()).is_empty(), "what was answered is not asked again");
    let packet = row("Packet with its acid inside").text();
    assert_eq!(line_asks(&packet)[0].about, LineAbout::Packet);
}

#[test]
fn a_packet_from_before_its_label_was_asked_about_is_neither_alarm_nor_claim() {
    let text = row("Packet whose label nobody read").text();
    let of = |labels_asked: bool| {
        let recipe = CaseRecipe {
            base: parts_of(&text),
            actual: Some(parts_of(&text)),
            mixed: false,
            makes: None,
            process: text.process.clone(),
            checked: Some(true),
            is_all_its_acid: Some(true),
            dosed: None,
            labels_asked,
        };
        let found = judge(&Case { recipe: Some(recipe), ..Case::default() }).findings;
        found.into_iter().filter(|found| found.code == Code::RecipeUntested).collect::<Vec<_>>()
    };
    assert_eq!(of(false), []);
    assert!(of(true)[0].cannot_tell && of(true)[0].message.contains("Where is the acid"));
    assert_eq!(acid_words(&parts_of(&text)), None, "that its acid is in it, nobody said");
}

#[test]
fn a_short_process_sterilizes_no_jar_and_each_jar_takes_what_its_recipe_says() {
    let with = |minutes: u32, doses: Vec<Part>| {
        let mut load = load(Method::BoilingWater, minutes, vec![jar(1, 1, JarSize::Pint)], &[]);
        load.jars[0].product = Product::Recipe;
        let process = process(&format!("pint {minutes}@1000")).unwrap();
        let recipe = BatchRecipe {
            recipe: RecipeId(1),
            name: "Salsa".to_owned(),
            source: String::new(),
            makes: None,
            process: Some(process),
            doses,
        };
        load.recipes = vec![(load.jars[0].batch, recipe)];
        load
    };
    assert!(before_filling(&with(9, Vec::new())).unwrap().contains("sterilized first"));
    assert_eq!(before_filling(&with(10, Vec::new())), None);
    let mut filled = with(9, Vec::new());
    filled.jars[0].filled = true;
    assert_eq!(before_filling(&filled), None, "it is too late to say it");
    // What stands on the bench and at the kettle.
    let dosed = with(15, vec![lemon(2.0, Unit::Tablespoon, JarSize::Quart)]);
    let dose = &doses(&dosed, &[], Spoons::Us)[0];
    assert_eq!((dose.to_add.as_deref(), dose.acid_name.as_str()), (Some("1 Tbsp"), "bottled lemon juice"));
    let pot = &doses(&with(15, Vec::new()), &[], Spoons::Us)[0];
    assert_eq!((&pot.to_add, &pot.acid), (&None, &None));
}
