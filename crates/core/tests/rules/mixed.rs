//! Loads that several batches share: every jar by its own batch, the load by the jar that needs longest.

use bodega_core::canner::regroup::{NoRegrouping, regroup};
use bodega_core::canner::room::Capacity;
use bodega_core::canner::room::Room;
use bodega_core::canner::room::room_of;
use bodega_core::jars::bench::next_load;
use bodega_core::jars::doses::{Dose, DosedPot, doses};
use bodega_core::judge::case::Ingredient;
use bodega_core::judge::records::BatchFacts;
use bodega_core::judge::records::Judged;
use bodega_core::judge::records::judge_load;
use bodega_core::judge::records::judge_towel;
use bodega_core::judge::records::lot_findings;
use bodega_core::judge::records::ph_findings;
use bodega_core::plan::batch::{BatchPlan, Wish, work_out};
use bodega_core::plan::judged::judge_plan;
use bodega_model::canner::events::{BoilEvent, Fate, Happened};
use bodega_model::canner::outline::Outsides;
use bodega_model::contents::Added;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::kinds::LidState;
use bodega_model::jars::ph::{PhSample, Remedy};
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::finding::{Code, Finding, Fix, Ruling, Severity};
use bodega_model::judge::question::Ask;
use bodega_model::judge::standing::JarStanding;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::pounds;
use bodega_model::records::batch::Batch;
use bodega_model::records::claims::Claims;
use bodega_model::records::jar::{Jar, PhRecord, count_sizes};
use bodega_model::records::load::CannerLoad;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_model::towel::seal::LidVerdict;

use super::kitchen::{at, batch, canner, jar, load, packed, wish};

const BOIL: [(BoilEvent, i64); 3] =
    [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 70)];

fn load_findings(load: &CannerLoad, altitude: Option<Altitude>) -> Vec<Finding> {
    judge_load(load, &[], altitude).findings
}

fn towel_findings(towel: &Towel, load: &CannerLoad, altitude: Option<Altitude>) -> Vec<Finding> {
    judge_towel(towel, load, &[], altitude).findings
}

fn plan_findings(plan: &BatchPlan, wish: &Wish, bottle_age_months: Option<f64>) -> Vec<Finding> {
    judge_plan(plan, wish, bottle_age_months, Some(&Vec::new()), pounds(40.0), (&canner(wish.method), 2026))
        .findings
}

fn here() -> Option<Altitude> {
    Altitude::from_feet(2000.0).ok()
}

/// Quarts of tomatoes in water, 50 minutes here; and pints of tomatoes in juice, 90.
fn water_and_juice() -> Vec<Jar> {
    let juice =
        |number| packed(jar(number, 2, JarSize::Pint), Product::Whole, Some(Medium::Juice), Pack::Raw);
    vec![jar(1, 1, JarSize::Quart), jar(2, 1, JarSize::Quart), juice(1), juice(2)]
}

fn said(findings: &[Finding]) -> Vec<(Code, Option<&str>)> {
    findings.iter().map(|finding| (finding.code, finding.batch.as_deref())).collect()
}

fn codes_of(findings: &[Finding]) -> Vec<Code> {
    findings.iter().map(|finding| finding.code).collect()
}

#[test]
fn a_load_too_short_for_its_second_batch_says_so_of_that_batch() {
    let short = load(Method::BoilingWater, 50, water_and_juice(), &BOIL);
    assert_eq!(said(&load_findings(&short, here())), [(Code::ProcessShort, Some("0904-2"))]);
    let mut other_way = water_and_juice();
    other_way.reverse();
    let short = load(Method::BoilingWater, 50, other_way, &BOIL);
    assert_eq!(said(&load_findings(&short, here())), [(Code::ProcessShort, Some("0904-2"))]);
    // Nothing is wrong with 90 minutes for jars that need less.
    let long = [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 110)];
    let right = load(Method::BoilingWater, 90, water_and_juice(), &long);
    assert_eq!(said(&load_findings(&right, here())), []);
}

#[test]
fn what_is_wrong_with_each_batch_is_said_of_each() {
    let short = load(Method::BoilingWater, 45, water_and_juice(), &[]);
    let found = load_findings(&short, here());
    assert_eq!(said(&found), [(Code::ProcessShort, Some("0904-1")), (Code::ProcessShort, Some("0904-2"))]);
    assert!(found[0].message.contains("needs 50") && found[1].message.contains("needs 90"), "{found:?}");
    // Half-gallons of both are refused in the same words: once, of the load.
    let mut jars = water_and_juice();
    jars.iter_mut().for_each(|jar| jar.size = JarSize::HalfGallon);
    let refused = load(Method::BoilingWater, 90, jars, &[]);
    assert_eq!(said(&load_findings(&refused, here())), [(Code::NoTestedProcess, None)]);
}

#[test]
fn what_is_true_of_both_batches_is_said_once_of_the_load() {
    let loaded = load(Method::BoilingWater, 90, water_and_juice(), &[]);
    assert_eq!(said(&load_findings(&loaded, None)), [(Code::AltitudeMissing, None)]);
    // One batch alone needs no name.
    let alone = load(Method::BoilingWater, 45, vec![jar(1, 1, JarSize::Quart)], &[]);
    assert_eq!(said(&load_findings(&alone, here())), [(Code::ProcessShort, None)]);
    let empty = load(Method::BoilingWater, 50, Vec::new(), &[]);
    assert_eq!(said(&load_findings(&empty, here())), []);
}

#[test]
fn the_longest_of_its_own_jars_times_a_load() {
    let mixed = load(Method::BoilingWater, 50, water_and_juice(), &[]);
    let altitude = here().unwrap();
    assert_eq!(mixed.longest_process(altitude).unwrap().unwrap().minutes, Minutes(90));
    assert_eq!(mixed.own_process(&mixed.jars[0], altitude).unwrap().minutes, Minutes(50));
    assert_eq!(mixed.batches(), [BatchId(1), BatchId(2)]);
    let none = load(Method::BoilingWater, 50, Vec::new(), &[]);
    assert_eq!(none.longest_process(altitude), Ok(None));
    let mut refused = water_and_juice();
    refused[2].size = JarSize::HalfGallon;
    let refused = load(Method::BoilingWater, 50, refused, &[]);
    assert!(refused.longest_process(altitude).unwrap_err().message.starts_with("Half-gallons"));
}

#[test]
fn pack_and_canner_of_the_records_are_judged() {
    let crushed = |pack| packed(jar(1, 1, JarSize::Quart), Product::Crushed, None, pack);
    let of = |method, minutes, jar| codes_of(&load_findings(&load(method, minutes, vec![jar], &[]), here()));
    // Crushed tomatoes were only tested hot; in steam no longer than 45 minutes; under pressure far shorter.
    assert_eq!(of(Method::BoilingWater, 50, crushed(Pack::Hot)), []);
    assert_eq!(of(Method::BoilingWater, 50, crushed(Pack::Raw)), [Code::NoTestedProcess]);
    assert_eq!(of(Method::AtmosphericSteam, 50, crushed(Pack::Hot)), [Code::SteamLimit]);
    assert_eq!(of(Method::PressureWeighted, 20, crushed(Pack::Hot)), []);
}

#[test]
fn glass_water_and_food_of_each_batch_are_held_against_each_other() {
    let hot = packed(jar(1, 2, JarSize::Pint), Product::Sauce, None, Pack::Hot);
    let mut cold_glass = load(Method::BoilingWater, 50, vec![jar(1, 1, JarSize::Quart), hot], &[]);
    assert_eq!(said(&load_findings(&cold_glass, here())), [], "nobody said how warm the glass is");
    cold_glass.jars_c = Some(20.0);
    // Hot sauce into cold glass breaks it; raw tomatoes do not.
    assert_eq!(said(&load_findings(&cold_glass, here())), [(Code::ThermalGap, Some("0904-2"))]);
    cold_glass.jars_c = Some(60.0);
    assert_eq!(said(&load_findings(&cold_glass, here())), []);
}

#[test]
fn a_boil_in_the_records_is_the_boil_the_judge_reads() {
    let of = |events: &[(BoilEvent, i64)]| {
        said(&load_findings(&load(Method::BoilingWater, 50, vec![jar(1, 1, JarSize::Quart)], events), here()))
            .into_iter()
            .map(|(code, _)| code)
            .collect::<Vec<_>>()
    };
    use BoilEvent::{
        BoilLost, Boils, HeatOff, JarAdded, JarBroken, JarOut, JarsIn, Lifted, ToppedUpBoiling, ToppedUpCold,
    };
    assert_eq!(of(&BOIL), []);
    for stops in [BoilLost, ToppedUpCold, JarOut, JarAdded] {
        assert_eq!(of(&[(JarsIn, 0), (Boils, 20), (stops, 60), (HeatOff, 75)]), [Code::BoilLost], "{stops}");
    }
    for harmless in [ToppedUpBoiling, JarBroken] {
        assert_eq!(of(&[(JarsIn, 0), (Boils, 20), (harmless, 60), (HeatOff, 70)]), [], "{harmless}");
    }
    assert_eq!(of(&[(JarsIn, 0), (Boils, 20), (HeatOff, 60)]), [Code::ProcessShort]);
    assert_eq!(of(&[BOIL[0], BOIL[1], BOIL[2], (Lifted, 72)]), [Code::RestShort]);
    assert_eq!(of(&[BOIL[0], BOIL[1], BOIL[2], (Lifted, 75)]), []);
}

#[test]
fn the_towel_is_judged_like_the_load_and_by_its_first_look() {
    let lifted = [BOIL[0], BOIL[1], BOIL[2], (BoilEvent::Lifted, 76)];
    let load = load(Method::BoilingWater, 50, vec![jar(1, 1, JarSize::Quart)], &lifted);
    let on_towel = |judged: [Option<i64>; 2]| {
        let of = |number: u32, after: Option<i64>| TowelJar {
            product: Product::Whole,
            named: None,
            id: JarId(i64::from(number)),
            batch: BatchId(1),
            code: "0904-1".to_owned(),
            number,
            size: JarSize::Quart,
            liquid_lost: None,
            verdict: after.map(|_| LidVerdict::Holds),
            second_look: None,
            judged_at: after.map(|hours| at(76 + hours * 60)),
            rescue: None,
            rescued_at: None,
            tidy: false,
            dosed: true,
            standing: JarStanding::CLEAR,
        };
        let towel = Towel {
            load_id: LoadId(1),
            code: "0904-1".to_owned(),
            product: Product::Whole,
            lifted_at: at(76),
            check_from: at(76 + 720),
            check_by: at(76 + 1440),
            jars: vec![of(1, judged[0]), of(2, judged[1])],
        };
        said(&towel_findings(&towel, &load, here())).into_iter().map(|(code, _)| code).collect::<Vec<_>>()
    };
    assert_eq!(on_towel([None, None]), []);
    assert_eq!(on_towel([Some(12), None]), []);
    assert_eq!(on_towel([Some(11), None]), [Code::SealCheckEarly]);
    assert_eq!(on_towel([Some(14), Some(3)]), [Code::SealCheckEarly], "the first look counts");
}

#[test]
fn a_jar_that_left_early_is_held_against_its_own_time() {
    let mut mixed = load(Method::BoilingWater, 90, water_and_juice(), &[]);
    let out =
        |jar: &Jar, minute: i64| Happened { event: BoilEvent::JarOut, at: at(minute), jar: Some(jar.id) };
    let event = |event: BoilEvent, minute: i64| Happened { event, at: at(minute), jar: None };
    let with = |load: &CannerLoad, items: &[Happened]| {
        let clock = bodega_model::canner::clock::BoilClock::replay(Method::BoilingWater, Minutes(90), items);
        CannerLoad { clock, ..load.clone() }
    };
    let items = [
        event(BoilEvent::Boils, 0),
        out(&mixed.jars[0], 50),
        event(BoilEvent::Boils, 55),
        out(&mixed.jars[2], 105),
        Happened { event: BoilEvent::JarBroken, at: at(110), jar: Some(mixed.jars[1].id) },
        event(BoilEvent::Boils, 110),
        event(BoilEvent::HeatOff, 200),
    ];
    mixed = with(&mixed, &items);
    let fates: Vec<Fate> = mixed.jars.iter().map(|jar| mixed.fate(jar)).collect();
    assert_eq!(fates, [Fate::OutInTime, Fate::Broken, Fate::OutTooEarly, Fate::Stayed]);
    let processed: Vec<bool> = mixed.jars.iter().map(|jar| mixed.is_processed(jar.id, at(300))).collect();
    assert_eq!(processed, [true, false, false, true]);
    assert_eq!(mixed.gone().iter().map(|gone| gone.number).collect::<Vec<_>>(), [1, 2, 1]);
    assert!(mixed.is_processed(JarId(999_999), at(300)), "a jar of no record stays with the load");
    // Without a tested process of its own it is held against the load's time.
    let mut odd = mixed.clone();
    odd.jars[0].size = JarSize::HalfGallon;
    assert_eq!(odd.fate(&odd.jars[0]), Fate::OutTooEarly);
}

#[test]
fn one_rule_says_whether_jars_fit() {
    let room = room_of(&canner(Method::BoilingWater), &Outsides::default());
    let fit = |jars: &[(JarSize, u32)]| room.holds(jars);
    assert!(fit(&[(JarSize::Quart, 7)]) && !fit(&[(JarSize::Quart, 8)]));
    assert!(fit(&[(JarSize::Pint, 9)]) && !fit(&[(JarSize::Pint, 10)]));
    // 4/7 and 3/9 are 57/63; a quart more is 66/63.
    assert!(fit(&[(JarSize::Quart, 4), (JarSize::Pint, 3)]));
    assert!(!fit(&[(JarSize::Quart, 5), (JarSize::Pint, 3)]));
    assert!(!fit(&[(JarSize::Litre, 1)]), "a size whose capacity nobody gave does not fit");
    assert!(fit(&[]));
    assert_eq!((room.most_of(JarSize::Quart), room.most_of(JarSize::Pint)), (Ok(7), Ok(9)));
}

fn waiting(id: i64, jars: Vec<Jar>) -> CannerLoad {
    CannerLoad { id: LoadId(id), ..load(Method::BoilingWater, 50, jars, &[]) }
}

#[test]
fn the_bench_has_the_first_load_that_waits_and_is_not_ready() {
    let ready = |mut load: CannerLoad| {
        load.jars.iter_mut().for_each(|jar| jar.lid = true);
        load
    };
    let one = waiting(1, vec![jar(1, 1, JarSize::Quart)]);
    let two = waiting(2, vec![jar(2, 1, JarSize::Quart)]);
    let empty = waiting(3, Vec::new());
    let busy = CannerLoad {
        id: LoadId(4),
        ..load(Method::BoilingWater, 50, vec![jar(3, 1, JarSize::Quart)], &BOIL[..1])
    };
    let next = |open: &[CannerLoad]| next_load(open).map(|load| load.id.0);
    assert_eq!(next(&[]), None);
    assert_eq!(next(&[empty.clone(), one.clone(), two.clone()]), Some(1));
    assert_eq!(next(&[ready(one.clone()), two.clone()]), Some(1), "a ready load goes in first");
    assert_eq!(
        next(&[busy.clone(), ready(one.clone()), two.clone()]),
        Some(2),
        "it waits beside a busy canner"
    );
    assert_eq!(next(&[busy.clone(), ready(one.clone()), ready(two.clone())]), Some(1));
    assert_eq!(next(&[busy, empty]), None);
}

#[test]
fn waiting_loads_go_together_by_time_and_pressure() {
    let altitude = here().unwrap();
    let canner = canner(Method::BoilingWater);
    let quarts =
        |count: u32, from: u32| (0..count).map(|n| jar(from + n, 1, JarSize::Quart)).collect::<Vec<_>>();
    let open = vec![waiting(1, quarts(3, 1)), waiting(2, quarts(4, 4)), waiting(3, Vec::new())];
    let found = regroup(open.clone(), &canner, &Outsides::default(), altitude, Minutes(10)).unwrap().unwrap();
    assert_eq!(found.loads, [LoadId(1), LoadId(2)]);
    assert_eq!((found.now, found.plan.total), (Minutes(120), Minutes(60)));
    assert_eq!(found.best.len(), 1);
    assert_eq!((found.best[0].jars.len(), found.best[0].minutes), (7, Minutes(50)));
    assert_eq!(found.best[0].batch, BatchId(1));

    // Quarts and pints of one plan, and the same size in its two mediums: four kinds, each counted by itself.
    let mut kinds = quarts(2, 1);
    kinds.extend([jar(3, 1, JarSize::Pint), jar(4, 2, JarSize::Quart), jar(5, 2, JarSize::Quart)]);
    for other in &mut kinds[3..] {
        other.medium = Some(Medium::Juice);
    }
    let kinds = vec![waiting(1, kinds)];
    let apart = regroup(kinds, &canner, &Outsides::default(), altitude, Minutes(10)).unwrap().unwrap();
    let mut sizes: Vec<(u32, usize)> =
        apart.best.iter().map(|load| (load.minutes.0, load.jars.len())).collect();
    sizes.sort_unstable();
    assert_eq!(sizes, [(90, 5)], "all five go in together at the longest time");
    let mut counted: Vec<u32> =
        apart.plan.loads.iter().flat_map(|load| &load.jars).map(|(_, count)| *count).collect();
    counted.sort_unstable();
    assert_eq!(counted, [1, 2, 2]);

    // What has begun, and what stands in another canner, stays as it is.
    let mut begun = open.clone();
    begun[0] = CannerLoad { id: LoadId(1), ..load(Method::BoilingWater, 50, quarts(3, 1), &BOIL[..1]) };
    begun[1].canner.id = CannerId(2);
    assert_eq!(regroup(begun, &canner, &Outsides::default(), altitude, Minutes(10)).unwrap(), None);

    let mut pressed = open.clone();
    pressed[1].psi = Some(6);
    let alone = regroup(pressed, &canner, &Outsides::default(), altitude, Minutes(10)).unwrap().unwrap();
    assert_eq!(alone.loads, [LoadId(1)], "another pressure is another load");

    let mut odd = open.clone();
    odd[0].jars[0].size = JarSize::HalfGallon;
    assert!(matches!(
        regroup(odd, &canner, &Outsides::default(), altitude, Minutes(10)),
        Err(NoRegrouping::Refused(_))
    ));
    let mut litre = open;
    litre[0].jars[0].size = JarSize::Litre;
    let error = regroup(litre, &canner, &Outsides::default(), altitude, Minutes(10)).unwrap_err();
    assert_eq!(error.to_string(), "the canner's capacity for litres is not given; say how many fit");
}

#[test]
fn doses_of_a_shared_load_are_each_batchs_own() {
    let mut jars = water_and_juice();
    jars.iter_mut().filter(|jar| jar.batch == BatchId(2)).for_each(|jar| {
        jar.agent = Agent::CitricAcid;
        jar.wants_salt = true;
    });
    jars.push(jar(3, 1, JarSize::Pint));
    let bench = load(Method::BoilingWater, 50, jars, &[]);
    let found = doses(&bench, &[], Spoons::Us);
    let said = |dose: &Dose| {
        let (acid, salt) = (dose.acid.as_deref().unwrap_or("none"), dose.salt.as_deref().unwrap_or("none"));
        format!("{}: {} × {}, {acid}, {salt}", dose.batch.0, dose.count, dose.jar)
    };
    assert_eq!(
        found.iter().map(said).collect::<Vec<_>>(),
        ["1: 2 × quart, 2 Tbsp, none", "1: 1 × pint, 1 Tbsp, none", "2: 2 × pint, ¼ tsp, ½ tsp"]
    );
    assert!(found.iter().all(|dose| (dose.headspace_in - 0.5).abs() < 1e-12 && dose.still_lacks.is_none()));

    // Two quarts and a pint need 15 tsp; 12 in the pot leave a fifth of each dose to be added.
    let pot = |given_tsp| {
        vec![DosedPot { batch: BatchId(1), given_tsp, jars: vec![(JarSize::Quart, 2), (JarSize::Pint, 1)] }]
    };
    let lacks: Vec<Option<String>> =
        doses(&bench, &pot(12.0), Spoons::Us).into_iter().map(|dose| dose.still_lacks).collect();
    assert_eq!(lacks, [Some("1¼ tsp".to_owned()), Some("⅝ tsp".to_owned()), None]);
    assert!(doses(&bench, &pot(15.0), Spoons::Us).iter().all(|dose| dose.still_lacks.is_none()));
}

#[test]
fn sizes_are_counted_in_the_order_they_come() {
    let jars = [jar(1, 1, JarSize::Pint), jar(2, 1, JarSize::Quart), jar(3, 1, JarSize::Pint)];
    assert_eq!(count_sizes(&jars), [(JarSize::Pint, 2), (JarSize::Quart, 1)]);
    assert_eq!(count_sizes(&[]), []);
    assert_eq!(batch(1, Method::BoilingWater).making().product, Product::Whole);
}

#[test]
fn a_reading_of_ph_says_its_own_things_and_no_more() {
    let reading = PhRecord {
        at: at(0),
        ph: 4.3,
        sample: None,
        did: None,
        sample_c: Some(25.0),
        compensated: Some(false),
        calibrated_today: Some(true),
    };
    let codes =
        |reading: &PhRecord| ph_findings(reading).iter().map(|finding| finding.code).collect::<Vec<_>>();
    assert_eq!(codes(&reading), []);
    assert_eq!(codes(&PhRecord { ph: 4.7, ..reading }), [Code::PhHigh]);
    assert_eq!(codes(&PhRecord { sample_c: Some(80.0), ..reading }), [Code::PhUncompensated]);
    assert_eq!(codes(&PhRecord { sample_c: Some(80.0), compensated: Some(true), ..reading }), []);
    assert_eq!(codes(&PhRecord { sample_c: None, compensated: Some(false), ..reading }), []);
    assert_eq!(codes(&PhRecord { calibrated_today: Some(false), ..reading }), [Code::PhUncalibrated]);
    assert_eq!(codes(&PhRecord { calibrated_today: None, ..reading }), []);
}

/// What is known of batch 1 of the test kitchen.
pub fn facts() -> BatchFacts {
    BatchFacts {
        frozen: false,
        batch: batch(1, Method::BoilingWater),
        sizes: vec![(JarSize::Quart, 2)],
        ph: Vec::new(),
        bowls: None,
    }
}

fn quarts() -> Vec<Jar> {
    vec![jar(1, 1, JarSize::Quart), jar(2, 1, JarSize::Quart)]
}

#[test]
fn a_load_is_fine_only_when_everything_about_it_is_known() {
    let waiting = load(Method::BoilingWater, 50, quarts(), &[]);
    let of = |facts: BatchFacts| judge_load(&waiting, &[facts], here());
    assert!(of(facts()).ruling == Ruling::Fine && !of(facts()).is_stopped());
    // Nobody said what else goes in: it is asked, and nothing is called fine.
    let unsaid = of(BatchFacts { batch: Batch { additions: None, ..facts().batch }, ..facts() });
    let asks = |judged: &Judged| judged.questions.iter().map(|question| question.ask).collect::<Vec<_>>();
    assert_eq!((unsaid.ruling, asks(&unsaid)), (Ruling::CannotTell, vec![Ask::Additions]));
    // Recorded before it was asked: no alarm, and no claim.
    let old = Batch { additions: None, additions_asked: false, ..facts().batch };
    let old = of(BatchFacts { batch: old, ..facts() });
    assert_eq!((old.ruling, asks(&old), old.findings.len()), (Ruling::CannotTell, vec![], 0));
    assert_eq!(old.not_asked.len(), 1);
    // Garlic said at the plan is a stop at the canner.
    let garlic = Added::in_cups(Ingredient::Garlic, 0.5);
    let garlic = Batch { additions: Some(vec![garlic]), ..facts().batch };
    let stopped = of(BatchFacts { batch: garlic, ..facts() });
    assert_eq!(codes_of(&stopped.findings), [Code::LowAcidAddition]);
    assert!(stopped.is_stopped() && stopped.ruling == Ruling::NotFine);
    // Nobody has looked at the jars: asked once, for the load; loads from before it was asked say so.
    let unseen = CannerLoad { claims: None, ..waiting.clone() };
    let judged = judge_load(&unseen, &[facts()], here());
    assert_eq!((judged.ruling, asks(&judged)), (Ruling::CannotTell, vec![Ask::Claims]));
    let judged = judge_load(&CannerLoad { claims_asked: false, ..unseen }, &[facts()], here());
    assert_eq!((judged.questions.len(), judged.not_asked.len()), (0, 1));
    let dry = Claims { covered: false, ..Claims::USUAL };
    let dry = CannerLoad { claims: Some(dry), ..waiting.clone() };
    assert_eq!(dry.medium_of(&dry.jars[0]), Some(Medium::None));
    let judged = judge_load(&dry, &[facts()], here());
    assert_eq!(codes_of(&judged.findings), [Code::ProcessShort], "no liquid takes longer");
    assert_eq!(dry.longest_process(here().unwrap()).unwrap().unwrap().minutes, Minutes(90));
    // A batch that cannot be read leaves its jars unknown.
    assert_eq!(judge_load(&waiting, &[], here()).ruling, Ruling::CannotTell);
}

#[test]
fn sauce_that_went_in_raw_has_no_process_and_water_of_another_warmth_breaks_glass() {
    let sauce = packed(jar(1, 1, JarSize::Quart), Product::Sauce, None, Pack::Hot);
    let waiting = load(Method::BoilingWater, 40, vec![sauce], &[]);
    let with = |claims: Claims| {
        let said = CannerLoad { claims: Some(claims), ..waiting.clone() };
        assert!(said.claims.unwrap().words(&said.jars).contains("packed"), "the card asks how");
        assert!(!said.claims.unwrap().words(&quarts()).contains("packed"), "and of a raw pack it does not");
        codes_of(&judge_load(&said, &[facts()], here()).findings)
    };
    let usual = with(Claims::USUAL);
    assert!(!usual.contains(&Code::NoTestedProcess) && !usual.contains(&Code::ThermalGap), "{usual:?}");
    assert!(with(Claims { packed_raw: true, ..Claims::USUAL }).contains(&Code::NoTestedProcess));
    // Food just off the boil, 90 °C, into water from the tap.
    assert!(with(Claims { water_c: Some(15.0), ..Claims::USUAL }).contains(&Code::ThermalGap));
    assert!(!with(Claims { water_c: Some(80.0), ..Claims::USUAL }).contains(&Code::ThermalGap));
    // A quarter of an inch was tested for sauce, half an inch is accepted.
    for (inches, is_said) in [(0.125, true), (0.25, false), (0.5, false), (1.0, true)] {
        let found = with(Claims { headspace_in: Some(inches), ..Claims::USUAL });
        assert_eq!(found.contains(&Code::Headspace), is_said, "{inches}");
    }
    // Raw fruit beside nearly boiling water.
    let raw = load(Method::BoilingWater, 50, quarts(), &[]);
    let hot = CannerLoad { claims: Some(Claims { water_c: Some(95.0), ..Claims::USUAL }), ..raw };
    assert!(codes_of(&judge_load(&hot, &[facts()], here()).findings).contains(&Code::ThermalGap));
}

#[test]
fn a_boil_that_nobody_timed_is_judged_by_what_somebody_knows_of_it() {
    use BoilEvent::{Boils, ClockSet, HeatOff, HeldOn, JarBroken, JarsIn, Unwatched};
    let lost = |events: &[(BoilEvent, i64)]| {
        let boiled = load(Method::BoilingWater, 50, quarts(), events);
        codes_of(&judge_load(&boiled, &[facts()], here()).findings).contains(&Code::BoilLost)
    };
    let off = [(JarsIn, 0), (Boils, 20), (Unwatched, 40)];
    let then = |events: &[(BoilEvent, i64)]| [off.as_slice(), events].concat();
    assert!(lost(&then(&[(HeatOff, 75)])), "nobody knows");
    assert!(!lost(&then(&[(HeldOn, 45), (HeatOff, 75)])));
    assert!(
        !lost(&then(&[(JarBroken, 41), (ClockSet, 42), (HeldOn, 45), (HeatOff, 75)])),
        "nothing of the boil between"
    );
    assert!(lost(&then(&[(Boils, 45), (HeldOn, 46), (HeatOff, 75)])), "it was said to boil anew first");
    assert!(!lost(&[(JarsIn, 0), (Boils, 20), (HeatOff, 75)]));
}

#[test]
fn vegetables_are_held_against_the_fruit_that_the_batch_drew() {
    let juice = packed(jar(1, 1, JarSize::Quart), Product::VegetableJuice, None, Pack::Hot);
    let waiting = load(Method::BoilingWater, 45, vec![juice], &[]);
    let with = |cups: f64, weight_g: i64| {
        let onion = Added::in_cups(Ingredient::Onion, cups);
        let batch = Batch { additions: Some(vec![onion]), weight_g, ..facts().batch };
        judge_load(&waiting, &[BatchFacts { batch, ..facts() }], here())
    };
    // 10 kg are 22 lb and carry three cups.
    assert_eq!(with(3.0, 10_000).ruling, Ruling::Fine);
    assert_eq!(codes_of(&with(3.1, 10_000).findings), [Code::VegetableRatio]);
    let unknown = with(1.0, 0);
    assert!(unknown.ruling == Ruling::CannotTell && unknown.findings[0].cannot_tell);
}

#[test]
fn jars_in_the_canner_without_acid_are_a_stop_unless_the_pot_has_it() {
    let mut begun = load(Method::BoilingWater, 50, quarts(), &BOIL[..2]);
    begun.jars[1].acid = false;
    let dosed = |tsp: Option<f64>| {
        let batch = Batch { pot_dose_tsp: tsp, ..facts().batch };
        codes_of(&judge_load(&begun, &[BatchFacts { batch, ..facts() }], here()).findings)
    };
    assert_eq!(dosed(None), [Code::NoAcid]);
    // Two quarts of lemon juice: 12 tsp, six of them for the jar without its own.
    assert_eq!(dosed(Some(11.0)), [Code::PotDoseShort]);
    assert_eq!(dosed(Some(12.0)), []);
    // Both went in without their own: a share of the pot for each, and the jars are named.
    begun.jars[0].acid = false;
    let said = |tsp| {
        let batch = Batch { pot_dose_tsp: Some(tsp), ..facts().batch };
        judge_load(&begun, &[BatchFacts { batch, ..facts() }], here()).findings
    };
    assert_eq!(codes_of(&said(12.0)), []);
    let short = said(11.9);
    assert_eq!(codes_of(&short), [Code::PotDoseShort]);
    assert!(short[0].message.starts_with("Jars 1, 2 have less acid than the dose."), "{}", short[0].message);
    assert!(short[0].do_now.starts_with("Acid after the lid is not acid."));
}

#[test]
fn a_question_names_its_batch_and_what_two_jars_of_it_share_stays_its_own() {
    let mut mixed = load(Method::BoilingWater, 90, water_and_juice(), &BOIL[..2]);
    let unsaid = Batch { additions: None, ..facts().batch };
    let judged = judge_load(&mixed, &[BatchFacts { batch: unsaid, ..facts() }], here());
    let of_contents = judged.questions.iter().find(|question| question.batch == Some(BatchId(1)));
    assert_eq!(of_contents.map(|question| question.ask), Some(Ask::Additions));
    // One jar of the first batch has its acid and one has not: what is said of both is still about that batch.
    mixed.jars[1].acid = false;
    let used = Claims { lid: LidState::Reused, ..Claims::USUAL };
    let garlic = Added::in_cups(Ingredient::Garlic, 0.5);
    let first = Batch { additions: Some(vec![garlic]), ..facts().batch };
    let mixed = CannerLoad { claims: Some(used), ..mixed };
    let judged = judge_load(&mixed, &[BatchFacts { batch: first, ..facts() }], here());
    let of = |code| {
        judged.findings.iter().find(|found| found.code == code).and_then(|found| found.batch.as_deref())
    };
    assert_eq!(of(Code::LowAcidAddition), Some(mixed.jars[0].code.as_str()), "{:?}", said(&judged.findings));
    assert_eq!(of(Code::LidReused), None, "said of both batches, it is about the load");
    assert_eq!(of(Code::NoAcid), Some(mixed.jars[0].code.as_str()));
}

#[test]
fn a_plan_tells_the_judge_all_that_is_known_of_it() {
    let capacity = [Capacity { jar: JarSize::Quart, count: 7 }, Capacity { jar: JarSize::Pint, count: 9 }];
    let judged = |wish: &Wish, additions: &Vec<Added>, weight: f64| {
        let plan = work_out(wish, &capacity, Minutes(10)).unwrap();
        judge_plan(&plan, wish, None, Some(additions), pounds(weight), (&canner(wish.method), 2026))
    };
    let pressed = Wish { method: Method::PressureDial, ..wish(Product::Crushed, None, Pack::Hot) };
    let found = judged(&pressed, &Vec::new(), 20.0);
    assert_eq!((found.ruling, found.questions.len()), (Ruling::Fine, 0), "the pounds are known: {found:?}");
    let juice = wish(Product::VegetableJuice, None, Pack::Hot);
    let onion = |cups| vec![Added::in_cups(Ingredient::Onion, cups)];
    assert_eq!(judged(&juice, &onion(3.0), 22.0).ruling, Ruling::Fine);
    assert_eq!(codes_of(&judged(&juice, &onion(3.0), 21.0).findings), [Code::VegetableRatio]);
}

#[test]
fn a_reading_above_the_line_stands_until_something_was_done_and_a_lower_one_follows() {
    let reading = |ph, sample, did| PhRecord {
        at: at(0),
        ph,
        sample,
        did,
        sample_c: None,
        compensated: None,
        calibrated_today: None,
    };
    let (raw, dosed) = (Some(PhSample::Raw), Some(PhSample::Dosed));
    let waiting = load(Method::BoilingWater, 50, quarts(), &[]);
    let severity = |ph: &[PhRecord]| {
        let facts = BatchFacts { ph: ph.to_vec(), ..facts() };
        judge_load(&waiting, &[facts], here()).findings.first().map(|found| found.severity)
    };
    let high = reading(4.8, dosed, None);
    assert_eq!(severity(&[]), None);
    assert_eq!(severity(&[reading(4.8, raw, None)]), Some(Severity::Warn));
    assert_eq!(severity(&[reading(4.8, raw, None), reading(4.3, dosed, None)]), None);
    assert_eq!(severity(&[high]), Some(Severity::Stop));
    assert_eq!(
        severity(&[reading(4.6, dosed, None), reading(4.3, dosed, None)]),
        None,
        "on the line is not above it"
    );
    assert_eq!(severity(&[reading(4.8, None, None)]), Some(Severity::Stop), "dosed when nobody said");
    assert_eq!(severity(&[high, reading(4.3, dosed, None)]), Some(Severity::Stop), "nothing was done");
    assert_eq!(severity(&[high, reading(4.3, raw, None)]), Some(Severity::Stop));
    assert_eq!(severity(&[high, reading(4.3, dosed, Some(Remedy::MoreAcid))]), None);
    assert_eq!(severity(&[high, reading(4.7, dosed, Some(Remedy::MoreAcid))]), Some(Severity::Stop));
}

#[test]
fn the_pounds_of_a_load_are_held_against_todays_altitude() {
    let crushed = packed(jar(1, 1, JarSize::Quart), Product::Crushed, None, Pack::Hot);
    let pressed = |psi, minutes| {
        let load = load(Method::PressureDial, minutes, vec![crushed.clone()], &[]);
        CannerLoad { psi, ..load }
    };
    let at_feet = |feet| Altitude::from_feet(feet).ok();
    // USDA Guide 3, from memory: 20 min at 6 lb up to 2,000 ft, at 7 lb above.
    assert_eq!(codes_of(&judge_load(&pressed(Some(6), 20), &[facts()], at_feet(1500.0)).findings), []);
    let raised = judge_load(&pressed(Some(6), 20), &[facts()], at_feet(2500.0)).findings;
    assert_eq!(codes_of(&raised), [Code::ProcessShort]);
    assert!(matches!(raised[0].fix, Some(Fix::UsePressure { .. })));
    let unknown = judge_load(&pressed(None, 20), &[facts()], at_feet(1500.0));
    assert_eq!(unknown.questions.iter().map(|question| question.ask).collect::<Vec<_>>(), [Ask::Pounds]);
    // One pressure for all jars, and the longest minutes at it.
    let own = |psi| pressed(psi, 20).longest_process(at_feet(1500.0).unwrap()).unwrap().unwrap();
    assert_eq!(own(Some(6)).minutes, Minutes(20));
    assert_eq!((own(Some(11)).minutes, own(Some(11)).psi), (Minutes(15), Some(11)));
    assert_eq!(own(Some(5)).psi, Some(6), "too few pounds: the lowest tested ones");
}

#[test]
fn a_lots_fruit_is_judged_by_what_was_seen() {
    use bodega_model::crates::fruit::{Condition, Fault, Kind};
    use bodega_model::measures::ids::LotId;
    let lot = |condition: Condition, fault: Option<Fault>| {
        super::kitchen::lot(LotId(1), Kind::Paste, condition, fault)
    };
    let codes = |condition, fault| {
        lot_findings(&lot(condition, fault)).iter().map(|finding| finding.code).collect::<Vec<_>>()
    };
    assert_eq!(codes(Condition::FirmRipe, None), []);
    assert_eq!(codes(Condition::Unripe, None), [Code::Underripe]);
    assert_eq!(codes(Condition::FirmRipe, Some(Fault::Overripe)), [Code::Overripe]);
    assert_eq!(codes(Condition::FirmRipe, Some(Fault::Mouldy)), [Code::Mouldy]);
    assert_eq!(codes(Condition::FirmRipe, Some(Fault::Bruised)), [Code::Bruised]);
    assert_eq!(codes(Condition::FirmRipe, Some(Fault::DeadVine)), [Code::FrostKilledVine]);
    assert_eq!(codes(Condition::FirmRipe, Some(Fault::Blight)), [Code::FrostKilledVine]);
    assert_eq!(codes(Condition::Unripe, Some(Fault::DeadVine)), [Code::FrostKilledVine, Code::Underripe]);
}

#[test]
fn a_plan_is_judged_by_its_longest_load() {
    use bodega_core::plan::batch::work_out;
    let (wish, plan): (Wish, _) = {
        let wish = super::kitchen::wish(Product::Whole, Some(Medium::Water), Pack::Raw);
        let room = room_of(&canner(Method::BoilingWater), &Outsides::default());
        let plan = work_out(&wish, &room, Minutes(10)).unwrap();
        (wish, plan)
    };
    let codes = |findings: Vec<Finding>| findings.into_iter().map(|finding| finding.code).collect::<Vec<_>>();
    assert_eq!(codes(plan_findings(&plan, &wish, None)), []);
    assert_eq!(codes(plan_findings(&plan, &wish, Some(12.0))), [Code::BottleOld]);
    let mut short = plan.clone();
    short.loads.loads.iter_mut().for_each(|load| load.minutes = Minutes(45));
    assert_eq!(codes(plan_findings(&short, &wish, None)), [Code::ProcessShort]);
    let crushed = |pack| Wish { product: Product::Crushed, medium: None, pack, ..wish.clone() };
    assert_eq!(codes(plan_findings(&plan, &crushed(Pack::Hot), None)), []);
    assert_eq!(codes(plan_findings(&plan, &crushed(Pack::Raw), None)), [Code::NoTestedProcess]);
    let steam = Wish { method: Method::AtmosphericSteam, ..wish.clone() };
    assert_eq!(codes(plan_findings(&plan, &steam, None)), [Code::SteamLimit]);
    let mut none = plan;
    none.mix.iter_mut().for_each(|line| line.count = 0);
    assert_eq!(codes(plan_findings(&none, &wish, Some(12.0))), [], "a plan of no jars yet is not a mistake");
}

#[test]
fn whole_tomatoes_of_fruit_that_was_frozen_are_stopped_at_the_canner() {
    let waiting = load(Method::BoilingWater, 50, quarts(), &[]);
    let of = |frozen| codes_of(&judge_load(&waiting, &[BatchFacts { frozen, ..facts() }], here()).findings);
    assert_eq!((of(false), of(true)), (vec![], vec![Code::NoTestedProcess]));
}
