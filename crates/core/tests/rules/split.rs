//! The best split against an exhaustive search that shares no code with the solver, and against its own promises.

use std::sync::LazyLock;

use bodega_core::canner::room::Capacity;
use bodega_core::plan::outlook::{HANDS_PER_JAR, hands_per_lb, stove_time};
use bodega_core::plan::split::{Choice, NoSplit, Question, Resource, Split, Stock, limits, split};
use bodega_core::plan::stuff::{jar_quarts, quarts_per_pound};
use bodega_core::plan::yields::learn::Household;
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{in_pounds, in_quarts, pounds};
use bodega_model::plan::making::Making;
use bodega_model::tables::process::{Method, Product, Query, look_up};
use proptest::prelude::*;
use serde_json::Value;

use crate::loads::{jar_counts, number};

static HOUSEHOLD: Household = Household { finished: Vec::new() };

const ROOM: [Capacity; 3] = [
    Capacity { jar: JarSize::Quart, count: 7 },
    Capacity { jar: JarSize::Pint, count: 9 },
    Capacity { jar: JarSize::HalfPint, count: 12 },
];

fn making(product: Product, place: usize) -> Making {
    Making::ALL.into_iter().filter(|making| making.product == product).nth(place).unwrap()
}

fn choice(making: Making, jar: JarSize, goal: u32) -> Choice {
    let (minutes, acid_tsp) = match jar {
        JarSize::Quart => (50, 6.0),
        JarSize::Pint => (40, 3.0),
        _ => (45, 1.5),
    };
    Choice {
        making,
        jar,
        mouth: Mouth::Regular,
        minutes: Minutes(minutes),
        psi: None,
        acid_tsp,
        goal,
        preference: 1.0,
        pinned: None,
    }
}

fn whole_quarts(goal: u32) -> Choice {
    choice(making(Product::Whole, 0), JarSize::Quart, goal)
}

fn question(lots: &[(Kind, f64)], choices: Vec<Choice>, stock: Stock) -> Question<'static> {
    Question {
        lots: lots.iter().map(|(kind, lb)| Stuff::fruit(*kind, pounds(*lb))).collect(),
        choices,
        stock,
        room: &ROOM,
        turnaround: Minutes(20),
        household: &HOUSEHOLD,
    }
}

fn jars(found: &Split) -> Vec<u32> {
    found.shares.iter().map(|share| share.jars).collect()
}

/// Minutes, pounds and worth of so many jars of each choice, worked out from the rates alone.
struct Bill {
    worth: f64,
    fits: bool,
}

/// All lots of one kind, nothing drained: then the fruit a jar takes does not depend on the lot.
fn bill(question: &Question<'_>, counts: &[u32]) -> Bill {
    let pound = Stuff::fruit(question.lots[0].kind, pounds(1.0));
    let fruit: f64 = question.lots.iter().map(|lot| in_pounds(lot.mass)).sum();
    let (mut used, mut stove, mut hands, mut acid, mut worth) = (0.0, 0.0, 0.0, 0.0, 0.0);
    for (choice, count) in question.choices.iter().zip(counts) {
        let number = f64::from(*count);
        let lb = number * jar_quarts(choice.jar) / quarts_per_pound(&HOUSEHOLD, &choice.making, &pound);
        used += lb;
        stove += stove_time(&choice.making, &pound).get::<uom::si::time::minute>() * lb;
        hands += hands_per_lb(&choice.making, &Stuff::fruit(Kind::Paste, pounds(1.0))) * lb
            + HANDS_PER_JAR * number;
        acid += choice.acid_tsp * number;
        let wanted = f64::from((*count).min(choice.goal));
        worth += jar_quarts(choice.jar) * (choice.preference * wanted + 0.05 * number);
    }
    let canner = LEAST_MINUTES[place_of([0, 1, 2].map(|place| counts[place] as usize))];
    let stock = &question.stock;
    let within = |used: f64, there: Option<f64>| there.is_none_or(|there| used <= there + 1e-6);
    let sized = stock.jars.iter().all(|(size, there)| {
        let used: u32 = question
            .choices
            .iter()
            .zip(counts)
            .filter(|(choice, _)| choice.jar == *size)
            .map(|(_, n)| *n)
            .sum();
        used <= *there
    });
    // A burner minute costs a ten-thousandth of a quart.
    worth -= 1e-4 * stove;
    let fits = sized
        && used <= fruit + 1e-6
        && stock.lids.iter().all(|(_, lids)| counts.iter().sum::<u32>() <= *lids)
        && within(acid, stock.acid_tsp)
        && within(f64::from(canner), stock.canner_minutes)
        && within(stove, stock.stove_minutes)
        && within(hands, stock.hands_minutes);
    Bill { worth, fits }
}

/// Most jars of a choice that are tried.
const MOST: usize = 12;

/// Least minutes of the canner for so many quarts, pints and half pints, by trying every filling of every load.
static LEAST_MINUTES: LazyLock<Vec<u32>> = LazyLock::new(|| {
    let fits = |filling: [usize; 3]| {
        let shares = filling.iter().zip(ROOM).map(|(count, line)| *count as f64 / f64::from(line.count));
        shares.sum::<f64>() <= 1.0 + 1e-9
    };
    let mut fillings: Vec<([usize; 3], u32)> = Vec::new();
    for counts in every_count().skip(1).filter(|counts| fits(*counts)) {
        let longest =
            counts.iter().zip([50, 40, 45]).filter(|(count, _)| **count > 0).map(|(_, minutes)| minutes);
        fillings.push((counts, longest.max().unwrap() + 20));
    }
    let mut least: Vec<u32> = vec![0];
    for counts in every_count().skip(1) {
        let holds =
            |(filling, _): &&([usize; 3], u32)| filling.iter().zip(counts).all(|(gone, have)| *gone <= have);
        let after = |(filling, minutes): &([usize; 3], u32)| {
            let left = [0, 1, 2].map(|place| counts[place] - filling[place]);
            minutes + least[place_of(left)]
        };
        least.push(fillings.iter().filter(holds).map(after).min().unwrap());
    }
    least
});

fn every_count() -> impl Iterator<Item = [usize; 3]> {
    let one = MOST + 1;
    (0..one.pow(3)).map(move |place| [place / one / one, place / one % one, place % one])
}

const fn place_of([a, b, c]: [usize; 3]) -> usize {
    (a * (MOST + 1) + b) * (MOST + 1) + c
}

/// Tries every count of every choice.
fn exhaustive(question: &Question<'_>) -> f64 {
    let bills =
        every_count().map(|counts| bill(question, &counts.map(|count| u32::try_from(count).unwrap())));
    bills.filter(|bill| bill.fits).map(|bill| bill.worth).fold(0.0, f64::max)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn the_solver_finds_what_trying_everything_finds(
        lb in proptest::collection::vec(4.0..22.0_f64, 1..3),
        goals in proptest::collection::vec(0..9_u32, 3),
        preferences in proptest::collection::vec(1..4_u32, 3),
        quarts in 0..9_u32,
        lids in 2..12_u32,
        canner in 60.0..400.0_f64,
        stove in 20.0..400.0_f64,
        hands in 30.0..300.0_f64,
        acid in 6.0..60.0_f64,
    ) {
        let mut choices = vec![
            whole_quarts(goals[0]),
            choice(making(Product::Crushed, 0), JarSize::Pint, goals[1]),
            choice(making(Product::Paste, 0), JarSize::HalfPint, goals[2]),
        ];
        for (choice, preference) in choices.iter_mut().zip(preferences) {
            choice.preference = f64::from(preference);
        }
        let lots: Vec<(Kind, f64)> = lb.into_iter().map(|lb| (Kind::Slicer, lb)).collect();
        let stock = Stock {
            jars: vec![(JarSize::Quart, quarts), (JarSize::Pint, 8), (JarSize::HalfPint, 8)],
            lids: vec![(Mouth::Regular, lids)],
            acid_tsp: Some(acid),
            canner_minutes: Some(canner),
            stove_minutes: Some(stove),
            hands_minutes: Some(hands),
        };
        let question = question(&lots, choices, stock);
        let found = split(&question).unwrap();
        prop_assert!(found.proven);
        prop_assert!(bill(&question, &jars(&found)).fits, "{found:?}");
        let best = exhaustive(&question);
        prop_assert!((found.worth - best).abs() <= best * 2e-4 + 1e-6, "{} beside {best}", found.worth);
    }
}

#[test]
fn lids_limit_and_it_is_said_what_one_more_gains() {
    let stock = Stock { lids: vec![(Mouth::Regular, 5)], ..Stock::default() };
    let question = question(&[(Kind::Paste, 30.0)], vec![whole_quarts(10)], stock);
    let found = split(&question).unwrap();
    assert_eq!(jars(&found), [5]);
    let limits = limits(&question, &found).unwrap();
    assert_eq!(
        limits.iter().map(|limit| (limit.resource, limit.jars_more)).collect::<Vec<_>>(),
        [(Resource::Lids(Mouth::Regular), 1)]
    );
}

#[test]
fn fruit_limits_and_ten_pounds_more_gain_what_they_make() {
    // 15 lb at 3 lb a quart: five of the ten wanted; 10 lb more make three.
    let question = question(&[(Kind::Paste, 15.0)], vec![whole_quarts(10)], Stock::default());
    let found = split(&question).unwrap();
    assert_eq!(jars(&found), [5]);
    let limits = limits(&question, &found).unwrap();
    assert_eq!(
        limits.iter().map(|limit| (limit.resource, limit.jars_more)).collect::<Vec<_>>(),
        [(Resource::Fruit(0), 3)]
    );
}

#[test]
fn pinned_jars_stay_and_too_many_are_refused_in_words() {
    let lots = [(Kind::Paste, 30.0)];
    let mut crushed = choice(making(Product::Crushed, 0), JarSize::Quart, 0);
    crushed.pinned = Some(4);
    let found = split(&question(&lots, vec![whole_quarts(10), crushed], Stock::default())).unwrap();
    assert_eq!(found.shares[1].jars, 4);
    assert!(found.shares[0].jars < 10, "the rest makes way");
    crushed.pinned = Some(40);
    let refused = split(&question(&lots, vec![crushed], Stock::default()));
    assert_eq!(refused, Err(NoSplit::PinnedTooMuch));
}

#[test]
fn juice_drained_off_sauce_spares_the_stove_and_fills_juice_jars() {
    let sauce = choice(making(Product::Sauce, 0), JarSize::Pint, 12);
    let juice = choice(making(Product::Juice, 0), JarSize::Quart, 3);
    let lots = [(Kind::Paste, 40.0)];
    // Too few burner hours to boil all of the water away.
    let stock = Stock { stove_minutes: Some(115.0), ..Stock::default() };
    let with_juice = split(&question(&lots, vec![sauce, juice], stock.clone())).unwrap();
    let without = split(&question(&lots, vec![sauce], stock)).unwrap();
    assert!(with_juice.worth > without.worth);
    assert!(in_quarts(with_juice.shares[0].drained) > 0.0, "{with_juice:?}");
    let most = 40.0 / 3.25 / 3.0 * 0.5;
    assert!(
        in_quarts(with_juice.shares[0].drained) <= most + 1e-6,
        "no more than half of what would boil away"
    );
}

#[test]
fn paste_fruit_goes_to_sauce_and_slicers_to_juice_when_the_stove_is_short() {
    let sauce = choice(making(Product::Sauce, 1), JarSize::Pint, 20);
    let juice = choice(making(Product::Juice, 0), JarSize::Quart, 12);
    let stock = Stock { stove_minutes: Some(240.0), ..Stock::default() };
    let found =
        split(&question(&[(Kind::Paste, 35.0), (Kind::Slicer, 35.0)], vec![sauce, juice], stock)).unwrap();
    let share = |choice: usize, lot: usize| in_pounds(found.shares[choice].fruit[lot]);
    assert!(share(0, 0) > share(0, 1), "sauce takes the paste fruit: {found:?}");
    assert!(share(1, 1) > share(1, 0), "juice takes the slicers: {found:?}");
}

#[test]
fn a_large_day_is_solved_and_proven() {
    let lots: Vec<(Kind, f64)> = (0..8)
        .map(|lot| (Kind::TOMATOES[lot % 4], 18.0 + 7.0 * f64::from(u8::try_from(lot).unwrap())))
        .collect();
    let mut choices: Vec<Choice> = Making::ALL
        .into_iter()
        .take(8)
        .map(|making| choice(making, bodega_model::plan::making::usual_jar(&making), 9))
        .collect();
    choices[3].preference = 3.0;
    let stock = Stock {
        jars: vec![(JarSize::Quart, 40), (JarSize::Pint, 30)],
        lids: vec![(Mouth::Regular, 60)],
        acid_tsp: Some(260.0),
        canner_minutes: Some(480.0),
        stove_minutes: Some(4.0 * 480.0),
        hands_minutes: Some(2.0 * 480.0),
    };
    let found = split(&question(&lots, choices, stock)).unwrap();
    assert!(found.proven);
    assert!(jars(&found).iter().sum::<u32>() > 30);
}

/// The canner of a drawn question.
fn room_of(drawn: &Value) -> Vec<Capacity> {
    jar_counts(&drawn["capacity"]).map(|(jar, count)| Capacity { jar, count }).collect()
}

/// A drawn question, in the published times of 2,640 ft.
fn question_of<'a>(drawn: &Value, room: &'a Vec<Capacity>) -> Question<'a> {
    let altitude = Altitude::from_feet(2640.0).unwrap();
    let lots = drawn["lots"].as_array().unwrap().iter().map(|lot| {
        let kind: Kind = serde_json::from_value(lot[0].clone()).unwrap();
        Stuff::fruit(kind, pounds(lot[1].as_f64().unwrap()))
    });
    let choices = drawn["choices"].as_array().unwrap().iter().map(|line| {
        let making = Making::ALL[usize::try_from(line["making"].as_u64().unwrap()).unwrap()];
        let jar: JarSize = serde_json::from_value(line["jar"].clone()).unwrap();
        let query = Query {
            product: making.product,
            medium: making.medium,
            pack: making.pack,
            method: Method::BoilingWater,
            jar,
            altitude,
        };
        Choice {
            minutes: look_up(&query).unwrap().options[0].minutes,
            preference: line["preference"].as_f64().unwrap(),
            ..choice(making, jar, number(&line["goal"]))
        }
    });
    let stock = &drawn["stock"];
    Question {
        lots: lots.collect(),
        choices: choices.collect(),
        stock: Stock {
            jars: jar_counts(&stock["jars"]).collect(),
            lids: vec![(Mouth::Regular, number(&stock["lids"]))],
            acid_tsp: stock["acid_tsp"].as_f64(),
            canner_minutes: stock["canner"].as_f64(),
            stove_minutes: stock["stove"].as_f64(),
            hands_minutes: stock["hands"].as_f64(),
        },
        room,
        turnaround: Minutes(number(&drawn["turnaround"])),
        household: &HOUSEHOLD,
    }
}

#[test]
fn splits_with_shared_loads_are_worth_what_another_solver_proved() {
    let document: Value = serde_json::from_str(include_str!("data/split_shared_loads.json")).unwrap();
    let questions = document["questions"].as_array().unwrap();
    assert_eq!(questions.len(), 25);
    for (number, known) in questions.iter().enumerate() {
        let room = room_of(&known["question"]);
        let question = question_of(&known["question"], &room);
        let found = split(&question).unwrap();
        let (worth, at_most) = (known["worth"].as_f64().unwrap(), known["at_most"].as_f64().unwrap());
        assert!(found.proven, "{number}");
        let slack = worth * 2e-4;
        assert!(
            (worth - slack..=at_most + slack).contains(&found.worth),
            "{number}: {} for {worth}",
            found.worth
        );
        loads_hold(&question, &found, &room);
    }
}

/// Every jar is in a load that lasts as long as it needs, no load is overfull, and all are done within the hours.
fn loads_hold(question: &Question<'_>, found: &Split, room: &[Capacity]) {
    let mut held = vec![0; question.choices.len()];
    let mut minutes = 0;
    for load in &found.loads {
        let mut share = 0.0;
        for (place, count) in &load.jars {
            let choice = &question.choices[*place];
            held[*place] += count;
            assert!(choice.minutes <= load.minutes, "a jar got less than its time");
            share +=
                f64::from(*count) / f64::from(room.iter().find(|line| line.jar == choice.jar).unwrap().count);
        }
        assert!(share <= 1.0 + 1e-9, "overfull: {share}");
        minutes += load.minutes.0 + question.turnaround.0;
    }
    assert_eq!(held, jars(found));
    assert!(f64::from(minutes) <= question.stock.canner_minutes.unwrap());
}

#[test]
fn jars_of_two_products_share_the_load_that_there_is_time_for() {
    // One load of an hour and a half, and room for seven quarts: four of one and three of the other.
    let (mut whole, mut juice) = (whole_quarts(4), choice(making(Product::Juice, 0), JarSize::Quart, 3));
    whole.minutes = Minutes(45);
    juice.minutes = Minutes(40);
    let stock = Stock { canner_minutes: Some(65.0), ..Stock::default() };
    let found = split(&question(&[(Kind::Paste, 90.0)], vec![whole, juice], stock.clone())).unwrap();
    assert_eq!(jars(&found), [4, 3]);
    assert_eq!((found.loads.len(), found.loads[0].minutes), (1, Minutes(45)));
    // At another pressure they may not.
    juice.psi = Some(11);
    let apart = split(&question(&[(Kind::Paste, 90.0)], vec![whole, juice], stock)).unwrap();
    assert!(jars(&apart).contains(&0) && apart.worth < found.worth, "{apart:?}");
}
