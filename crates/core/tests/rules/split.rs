//! The best split against an exhaustive search that shares no code with the solver, and against its own promises.

use bodega_core::crates::fruit::Kind;
use bodega_core::jars::size::{JarSize, Mouth};
use bodega_core::ledger::food::{Food, Stuff};
use bodega_core::measures::moment::Minutes;
use bodega_core::measures::units::{in_pounds, in_quarts, pounds};
use bodega_core::plan::making::Making;
use bodega_core::plan::outlook::{HANDS_PER_JAR, hands_per_lb, stove_time};
use bodega_core::plan::split::{Choice, NoSplit, Question, Resource, Split, Stock, limits, split};
use bodega_core::plan::stuff::{jar_quarts, quarts_per_pound};
use bodega_core::plan::yields::learn::Household;
use bodega_core::tables::process::Product;
use proptest::prelude::*;

static HOUSEHOLD: Household = Household { finished: Vec::new() };

fn making(product: Product, place: usize) -> Making {
    Making::ALL.into_iter().filter(|making| making.product == product).nth(place).unwrap()
}

fn choice(making: Making, jar: JarSize, goal: u32) -> Choice {
    let (minutes, fits, acid_tsp) = match jar {
        JarSize::Quart => (50, 7, 6.0),
        JarSize::Pint => (40, 9, 3.0),
        _ => (45, 12, 1.5),
    };
    Choice {
        making,
        jar,
        mouth: Mouth::Regular,
        minutes: Minutes(minutes),
        fits,
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
    let (mut used, mut canner, mut stove, mut hands, mut acid, mut worth) = (0.0, 0.0, 0.0, 0.0, 0.0, 0.0);
    for (choice, count) in question.choices.iter().zip(counts) {
        let number = f64::from(*count);
        let lb = number * jar_quarts(choice.jar) / quarts_per_pound(&HOUSEHOLD, &choice.making, &pound);
        let loads = count.div_ceil(choice.fits);
        used += lb;
        canner += f64::from(loads * (choice.minutes.0 + question.turnaround.0));
        stove += stove_time(&choice.making, &pound).get::<uom::si::time::minute>() * lb;
        hands += hands_per_lb(&choice.making, Food::Fruit) * lb + HANDS_PER_JAR * number;
        acid += choice.acid_tsp * number;
        let wanted = f64::from((*count).min(choice.goal));
        worth += jar_quarts(choice.jar) * (choice.preference * wanted + 0.05 * number);
    }
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
        && within(canner, stock.canner_minutes)
        && within(stove, stock.stove_minutes)
        && within(hands, stock.hands_minutes);
    Bill { worth, fits }
}

/// Tries every count of every choice.
fn exhaustive(question: &Question<'_>, most: u32) -> f64 {
    let mut best: f64 = 0.0;
    let mut counts = vec![0; question.choices.len()];
    loop {
        let bill = bill(question, &counts);
        if bill.fits {
            best = best.max(bill.worth);
        }
        let Some(place) = counts.iter().position(|count| *count < most) else { return best };
        counts[..place].fill(0);
        counts[place] += 1;
    }
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
        let best = exhaustive(&question, 12);
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
    let lots: Vec<(Kind, f64)> =
        (0..8).map(|lot| (Kind::ALL[lot % 4], 18.0 + 7.0 * f64::from(u8::try_from(lot).unwrap()))).collect();
    let mut choices: Vec<Choice> = Making::ALL
        .into_iter()
        .take(8)
        .map(|making| choice(making, bodega_core::plan::making::usual_jar(&making), 9))
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
