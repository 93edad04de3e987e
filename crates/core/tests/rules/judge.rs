//! The judge speaks up for every known mistake, and is silent on correct work.

use std::collections::BTreeMap;

use bodega_core::judge::case::CaseCanner;
use bodega_core::judge::case::{
    Addition, Case, CaseAcid, CaseJar, CaseRecipe, Damage, Heating, Ingredient, LogEvent, LogLine, OtherJars,
    PhReading, PhSample, Ripeness, Vine,
};
use bodega_core::judge::judge;
use bodega_model::canner::cover::UnderJars;
use bodega_model::contents::{Added, leaves};
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::acid::{Agent, per_jar};
use bodega_model::jars::kinds::{AcidSource, JarKind, LidState};
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Finding, Fix, Ruling, Severity};
use bodega_model::judge::question::Ask;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::amounts::Unit;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Length, Temperature, Time, cups, pounds};
use bodega_model::recipe::part::{Part, Role};
use bodega_model::recipe::process::{PrintedTime, RecipeProcess};
use bodega_model::records::recipe::Makes;
use bodega_model::tables::process::{Medium, Method, Pack, Product, Query, headspace, look_up};
use bodega_model::towel::liquid::LiquidLost;
use proptest::prelude::*;
use uom::si::length::inch;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::{hour, minute};

fn minutes(value: f64) -> Time {
    Time::new::<minute>(value)
}

fn celsius(value: f64) -> Option<Temperature> {
    Some(Temperature::new::<degree_celsius>(value))
}

fn log(lines: &[(f64, LogEvent)]) -> Vec<LogLine> {
    lines.iter().map(|(at, event)| LogLine { at: minutes(*at), event: *event }).collect()
}

fn doses(agent: Agent, sizes: &[(JarSize, u32)]) -> CaseAcid {
    CaseAcid {
        agent: Some(agent),
        source: Some(AcidSource::Bottled),
        per_jar_tsp: Some(sizes.iter().map(|(jar, _)| (*jar, per_jar(agent, *jar).as_f64())).collect()),
        pot_dose_tsp: None,
        bottle_age_months: Some(2.0),
    }
}

struct Day {
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    heating: Heating,
    feet: f64,
    minutes: f64,
    psi: Option<f64>,
    agent: Agent,
    jars: Vec<(JarSize, u32)>,
}

/// A day done right from the vine to the shelf.
fn done_right(day: &Day) -> Case {
    Case {
        product: Some(day.product),
        medium: day.medium,
        pack: Some(day.pack),
        heating: Some(day.heating),
        altitude: Some(Altitude::from_feet(day.feet).unwrap()),
        minutes: Some(minutes(day.minutes)),
        psi: day.psi,
        headspace: headspace(day.product),
        water_cover: Some(Length::new::<inch>(2.0)),
        canner: CaseCanner { gauge_tested: Some(true), ..CaseCanner::default() },
        liquid_lost: None,
        all_jars: None,
        skins_on: None,
        unknown_additions: Vec::new(),
        jars: Some(
            day.jars
                .iter()
                .map(|(jar, count)| CaseJar {
                    jar: *jar,
                    count: *count,
                    kind: Some(JarKind::Mason),
                    lid: Some(LidState::New),
                    nicked: None,
                })
                .collect(),
        ),
        acid: Some(doses(day.agent, &day.jars)),
        fruit: bodega_core::judge::case::CaseFruit {
            ripeness: Some(Ripeness::FirmRipe),
            vine: Some(Vine::Living),
            damage: Some(Damage::Blemish),
            weight: Some(pounds(22.0)),
            ..Default::default()
        },
        additions: Some(vec![
            Addition { what: Ingredient::Salt, amount: cups(0.1) },
            Addition { what: Ingredient::DriedHerb, amount: cups(0.1) },
            Addition { what: Ingredient::BasilLeaf, amount: leaves(6.0) },
        ]),
        temperatures: bodega_core::judge::case::Temperatures {
            jar: celsius(55.0),
            food: celsius(85.0),
            water: celsius(82.0),
        },
        boil: log(&[(0.0, LogEvent::In), (20.0, LogEvent::Boil), (20.0 + day.minutes, LogEvent::End)]),
        load: Vec::new(),
        rest: Some(minutes(5.0)),
        seal_check_after: Some(Time::new::<hour>(14.0)),
        reprocess_after: None,
        kept_cold: None,
        rings_on_in_storage: Some(false),
        ph: Some(PhReading {
            value: 4.3,
            sample: Some(PhSample::Dosed),
            temperature: celsius(25.0),
            compensated: Some(false),
            calibrated_today: Some(true),
        }),
        recipe: None,
    }
}

/// Twelve days with the minutes of USDA Guide 3 and NCHFP (paste), typed here from memory.
fn good_days() -> Vec<Day> {
    use Heating::{AtmosphericSteam, BoilingWater, PressureDial, PressureWeighted};
    use JarSize::{HalfPint, Pint, PintAndHalf, Quart};
    use Medium::{Juice, None as Dry, Water};
    use Pack::{Hot, Raw};
    let lemon = Agent::BottledLemonJuice;
    let day = |product, medium, pack, heating, feet, minutes, agent, jars: &[(JarSize, u32)]| Day {
        product,
        medium,
        pack,
        heating,
        feet,
        minutes,
        psi: match heating {
            PressureDial => Some(11.0),
            PressureWeighted => Some(15.0),
            _ => None,
        },
        agent,
        jars: jars.to_vec(),
    };
    vec![
        day(Product::Whole, Some(Water), Raw, BoilingWater, 0.0, 45.0, lemon, &[(Quart, 7)]),
        day(Product::Whole, Some(Water), Hot, BoilingWater, 500.0, 40.0, lemon, &[(Pint, 9)]),
        day(Product::Whole, Some(Dry), Raw, BoilingWater, 0.0, 85.0, Agent::CitricAcid, &[(Quart, 7)]),
        day(Product::Whole, Some(Juice), Raw, BoilingWater, 2000.0, 90.0, lemon, &[(Pint, 4), (Quart, 2)]),
        day(Product::Crushed, None, Hot, BoilingWater, 4000.0, 55.0, lemon, &[(Quart, 7)]),
        day(Product::Crushed, None, Hot, BoilingWater, 900.0, 45.0, lemon, &[(PintAndHalf, 6)]),
        day(Product::Juice, None, Hot, BoilingWater, 7000.0, 50.0, lemon, &[(Pint, 9)]),
        day(Product::VegetableJuice, None, Hot, BoilingWater, 0.0, 40.0, lemon, &[(Quart, 7)]),
        day(
            Product::Sauce,
            None,
            Hot,
            BoilingWater,
            2640.0,
            40.0,
            Agent::Vinegar5Pct,
            &[(HalfPint, 5), (Pint, 5)],
        ),
        day(Product::Paste, None, Hot, BoilingWater, 0.0, 45.0, Agent::CitricAcid, &[(HalfPint, 9)]),
        day(Product::Sauce, None, Hot, AtmosphericSteam, 1000.0, 40.0, lemon, &[(Quart, 7)]),
        day(Product::Whole, Some(Water), Raw, PressureDial, 0.0, 10.0, lemon, &[(Quart, 7)]),
        day(Product::Crushed, None, Hot, PressureWeighted, 3000.0, 15.0, lemon, &[(Quart, 7)]),
    ]
}

fn stops_and_warnings(case: &Case) -> Vec<(Code, String)> {
    judge(case)
        .findings
        .into_iter()
        .filter(|finding| finding.severity != Severity::Note)
        .map(|finding| (finding.code, finding.message))
        .collect()
}

#[test]
fn correct_days_pass_without_a_word() {
    for (place, day) in good_days().iter().enumerate() {
        let case = done_right(day);
        assert_eq!(stops_and_warnings(&case), [], "day {place}");
        assert!(judge(&case).ready, "day {place}");
    }
}

#[test]
fn the_same_minutes_are_right_or_short_by_what_the_fruit_lies_in() {
    let mut case = done_right(&good_days()[0]);
    case.medium = Some(Medium::None);
    let verdict = judge(&case);
    assert_eq!(codes(&verdict.findings), [Code::ProcessShort]);
    assert!(verdict.findings[0].message.contains("needs 85"), "{}", verdict.findings[0].message);
    assert!(!verdict.ready);
}

fn codes(findings: &[Finding]) -> Vec<Code> {
    findings.iter().map(|finding| finding.code).collect()
}

type Mistake = (Code, fn(&mut Case));

fn other(product: Product, medium: Option<Medium>, pack: Pack, jar: JarSize) -> OtherJars {
    OtherJars { product: Some(product), medium, pack: Some(pack), jar: Some(jar), minutes: None }
}

fn acid(case: &mut Case) -> &mut CaseAcid {
    case.acid.as_mut().unwrap()
}

fn jar(case: &mut Case) -> &mut CaseJar {
    &mut case.jars.as_mut().unwrap()[0]
}

/// One mistake for every code, made on quarts of whole tomatoes in water at 2,000 ft, where 50 minutes are right.
fn in_cups(name: &str, amount: f64, role: Role) -> Part {
    Part::new(name, Some(amount), Some(Unit::Cup), role)
}

/// A checked recipe in quarts with a time of its own, and what was changed in the bowls.
fn salsa(change: fn(&mut Vec<Part>)) -> CaseRecipe {
    let base = vec![
        in_cups("tomatoes", 8.0, Role::Tomato),
        in_cups("peppers", 4.0, Role::LowAcid),
        in_cups("bottled lemon juice", 2.0, Role::Acid),
    ];
    let mut bowls = base.clone();
    change(&mut bowls);
    let time = PrintedTime {
        jar: JarSize::Quart,
        method: Method::BoilingWater,
        up_to_ft: Some(6000.0),
        above: false,
        minutes: Minutes(40),
        psi: None,
    };
    // As the quarts of whole tomatoes that it stands in for.
    let process = RecipeProcess { pack: Pack::Raw, headspace_in: 0.5, altitude: None, times: vec![time] };
    CaseRecipe {
        base,
        actual: Some(bowls),
        mixed: false,
        makes: Some(Makes { jar: JarSize::Quart, low: 6.0, high: 7.0 }),
        process: Some(process),
        checked: Some(true),
        is_all_its_acid: Some(true),
        dosed: None,
        labels_asked: true,
    }
}

/// The same, tested in pints alone.
fn in_pints(mut recipe: CaseRecipe) -> CaseRecipe {
    recipe
        .process
        .iter_mut()
        .flat_map(|process| &mut process.times)
        .for_each(|time| time.jar = JarSize::Pint);
    recipe
}

/// Some of something that nobody measures.
fn add(case: &mut Case, what: Ingredient) {
    case.additions = Some(vec![Added::free(what).counted().unwrap()]);
}

const MISTAKES: &[Mistake] = &[
    (Code::NoAcid, |case| case.acid = None),
    (Code::NoAcid, |case| acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 0.0)]))),
    // Half the dose: a pint's tablespoon in a quart.
    (Code::AcidShort, |case| acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 3.0)]))),
    // A teaspoon a quart.
    (Code::AcidShort, |case| acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 1.0)]))),
    (Code::FreshCitrus, |case| acid(case).source = Some(AcidSource::Fresh)),
    // Stirred in for six jars; the pot gave seven.
    (Code::PotDoseShort, |case| {
        acid(case).per_jar_tsp = None;
        acid(case).pot_dose_tsp = Some(36.0);
    }),
    // The sea-level time, 2,000 ft up.
    (Code::ProcessShort, |case| case.minutes = Some(minutes(45.0))),
    (Code::NoTestedProcess, |case| {
        case.product = Some(Product::Crushed);
        case.medium = None;
        case.pack = Some(Pack::Raw);
    }),
    (Code::NoTestedProcess, |case| {
        jar(case).jar = JarSize::HalfGallon;
        acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::HalfGallon, 12.0)]));
    }),
    (Code::NoTestedProcess, |case| case.altitude = Some(Altitude::from_feet(11_000.0).unwrap())),
    (Code::NoTestedProcess, |case| {
        case.additions = Some(vec![Addition { what: Ingredient::Wine, amount: cups(1.0) }]);
    }),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Corn)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Beans)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Zucchini)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::OtherVegetable)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::FreshHerb)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Butter)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Dairy)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::Pesto)),
    (Code::LowAcidAddition, |case| add(case, Ingredient::BakingSoda)),
    (Code::NoTestedProcess, |case| add(case, Ingredient::TinnedPaste)),
    (Code::NoTestedProcess, |case| add(case, Ingredient::Aspirin)),
    (Code::Thickener, |case| add(case, Ingredient::Starch)),
    (Code::Thickener, |case| add(case, Ingredient::Pasta)),
    (Code::Thickener, |case| add(case, Ingredient::Rice)),
    // Water over whole tomatoes is what they lie in; in crushed ones it thins the acid.
    (Code::NoTestedProcess, |case| {
        (case.product, case.medium, case.pack) = (Some(Product::Crushed), None, Some(Pack::Hot));
        add(case, Ingredient::Water);
    }),
    (Code::NoAcid, |case| {
        (acid(case).agent, acid(case).source) = (Some(Agent::Vinegar5Pct), Some(AcidSource::Weak));
        acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 12.0)]));
    }),
    (Code::AcidMore, |case| acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 12.0)]))),
    (Code::LidOther, |case| jar(case).lid = Some(LidState::OnePiece)),
    (Code::LidOther, |case| jar(case).lid = Some(LidState::Reusable)),
    (Code::SkinsOn, |case| case.skins_on = Some(true)),
    // Fifteen minutes, then the full forty-five: the base of a steam canner holds no water for an hour.
    (Code::SteamLimit, |case| {
        case.heating = Some(Heating::AtmosphericSteam);
        (case.altitude, case.minutes) = (Altitude::from_feet(500.0).ok(), Some(minutes(45.0)));
        case.boil = log(&[
            (0.0, LogEvent::Boil),
            (15.0, LogEvent::Lost),
            (20.0, LogEvent::Boil),
            (65.0, LogEvent::End),
        ]);
    }),
    // Full for a quarter of an hour, then dry, and nobody filled it.
    (Code::BoilLost, |case| {
        case.boil = log(&[(0.0, LogEvent::Boil), (15.0, LogEvent::Dry), (20.0, LogEvent::End)]);
    }),
    (Code::CannerUnsuited, |case| case.canner.multi_cooker = Some(true)),
    (Code::BareBottom, |case| case.canner.under_jars = Some(UnderJars::Nothing)),
    (Code::GaugeUntested, |case| {
        (case.product, case.medium, case.pack) = (Some(Product::Crushed), None, Some(Pack::Hot));
        (case.heating, case.minutes, case.psi) =
            (Some(Heating::PressureDial), Some(minutes(20.0)), Some(6.0));
        case.canner.gauge_tested = None;
    }),
    (Code::LiquidGone, |case| case.liquid_lost = Some(LiquidLost::Half)),
    (Code::LiquidLow, |case| case.liquid_lost = Some(LiquidLost::Some)),
    (Code::NoTestedProcess, |case| case.fruit.kind = Some(Kind::Tomatillo)),
    (Code::NoTestedProcess, |case| {
        jar(case).jar = JarSize::Gallon;
        acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Gallon, 24.0)]));
    }),
    (Code::NextSizeUp, |case| {
        jar(case).jar = JarSize::Ml720;
        acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Ml720, 5.0)]));
    }),
    (Code::AltitudeMissing, |case| case.altitude = None),
    (Code::SteamLimit, |case| case.heating = Some(Heating::AtmosphericSteam)),
    (Code::BoilLost, |case| {
        case.boil = log(&[
            (0.0, LogEvent::In),
            (20.0, LogEvent::Boil),
            (45.0, LogEvent::Lost),
            (50.0, LogEvent::Boil),
            (75.0, LogEvent::End),
        ]);
    }),
    (Code::BoilLost, |case| {
        case.boil = log(&[(0.0, LogEvent::In), (20.0, LogEvent::Boil), (30.0, LogEvent::Lost)]);
    }),
    // Counted from the moment the jars went in.
    (Code::ProcessShort, |case| {
        case.boil = log(&[(0.0, LogEvent::In), (22.0, LogEvent::Boil), (50.0, LogEvent::End)]);
    }),
    (Code::MixedLoadShort, |case| {
        case.load = vec![other(Product::Whole, Some(Medium::None), Pack::Raw, JarSize::Pint)];
    }),
    (Code::MixedLoadShort, |case| {
        case.load = vec![OtherJars {
            product: None,
            medium: None,
            pack: None,
            jar: None,
            minutes: Some(minutes(55.0)),
        }];
    }),
    (Code::NotProcessed, |case| case.heating = Some(Heating::None)),
    (Code::JarFragile, |case| jar(case).kind = Some(JarKind::Packer)),
    (Code::JarUnsuited, |case| jar(case).kind = Some(JarKind::Other)),
    (Code::JarUnsuited, |case| jar(case).kind = Some(JarKind::WireBail)),
    (Code::FrostKilledVine, |case| case.fruit.vine = Some(Vine::FrostKilled)),
    (Code::FrostKilledVine, |case| case.fruit.vine = Some(Vine::Dead)),
    (Code::FrostKilledVine, |case| case.fruit.vine = Some(Vine::Blighted)),
    (Code::Overripe, |case| case.fruit.ripeness = Some(Ripeness::Overripe)),
    (Code::Mouldy, |case| case.fruit.damage = Some(Damage::Mouldy)),
    (Code::LowAcidAddition, |case| {
        case.additions = Some(vec![Addition { what: Ingredient::Mushroom, amount: cups(2.0) }]);
    }),
    // A cup of basil is not a leaf a jar.
    (Code::LowAcidAddition, |case| {
        case.additions = Some(vec![Addition { what: Ingredient::BasilLeaf, amount: cups(1.0) }]);
    }),
    (Code::RecipeRatio, |case| case.recipe = Some(salsa(|bowls| bowls[1].amount = Some(6.0)))),
    (Code::RecipeRatio, |case| case.recipe = Some(salsa(|bowls| bowls[2].amount = Some(1.0)))),
    (Code::RecipeUntested, |case| {
        case.recipe = Some(CaseRecipe { process: None, ..salsa(|_| {}) });
    }),
    (Code::RecipeUntested, |case| {
        case.recipe = Some(CaseRecipe { checked: Some(false), ..salsa(|_| {}) });
    }),
    (Code::NoTestedProcess, |case| {
        let mut hot = salsa(|_| {});
        hot.process.iter_mut().for_each(|process| process.pack = Pack::Hot);
        case.recipe = Some(hot);
    }),
    (Code::RecipeJar, |case| case.recipe = Some(in_pints(salsa(|_| {})))),
    (Code::Thickener, |case| {
        case.recipe = Some(salsa(|bowls| bowls.push(in_cups("flour", 1.0, Role::Thickener))));
    }),
    (Code::RecipeSwap, |case| {
        case.recipe = Some(salsa(|bowls| {
            bowls.push(Part::new("citric acid", Some(1.0), Some(Unit::Teaspoon), Role::Acid));
        }));
    }),
    (Code::VegetableRatio, |case| {
        case.product = Some(Product::VegetableJuice);
        case.medium = None;
        case.pack = Some(Pack::Hot);
        case.additions = Some(vec![
            Addition { what: Ingredient::Pepper, amount: cups(2.0) },
            Addition { what: Ingredient::Onion, amount: cups(1.5) },
        ]);
    }),
    (Code::ReprocessLate, |case| case.reprocess_after = Some(Time::new::<hour>(30.0))),
    (Code::PhHigh, |case| case.ph.as_mut().unwrap().value = 4.7),
    (Code::LidReused, |case| jar(case).lid = Some(LidState::Reused)),
    (Code::RimNicked, |case| jar(case).nicked = Some(true)),
    (Code::Headspace, |case| case.headspace = Some(Length::new::<inch>(0.125))),
    (Code::Headspace, |case| case.headspace = Some(Length::new::<inch>(1.0))),
    (Code::WaterCover, |case| case.water_cover = Some(Length::new::<inch>(1.5))),
    (Code::WaterLow, |case| case.water_cover = Some(Length::new::<inch>(0.5))),
    (Code::ThermalGap, |case| case.temperatures.jar = celsius(15.0)),
    (Code::PhUncalibrated, |case| case.ph.as_mut().unwrap().calibrated_today = Some(false)),
    (Code::PhUncompensated, |case| case.ph.as_mut().unwrap().temperature = celsius(60.0)),
    (Code::LitreAsQuart, |case| {
        jar(case).jar = JarSize::Litre;
        acid(case).per_jar_tsp = Some(BTreeMap::from([(JarSize::Litre, 6.5)]));
    }),
    (Code::Bruised, |case| case.fruit.damage = Some(Damage::Bruised)),
    (Code::RestShort, |case| case.rest = Some(minutes(1.0))),
    (Code::SealCheckEarly, |case| case.seal_check_after = Some(Time::new::<hour>(2.0))),
    (Code::RingsOn, |case| case.rings_on_in_storage = Some(true)),
    (Code::BottleOld, |case| acid(case).bottle_age_months = Some(14.0)),
    (Code::Underripe, |case| case.fruit.ripeness = Some(Ripeness::Underripe)),
    (Code::MediumMissing, |case| case.medium = None),
];

/// What is found for every mistake that is made here.
pub fn every_mistake_judged() -> Vec<Finding> {
    let judged = MISTAKES.iter().flat_map(|(_, mistake)| {
        let mut case = at_two_thousand_feet();
        mistake(&mut case);
        judge(&case).findings
    });
    judged.collect()
}

pub fn at_two_thousand_feet() -> Case {
    done_right(&Day { feet: 2000.0, minutes: 50.0, ..good_days().remove(0) })
}

#[test]
fn far_more_jars_than_a_recipe_fills_are_minded() {
    let mut case = at_two_thousand_feet();
    case.recipe =
        Some(CaseRecipe { makes: Some(Makes { jar: JarSize::Pint, low: 8.0, high: 10.0 }), ..salsa(|_| {}) });
    let verdict = judge(&case);
    assert_eq!(codes(&verdict.findings), [Code::RecipeRatio]);
    assert_eq!((verdict.findings[0].severity, verdict.ready), (Severity::Warn, true));
}

#[test]
fn every_mistake_is_found_and_nothing_else_is() {
    for (place, (code, mistake)) in MISTAKES.iter().enumerate() {
        let mut case = at_two_thousand_feet();
        mistake(&mut case);
        let verdict = judge(&case);
        assert_eq!(codes(&verdict.findings), [*code], "mistake {place}");
        let open = code.severity() == Severity::Stop || *code == Code::MediumMissing;
        assert_eq!(verdict.ready, !open, "mistake {place}");
        assert_eq!(verdict.ready, verdict.ruling == Ruling::Fine);
    }
    for code in Code::ALL {
        assert!(MISTAKES.iter().any(|(made, _)| made == code), "no mistake is made for {}", code.word());
    }
}

/// A case of which only what the process depends on is known.
fn bare() -> Case {
    let full = at_two_thousand_feet();
    Case {
        product: full.product,
        medium: full.medium,
        pack: full.pack,
        heating: full.heating,
        minutes: full.minutes,
        jars: full.jars,
        acid: full.acid,
        altitude: full.altitude,
        additions: Some(Vec::new()),
        ..Case::default()
    }
}

fn asks(case: &Case) -> Vec<Ask> {
    judge(case).questions.iter().map(|question| question.ask).collect()
}

type Untold = (Ask, Option<Code>, fn(&mut Case));

/// Everything that the process depends on, taken away.
const UNTOLD: &[Untold] = &[
    (Ask::Product, Some(Code::NoTestedProcess), |case| case.product = None),
    (Ask::Medium, Some(Code::MediumMissing), |case| case.medium = None),
    (Ask::Pack, None, |case| case.pack = None),
    (Ask::Additions, None, |case| case.additions = None),
    (Ask::Jars, Some(Code::NoTestedProcess), |case| case.jars = None),
    (Ask::Agent, None, |case| acid(case).agent = None),
    (Ask::Dose, Some(Code::NoAcid), |case| acid(case).per_jar_tsp = None),
    (Ask::Method, None, |case| case.heating = None),
    (Ask::Altitude, Some(Code::AltitudeMissing), |case| case.altitude = None),
    (Ask::Minutes, None, |case| case.minutes = None),
];

#[test]
fn what_was_not_said_is_neither_a_mistake_nor_fine() {
    assert_eq!(judge(&bare()).findings, []);
    assert_eq!((judge(&bare()).ruling, judge(&bare()).ready), (Ruling::Fine, true));
    for (ask, code, take) in UNTOLD {
        let mut less = bare();
        take(&mut less);
        let verdict = judge(&less);
        assert_eq!(asks(&less), [*ask]);
        assert_eq!((verdict.ruling, verdict.ready), (Ruling::CannotTell, false), "{ask}");
        assert!(verdict.findings.iter().all(|found| found.cannot_tell), "{:?}", verdict.findings);
        assert_eq!(verdict.findings.first().map(|found| found.code), *code, "{ask}");
        assert!(verdict.questions[0].says.ends_with('?'));
    }
    // No acid at all is a mistake as well as a question.
    let without = Case { acid: None, ..bare() };
    assert_eq!((asks(&without), judge(&without).ruling), (vec![Ask::Dose], Ruling::NotFine));
    // What is known to be wrong outweighs what is not known.
    let short = Case { minutes: Some(minutes(45.0)), additions: None, ..bare() };
    assert_eq!((judge(&short).ruling, asks(&short)), (Ruling::NotFine, vec![Ask::Additions]));
    for (ask, found) in [
        (Ask::Weight, {
            let what = Addition { what: Ingredient::Celery, amount: cups(1.0) };
            let juice = done_right(&good_days()[7]);
            let fruit = bodega_core::judge::case::CaseFruit::default();
            Case { additions: Some(vec![what]), fruit, ..juice }
        }),
        (
            Ask::Pounds,
            Case {
                psi: None,
                minutes: Some(minutes(20.0)),
                boil: Vec::new(),
                ..done_right(&good_days()[12])
            },
        ),
        (Ask::OtherJars, {
            let unknown = OtherJars { product: None, medium: None, pack: None, jar: None, minutes: None };
            Case { load: vec![unknown], ..bare() }
        }),
    ] {
        assert_eq!((asks(&found), judge(&found).ruling), (vec![ask], Ruling::CannotTell));
    }
}

#[test]
fn the_dose_of_one_size_does_not_speak_for_another() {
    let mut case = bare();
    case.jars.as_mut().unwrap().push(CaseJar {
        jar: JarSize::Pint,
        count: 2,
        kind: None,
        lid: None,
        nicked: None,
    });
    assert_eq!(asks(&case), [Ask::Dose]);
    assert_eq!(codes(&judge(&case).findings), [Code::AcidShort]);
}

#[test]
fn a_time_too_short_anywhere_is_a_stop_without_the_altitude() {
    let dry = |given: f64| {
        let medium = Some(Medium::None);
        let case =
            Case { altitude: None, medium, minutes: Some(minutes(given)), pack: Some(Pack::Raw), ..bare() };
        judge(&case)
    };
    let verdict = dry(45.0);
    assert_eq!(verdict.ruling, Ruling::NotFine);
    assert!(verdict.findings.iter().any(|found| found.message.contains("85 at the least")), "{verdict:?}");
    assert_eq!(dry(85.0).ruling, Ruling::CannotTell);
    // Half-gallons and a raw pack of crushed fruit have no process at any height.
    let raw = Case { altitude: None, product: Some(Product::Crushed), medium: None, ..bare() };
    assert_eq!(judge(&raw).ruling, Ruling::NotFine);
}

#[test]
fn pounds_decide_under_pressure() {
    // USDA Guide 3, from memory: crushed, dial gauge at 2,001 to 4,000 ft: 20 min at 7 lb, 15 min at 12.
    let case = |psi: Option<f64>, given: f64| Case {
        product: Some(Product::Crushed),
        medium: None,
        pack: Some(Pack::Hot),
        heating: Some(Heating::PressureDial),
        altitude: Altitude::from_feet(3000.0).ok(),
        minutes: Some(minutes(given)),
        psi,
        canner: CaseCanner { gauge_tested: Some(true), ..CaseCanner::default() },
        ..bare()
    };
    for (psi, given, ruling) in [
        (7.0, 20.0, Ruling::Fine),
        (7.0, 15.0, Ruling::NotFine),
        (11.9, 15.0, Ruling::NotFine),
        (12.0, 15.0, Ruling::Fine),
        (15.0, 15.0, Ruling::Fine),
        (15.0, 14.0, Ruling::NotFine),
        (6.0, 20.0, Ruling::NotFine),
        (6.9, 60.0, Ruling::NotFine),
    ] {
        assert_eq!(judge(&case(Some(psi), given)).ruling, ruling, "{given} min at {psi} lb");
    }
    let low = judge(&case(Some(6.0), 20.0));
    assert_eq!(codes(&low.findings), [Code::ProcessShort]);
    assert!(low.findings[0].message.contains("7 lb for 20 min or 12 lb for 15 min"), "{low:?}");
    let Some(Fix::UsePressure { options }) = &low.findings[0].fix else { panic!() };
    assert_eq!(options.len(), 2);
    // Without the pounds the longest time is held against the minutes, and the pounds are asked for.
    assert_eq!(
        (judge(&case(None, 20.0)).ruling, asks(&case(None, 20.0))),
        (Ruling::CannotTell, vec![Ask::Pounds])
    );
    assert_eq!(judge(&case(None, 19.0)).ruling, Ruling::NotFine);
    // A lost pressure is told in words of pressure.
    let boil = log(&[(0.0, LogEvent::Boil), (9.0, LogEvent::Lost)]);
    let lost = judge(&Case { boil, ..case(Some(7.0), 20.0) });
    assert_eq!(codes(&lost.findings), [Code::BoilLost]);
    let text = format!("{} {}", lost.findings[0].message, lost.findings[0].do_now);
    assert!(text.contains("pressure") && !text.contains("boil"), "{text}");
}

#[test]
fn a_boil_that_dies_after_its_full_time_is_not_a_lost_boil() {
    let at_end = |events: &[(f64, LogEvent)]| Case { boil: log(events), ..bare() };
    assert_eq!(judge(&at_end(&[(0.0, LogEvent::Boil), (50.0, LogEvent::Lost)])).findings, []);
    assert_eq!(
        judge(&at_end(&[(0.0, LogEvent::Boil), (50.0, LogEvent::Lost), (60.0, LogEvent::End)])).findings,
        []
    );
    let early = judge(&at_end(&[(0.0, LogEvent::Boil), (49.0, LogEvent::Lost)]));
    assert_eq!(codes(&early.findings), [Code::BoilLost]);
}

#[test]
fn a_jar_gets_its_own_dose_and_its_share_of_the_pot() {
    let dosed = |own: Option<f64>, pot: f64| {
        let mut case = bare();
        acid(&mut case).per_jar_tsp = Some(own.into_iter().map(|tsp| (JarSize::Quart, tsp)).collect());
        acid(&mut case).pot_dose_tsp = Some(pot);
        let verdict = judge(&case);
        (verdict.ruling, codes(&verdict.findings))
    };
    // Seven quarts of lemon juice: 42 tsp.
    assert_eq!(dosed(None, 42.0), (Ruling::Fine, vec![]));
    assert_eq!(dosed(None, 41.0), (Ruling::NotFine, vec![Code::PotDoseShort]));
    assert_eq!(dosed(Some(3.0), 21.0), (Ruling::Fine, vec![]));
    assert_eq!(dosed(Some(3.0), 20.0), (Ruling::NotFine, vec![Code::AcidShort]));
    assert_eq!(dosed(Some(0.0), 0.0), (Ruling::NotFine, vec![Code::NoAcid]));
    // A pint's share is half a quart's.
    let mut mixed = bare();
    mixed.jars.as_mut().unwrap().push(CaseJar {
        jar: JarSize::Pint,
        count: 2,
        kind: None,
        lid: None,
        nicked: None,
    });
    acid(&mut mixed).per_jar_tsp = Some(BTreeMap::from([(JarSize::Quart, 6.0), (JarSize::Pint, 0.0)]));
    acid(&mut mixed).pot_dose_tsp = Some(47.0);
    assert_eq!(codes(&judge(&mixed).findings), [Code::AcidShort]);
    acid(&mut mixed).pot_dose_tsp = Some(48.0);
    assert_eq!(judge(&mixed).ruling, Ruling::Fine);
}

#[test]
fn a_metric_jar_between_the_two_doses_is_warned_of() {
    // A half-litre asks for 3½ tsp of lemon juice (3.17 in proportion) and must have a pint's 3.
    for (tsp, severity) in
        [(2.9, Some(Severity::Stop)), (3.0, Some(Severity::Warn)), (3.4, Some(Severity::Warn)), (3.5, None)]
    {
        let mut case = bare();
        jar(&mut case).jar = JarSize::HalfLitre;
        acid(&mut case).per_jar_tsp = Some(BTreeMap::from([(JarSize::HalfLitre, tsp)]));
        let found = judge(&case).findings;
        let short = found.iter().find(|found| found.code == Code::AcidShort);
        assert_eq!(short.map(|found| found.severity), severity, "{tsp}");
    }
    // Small jars are dosed in proportion: ¾ tsp is a quarter of a pint's tablespoon.
    for (tsp, enough) in [(0.7, false), (0.75, true)] {
        let mut case = bare();
        jar(&mut case).jar = JarSize::QuarterPint;
        case.minutes = Some(minutes(45.0));
        acid(&mut case).per_jar_tsp = Some(BTreeMap::from([(JarSize::QuarterPint, tsp)]));
        assert_eq!(judge(&case).ready, enough, "{tsp}");
    }
}

#[test]
fn vegetables_belong_in_vegetable_juice_only() {
    use Ingredient::{Beet, Carrot, Celery, Garlic, Meat, Mushroom, Oil, Onion, Parsley, Pepper, Spinach};
    let with = |product, what| {
        let day = good_days().into_iter().find(|day| day.product == product).unwrap();
        let addition = Addition { what, amount: cups(0.5) };
        judge(&Case { additions: Some(vec![addition]), ..done_right(&day) })
    };
    for product in Product::PLAIN {
        for what in [Onion, Pepper, Carrot, Celery] {
            let found = codes(&with(product, what).findings);
            let allowed = product == Product::VegetableJuice;
            assert_eq!(found.contains(&Code::LowAcidAddition), !allowed, "{what} in {product}");
            assert_eq!(with(product, what).ready, allowed);
        }
        for what in [Beet, Spinach, Parsley, Garlic, Mushroom, Meat, Oil] {
            assert!(
                codes(&with(product, what).findings).contains(&Code::LowAcidAddition),
                "{what} in {product}"
            );
        }
    }
    // A leaf of basil a jar, and not one more.
    for (count, ready) in [(7.0, true), (8.0, false)] {
        let basil = Addition { what: Ingredient::BasilLeaf, amount: leaves(count) };
        assert_eq!(judge(&Case { additions: Some(vec![basil]), ..bare() }).ready, ready, "{count} leaves");
    }
}

#[test]
fn a_mayonnaise_jar_is_fragile_where_it_is_tolerated() {
    let of = |kind, size, heating| {
        let mut case = done_right(&good_days()[if heating == Heating::BoilingWater { 4 } else { 12 }]);
        jar(&mut case).kind = Some(kind);
        jar(&mut case).jar = size;
        let found = codes(&judge(&case).findings);
        (found.contains(&Code::JarFragile), found.contains(&Code::JarUnsuited))
    };
    let (fragile, unsuited) = ((true, false), (false, true));
    assert_eq!(of(JarKind::Packer, JarSize::Quart, Heating::BoilingWater), fragile);
    assert_eq!(of(JarKind::Packer, JarSize::Pint, Heating::BoilingWater), fragile);
    assert_eq!(of(JarKind::Packer, JarSize::PintAndHalf, Heating::BoilingWater), unsuited);
    assert_eq!(of(JarKind::Packer, JarSize::Quart, Heating::PressureWeighted), unsuited);
    assert_eq!(of(JarKind::Other, JarSize::Quart, Heating::BoilingWater), unsuited);
    assert_eq!(of(JarKind::Mason, JarSize::Quart, Heating::PressureWeighted), (false, false));
}

#[test]
fn water_over_the_lids_is_two_inches_and_never_under_one() {
    for (inches, code) in [
        (2.0, None),
        (1.99, Some(Code::WaterCover)),
        (1.0, Some(Code::WaterCover)),
        (0.99, Some(Code::WaterLow)),
        (0.0, Some(Code::WaterLow)),
    ] {
        let case = Case { water_cover: Some(Length::new::<inch>(inches)), ..bare() };
        let found = judge(&case);
        assert_eq!(codes(&found.findings), Vec::from_iter(code), "{inches} in");
        assert_eq!(found.ready, code != Some(Code::WaterLow));
    }
}

#[test]
fn a_reading_of_raw_food_warns_and_one_of_the_product_stops() {
    use PhSample::{Dosed, Raw};
    for (value, sample, severity) in [
        (4.5, Some(Dosed), None),
        (4.55, Some(Dosed), Some(Severity::Warn)),
        (4.6, Some(Dosed), Some(Severity::Warn)),
        (4.61, Some(Dosed), Some(Severity::Stop)),
        (4.61, None, Some(Severity::Stop)),
        (4.61, Some(Raw), Some(Severity::Warn)),
        (4.6, Some(Raw), None),
    ] {
        let reading =
            PhReading { value, sample, temperature: None, compensated: None, calibrated_today: None };
        let found = judge(&Case { ph: Some(reading), ..bare() }).findings;
        assert_eq!(found.first().map(|found| found.severity), severity, "{value} of {sample:?}");
        assert!(found.iter().all(|found| found.code == Code::PhHigh));
    }
}

#[test]
fn jars_found_late_are_eaten_only_when_they_were_kept_cold() {
    let late = |kept_cold| {
        let case = Case { reprocess_after: Some(Time::new::<hour>(30.0)), kept_cold, ..bare() };
        judge(&case).findings.remove(0).do_now
    };
    assert!(late(Some(true)).contains("eat it") && !late(Some(true)).contains("discard"));
    assert!(late(Some(false)).contains("discard it without tasting"));
    assert!(late(None).contains("kept cold all that time?") && late(None).contains("without tasting"));
}

#[test]
fn no_finding_says_that_the_jars_are_safe() {
    for finding in every_mistake_judged() {
        for text in [&finding.message, &finding.why, &finding.do_now] {
            assert!(!text.to_lowercase().contains("safe"), "{text}");
        }
    }
}

#[test]
fn context_decides() {
    // A boil that was lost and then held for the full time is in order.
    let mut case = at_two_thousand_feet();
    case.boil = log(&[
        (0.0, LogEvent::In),
        (20.0, LogEvent::Boil),
        (45.0, LogEvent::Lost),
        (50.0, LogEvent::Boil),
        (100.0, LogEvent::End),
    ]);
    assert_eq!(judge(&case).findings, []);
    // Long enough for its own jars, short for the pints without liquid beside them.
    case.minutes = None;
    case.load = vec![other(Product::Whole, Some(Medium::None), Pack::Raw, JarSize::Pint)];
    assert_eq!(codes(&judge(&case).findings), [Code::BoilLost]);
    case.boil.retain(|line| line.at > minutes(46.0));
    assert_eq!(codes(&judge(&case).findings), [Code::MixedLoadShort]);

    // Three cups of vegetables are right for 22 lb and too many for 11.
    let mut juice = done_right(&good_days()[7]);
    juice.additions = Some(vec![Addition { what: Ingredient::Celery, amount: cups(3.0) }]);
    assert_eq!(judge(&juice).findings, []);
    juice.fruit.weight = Some(pounds(11.0));
    let over = judge(&juice).findings;
    assert_eq!(codes(&over), [Code::VegetableRatio]);
    // Half of them is right for half the tomatoes; three cups ask for eleven pounds more.
    let way = &over[0].do_now;
    assert!(way.contains("Take out 1 ½ cups of vegetables, or add 11 lb of tomatoes"), "{way}");

    // A pot dose for exactly the jars that were filled is enough.
    let mut pot = at_two_thousand_feet();
    acid(&mut pot).per_jar_tsp = None;
    acid(&mut pot).pot_dose_tsp = Some(42.0);
    assert_eq!(judge(&pot).findings, []);

    // Sauce may have a quarter or half an inch of headspace, whole tomatoes only half an inch.
    let mut sauce = done_right(&good_days()[8]);
    sauce.headspace = Some(Length::new::<inch>(0.5));
    assert_eq!(judge(&sauce).findings, []);

    // A litre with a quart's dose is short of nothing.
    let mut litre = at_two_thousand_feet();
    jar(&mut litre).jar = JarSize::Litre;
    acid(&mut litre).per_jar_tsp = Some(BTreeMap::from([(JarSize::Litre, 5.9)]));
    assert_eq!(codes(&judge(&litre).findings), [Code::AcidShort, Code::LitreAsQuart]);
}

#[test]
fn stops_come_first_and_every_finding_says_what_to_do() {
    let mut case = at_two_thousand_feet();
    for (_, mistake) in MISTAKES.iter().rev().step_by(3) {
        mistake(&mut case);
    }
    let findings = judge(&case).findings;
    assert!(findings.is_sorted_by_key(|finding| finding.severity));
    for finding in &findings {
        for text in [&finding.message, &finding.why, &finding.do_now, &finding.source.title] {
            assert!(
                text.chars().next().is_some_and(char::is_uppercase) || text.starts_with(char::is_numeric),
                "{text}"
            );
        }
    }
}

proptest! {
    #[test]
    fn an_added_mistake_never_removes_a_stop(
        day in 0..good_days().len(),
        made in proptest::collection::vec(0..SAFE_TO_ADD.len(), 0..4),
        added in 0..SAFE_TO_ADD.len(),
    ) {
        let mut case = done_right(&good_days()[day]);
        made.iter().for_each(|index| SAFE_TO_ADD[*index](&mut case));
        let before = stops(&case);
        SAFE_TO_ADD[added](&mut case);
        let after = stops(&case);
        prop_assert!(before.iter().all(|code| after.contains(code)), "{before:?} became {after:?}");
    }

    #[test]
    fn what_is_taken_away_never_makes_a_day_ready(
        day in 0..good_days().len(),
        made in proptest::collection::vec(0..SAFE_TO_ADD.len(), 0..3),
        taken in proptest::collection::vec(0..UNTOLD.len(), 1..4),
    ) {
        let mut case = done_right(&good_days()[day]);
        made.iter().for_each(|index| SAFE_TO_ADD[*index](&mut case));
        let before = judge(&case).ready;
        for index in taken {
            UNTOLD[index].2(&mut case);
            prop_assert!(before || !judge(&case).ready);
        }
    }

    #[test]
    fn time_never_falls_with_altitude_or_jar(
        product in prop::sample::select(Product::ALL),
        medium in prop::sample::select(Medium::ALL),
        pack in prop::sample::select(Pack::ALL),
        jar in prop::sample::select(JarSize::ALL),
        larger in prop::sample::select(JarSize::ALL),
        low in -1500.0..10_000.0_f64,
        rise in 0.0..11_500.0_f64,
    ) {
        let time = |jar, feet: f64| {
            let medium = (product == Product::Whole).then_some(medium);
            let altitude = Altitude::from_feet(feet.min(10_000.0)).unwrap();
            look_up(&Query { product, medium, pack, method: Method::BoilingWater, jar, altitude })
                .ok()
                .map(|tested| tested.options[0].minutes)
        };
        if let (Some(here), Some(higher)) = (time(jar, low), time(jar, low + rise)) {
            prop_assert!(higher >= here);
        }
        let (small, large) = if jar <= larger { (jar, larger) } else { (larger, jar) };
        if let (Some(small), Some(large)) = (time(small, low), time(large, low)) {
            prop_assert!(large >= small);
        }
    }

    #[test]
    fn acid_is_never_below_proportion(
        agent in prop::sample::select(Agent::ALL),
        jar in prop::sample::select(JarSize::ALL),
    ) {
        let pints = jar.pints();
        let share = *pints.numer() as f64 / *pints.denom() as f64;
        prop_assert!(per_jar(agent, jar).as_f64() >= per_jar(agent, JarSize::Pint).as_f64() * share - 1e-9);
    }
}

fn stops(case: &Case) -> Vec<Code> {
    judge(case)
        .findings
        .iter()
        .filter(|finding| finding.severity == Severity::Stop)
        .map(|finding| finding.code)
        .collect()
}

/// Mistakes that pile up: each makes its own thing worse and leaves the rest of the day as it was.
const SAFE_TO_ADD: &[fn(&mut Case)] = &[
    |case| case.fruit.vine = Some(Vine::FrostKilled),
    |case| case.fruit.ripeness = Some(Ripeness::Overripe),
    |case| case.fruit.damage = Some(Damage::Mouldy),
    |case| acid(case).source = Some(AcidSource::Fresh),
    |case| acid(case).per_jar_tsp.iter_mut().flat_map(|doses| doses.values_mut()).for_each(|tsp| *tsp *= 0.5),
    |case| case.minutes = case.minutes.map(|given| given * 0.5),
    |case| {
        case.additions.get_or_insert_default().push(Addition { what: Ingredient::Meat, amount: cups(1.0) })
    },
    |case| {
        case.additions.get_or_insert_default().push(Addition { what: Ingredient::Wine, amount: cups(1.0) })
    },
    |case| jar(case).kind = Some(JarKind::Antique),
    |case| jar(case).lid = Some(LidState::Reused),
    |case| case.reprocess_after = Some(Time::new::<hour>(40.0)),
    |case| case.ph.as_mut().unwrap().value += 0.5,
    |case| case.headspace = Some(Length::new::<inch>(2.0)),
    |case| case.load.push(other(Product::Whole, Some(Medium::None), Pack::Raw, JarSize::Quart)),
    |case| case.temperatures.jar = celsius(5.0),
    |case| case.rest = Some(minutes(0.0)),
];

#[test]
fn one_refusal_is_said_once_however_many_sizes_it_is_about() {
    let mut case = bare();
    case.altitude = Altitude::from_feet(10_001.0).ok();
    let pint = CaseJar { jar: JarSize::Pint, count: 2, kind: None, lid: None, nicked: None };
    case.jars.as_mut().unwrap().push(pint);
    let refused = judge(&case).findings.into_iter().filter(|found| found.code == Code::NoTestedProcess);
    assert_eq!(refused.count(), 1);
}

/// What is said of a vine that outlived a light frost: the one finding of its code that only warns.
pub fn outlived_a_light_frost() -> Finding {
    let mut case = Case::default();
    case.fruit.vine = Some(Vine::LightFrost);
    let mut found = judge(&case).findings.into_iter();
    found.find(|found| found.code == Code::FrostKilledVine).unwrap()
}

#[test]
fn a_vine_that_outlived_a_light_frost_is_a_warning() {
    assert_eq!(outlived_a_light_frost().severity, Severity::Warn);
}

#[test]
fn a_steam_canner_that_ran_dry_was_filled_anew() {
    let found = |event: LogEvent, ends: f64| {
        let mut case = at_two_thousand_feet();
        case.heating = Some(Heating::AtmosphericSteam);
        (case.altitude, case.minutes) = (Altitude::from_feet(500.0).ok(), Some(minutes(45.0)));
        case.boil =
            log(&[(0.0, LogEvent::Boil), (30.0, event), (40.0, LogEvent::Boil), (ends, LogEvent::End)]);
        codes(&judge(&case).findings)
    };
    assert_eq!(found(LogEvent::Dry, 86.0), [], "a full base of water, and the full time");
    assert_eq!(found(LogEvent::Lost, 86.0), [Code::SteamLimit], "the water of the first half hour is gone");
    assert_eq!(found(LogEvent::Dry, 84.0), [Code::BoilLost], "a minute is missing");
}
