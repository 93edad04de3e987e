//! Spoons, grams, millilitres and bottles; the cupboard that holds them; the window of the lids.

use bodega_core::jars::bench::{JarStep, bench_steps, last_step, may_tick, next_step, state_of};
use bodega_core::jars::salt::salt_per_jar;
use bodega_core::kitchen::cupboard::missing;
use bodega_core::towel::seal::{Cooling, fridge_days, fridge_until, window};
use bodega_model::jars::acid::{
    Agent, CITRIC_G_PER_TSP, LeastDose, bottles, grams, least_per_jar, measured, per_jar, pot_share,
    teaspoons_of, total,
};
use bodega_model::jars::size::{JarSize, Mouth, TableJar};
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::standing::Mending;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::teaspoons::{ML_PER_TSP, Teaspoons};
use bodega_model::measures::units::{
    grams as grams_of, in_cups, in_pounds, in_quarts, litres, millilitres, pounds,
};
use bodega_model::records::stock::{AcidStock, Cupboard, JarStock, LidStock};
use bodega_model::tables::process::Method;
use bodega_model::towel::liquid::LiquidLost;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use uom::si::mass::gram;
use uom::si::volume::milliliter;

use super::kitchen::{START, at, jar, load};

fn close(a: f64, b: f64) -> bool {
    (a - b).abs() <= 1e-9 * b.abs().max(1.0)
}

/// Doses of USDA Guide 3, from memory, in teaspoons; the sizes between in proportion and up to the next spoon.
#[test]
fn every_jar_has_its_dose_of_every_agent() {
    use JarSize::{HalfGallon, HalfLitre, HalfPint, Litre, Pint, PintAndHalf, Quart};
    let table = [
        (HalfPint, "½ Tbsp", "⅛ tsp", "1 Tbsp"),
        (Pint, "1 Tbsp", "¼ tsp", "2 Tbsp"),
        (HalfLitre, "1 Tbsp + ½ tsp", "⅜ tsp", "2 Tbsp + ½ tsp"),
        (PintAndHalf, "1½ Tbsp", "⅜ tsp", "3 Tbsp"),
        (Quart, "2 Tbsp", "½ tsp", "4 Tbsp"),
        (Litre, "2 Tbsp + ½ tsp", "⅝ tsp", "4 Tbsp + 1 tsp"),
        (HalfGallon, "4 Tbsp", "1 tsp", "8 Tbsp"),
    ];
    for (size, lemon, citric, vinegar) in table {
        let label = |agent| per_jar(agent, size).label();
        assert_eq!(label(Agent::BottledLemonJuice), lemon, "{size}");
        assert_eq!(label(Agent::CitricAcid), citric, "{size}");
        assert_eq!(label(Agent::Vinegar5Pct), vinegar, "{size}");
        for agent in Agent::ALL {
            let least = least_per_jar(*agent, size);
            assert!(least <= per_jar(*agent, size), "{agent} in a {size} is rounded up, never down");
        }
    }
    for (metric, us) in [(HalfLitre, Pint), (Litre, Quart)] {
        assert_eq!(least_per_jar(Agent::CitricAcid, metric), per_jar(Agent::CitricAcid, us));
    }
}

#[test]
fn a_mix_needs_the_sum_of_its_doses() {
    let mix = [(JarSize::Quart, 3), (JarSize::Pint, 4), (JarSize::HalfLitre, 2), (JarSize::Litre, 0)];
    assert_eq!(total(Agent::BottledLemonJuice, &mix), Teaspoons::new(18 + 12 + 7, 1));
    // The pot is shared by volume: 36 tsp in the published dose for each.
    let us = [(JarSize::Quart, 3), (JarSize::Pint, 4), (JarSize::HalfPint, 4)];
    let shares = us.map(|(jar, _)| pot_share(36.0, jar, &us));
    assert!(shares.iter().zip([6.0, 3.0, 1.5]).all(|(share, tsp)| close(*share, tsp)), "{shares:?}");
    assert!(close(pot_share(36.0, JarSize::Quart, &[]), 0.0));
    assert_eq!(total(Agent::CitricAcid, &[]), Teaspoons::ZERO);
}

#[test]
fn a_dose_is_enough_from_its_own_amount_on() {
    let dose = |given_tsp| LeastDose { needed: Teaspoons::new(6, 1), given_tsp };
    for (given, short) in
        [(6.0, 0.0), (7.0, 0.0), (6.0 - 5e-7, 0.0), (6.0 - 3e-6, 3e-6), (4.0, 2.0), (0.0, 6.0)]
    {
        assert!((dose(given).short_tsp() - short).abs() < 1e-7, "{given}");
        assert_eq!(dose(given).enough(), short < 2e-6, "{given}");
    }
}

#[test]
fn decimals_are_said_in_eighths_and_upwards() {
    for (tsp, said) in [
        (0.0, "0 tsp"),
        (0.01, "⅛ tsp"),
        (0.125, "⅛ tsp"),
        (0.125_000_01, "⅛ tsp"),
        (0.126, "¼ tsp"),
        (1.0, "1 tsp"),
        (1.51, "1⅝ tsp"),
        (6.0, "2 Tbsp"),
        (12.0, "¼ cup"),
        (96.0, "2 cups"),
        (-3.0, "0 tsp"),
    ] {
        let amount = Spoons::Us.amount_with_volume(Agent::BottledLemonJuice, tsp);
        assert_eq!(amount.split(" (").next(), Some(said), "{tsp}");
    }
}

#[test]
fn crystals_are_weighed_and_liquids_measured() {
    let amount = Teaspoons::new(3, 1);
    assert_eq!(grams(Agent::BottledLemonJuice, amount), None);
    assert_eq!(grams(Agent::Vinegar5Pct, amount), None);
    assert!(close(grams(Agent::CitricAcid, amount).unwrap(), 15.0));
    assert!(close(CITRIC_G_PER_TSP, 5.0));
    assert!(close(measured(Agent::CitricAcid, amount), 15.0));
    // A US tablespoon is 14.786 764 781 25 mL exactly.
    assert!(close(measured(Agent::BottledLemonJuice, amount), 14.786_764_781_25));
    for agent in Agent::ALL {
        assert!(close(teaspoons_of(*agent, measured(*agent, amount)), 3.0), "{agent} there and back");
        assert!(
            close(teaspoons_of(*agent, 100.0), 100.0 / measured(*agent, Teaspoons::new(1, 1))),
            "{agent}"
        );
    }
    assert!(close(Teaspoons::new(1, 2).millilitres(), ML_PER_TSP / 2.0));
}

#[test]
fn bottles_are_whole_and_enough() {
    // A bottle of 15 fl oz, 443.6 mL, holds 90 tsp.
    let bottle = millilitres(90.0 * ML_PER_TSP);
    let count = |tsp| bottles(Agent::BottledLemonJuice, Teaspoons::new(tsp, 1), bottle);
    assert_eq!([0, 1, 89, 90, 91, 180, 181].map(count), [0, 1, 1, 1, 2, 2, 3].map(Some));
    assert_eq!(bottles(Agent::Vinegar5Pct, Teaspoons::new(90, 1), bottle), Some(1));
    assert_eq!(bottles(Agent::CitricAcid, Teaspoons::new(90, 1), bottle), None);
}

#[test]
fn jars_have_their_mouth_their_row_and_their_volume() {
    // Pints and litres by definition: 473.176 473 mL.
    let table = [
        (JarSize::HalfPint, Mouth::Regular, TableJar::Published(JarSize::Pint), 236.588_236_5),
        (JarSize::Pint, Mouth::Regular, TableJar::Published(JarSize::Pint), 473.176_473),
        (JarSize::HalfLitre, Mouth::Regular, TableJar::CommonPractice(JarSize::Pint), 500.0),
        (JarSize::PintAndHalf, Mouth::Wide, TableJar::Published(JarSize::Quart), 709.764_709_5),
        (JarSize::Quart, Mouth::Regular, TableJar::Published(JarSize::Quart), 946.352_946),
        (JarSize::Litre, Mouth::Regular, TableJar::CommonPractice(JarSize::Quart), 1000.0),
        (JarSize::HalfGallon, Mouth::Wide, TableJar::Untested, 1_892.705_892),
    ];
    for (size, mouth, row, volume) in table {
        assert_eq!((size.usual_mouth(), size.table_jar()), (mouth, row), "{size}");
        assert!((size.volume().get::<milliliter>() - volume).abs() < 1e-3, "{size}");
        assert_eq!(size.plural(), format!("{}s", size.label()));
    }
}

#[test]
fn units_are_their_exact_definitions() {
    assert!(close(in_pounds(grams_of(453_592_370)), 1_000_000.0));
    assert!(close(pounds(1.0).get::<gram>(), 453.592_37));
    assert!(close(in_quarts(litres(0.946_352_946)), 1.0));
    assert!(close(in_cups(millilitres(236.588_236_5)), 1.0));
    assert_eq!(Moment(5).plus_minutes(2), Moment(120_005));
    assert_eq!(Moment(5).plus(Minutes(2)), Moment(120_005));
    assert_eq!(Moment(5).plus_time(Moment(90_005).since(Moment(5))), Moment(90_005));
    assert_eq!(
        (Moment(9).since_ms(Moment(4)), Minutes(3).ms(), Minutes(3).to_string()),
        (5, 180_000, "3 min".to_owned())
    );
}

#[test]
fn salt_is_a_teaspoon_a_quart_and_a_half_a_pint() {
    for (size, said) in [
        (JarSize::Quart, "1 tsp"),
        (JarSize::Pint, "½ tsp"),
        (JarSize::HalfPint, "¼ tsp"),
        (JarSize::HalfGallon, "2 tsp"),
    ] {
        assert_eq!(salt_per_jar(size).label(), said, "{size}");
    }
}

#[test]
fn steps_stand_in_working_order_and_imply_what_comes_before_but_the_acid() {
    use JarStep::{Acid, Bubbles, Filled, Lid, Rim, Salt};
    assert_eq!(Acid.implies(), [Acid]);
    assert_eq!(Salt.implies(), [Salt]);
    assert_eq!(Filled.implies(), [Salt, Filled]);
    assert_eq!(Lid.implies(), [Salt, Filled, Bubbles, Rim, Lid]);
    assert_eq!(Acid.reopens(), [Acid, Bubbles, Rim, Lid], "the food stays in, and the dose takes room");
    assert_eq!(Rim.reopens(), [Rim, Lid]);

    let mut one = jar(4, 1, JarSize::Quart);
    assert_eq!(next_step(&one, &[]), Some(Acid));
    for step in [Salt, Filled, Bubbles, Rim, Lid] {
        assert_eq!(may_tick(&one, step, false, &[]).unwrap_err().number, 4, "{step}");
    }
    assert_eq!(may_tick(&one, Acid, false, &[]), Ok(()));
    assert_eq!(may_tick(&one, Filled, true, &[]), Ok(()), "the food is in already");
    for step in [Bubbles, Rim, Lid] {
        assert!(may_tick(&one, step, true, &[]).is_err(), "{step}: acid after the lid is not acid");
    }
    one.filled = true;
    assert_eq!((next_step(&one, &[]), last_step(&one)), (Some(Acid), Some(Filled)));
    assert_eq!(state_of(&one, &[]), "filled, needs acid");
    (one.filled, one.acid) = (false, true);
    assert_eq!(last_step(&one), Some(Acid));
    assert_eq!(next_step(&one, &[]), Some(Filled), "no salt is wanted");
    assert_eq!(may_tick(&one, Lid, false, &[]), Ok(()));
    one.wants_salt = true;
    assert_eq!(next_step(&one, &[]), Some(Salt));
    assert_eq!(state_of(&one, &[]), "acid in");
    one.salt = true;
    one.wants_salt = false;
    assert_eq!(state_of(&one, &[]), "acid in", "salt that nobody wants is not shown");
    (one.filled, one.bubbles, one.rim, one.lid) = (true, true, true, true);
    assert_eq!((next_step(&one, &[]), state_of(&one, &[])), (None, "lid on".to_owned()));

    let steps =
        |jars: &[_]| bench_steps(jars, &[]).iter().map(|step| (step.step, step.have)).collect::<Vec<_>>();
    let other = jar(5, 1, JarSize::Quart);
    assert_eq!(
        steps(&[one.clone(), other.clone()]),
        [(Acid, 1), (Filled, 1), (Bubbles, 1), (Rim, 1), (Lid, 1)]
    );
    one.wants_salt = true;
    assert_eq!(steps(&[one, other])[1], (Salt, 1));
    assert_eq!(steps(&[]), []);
}

fn cupboard(quarts: Option<u32>, lids: Option<u32>, lemon_ml: Option<f64>) -> Cupboard {
    Cupboard {
        jars: vec![JarStock { jar: JarSize::Quart, mouth: Mouth::Regular, counted: quarts, used: 1 }],
        lids: vec![
            LidStock { mouth: Mouth::Wide, counted: Some(0), used: 0 },
            LidStock { mouth: Mouth::Regular, counted: lids, used: 2 },
        ],
        acids: vec![AcidStock {
            agent: Agent::BottledLemonJuice,
            counted: lemon_ml,
            used: 100.0,
            opened_on: None,
        }],
    }
}

#[test]
fn the_cupboard_says_what_is_missing_and_nothing_of_what_nobody_counted() {
    let lacks =
        |cupboard: &Cupboard, count| missing(cupboard, Agent::BottledLemonJuice, JarSize::Quart, count);
    let never_counted = cupboard(None, None, None);
    assert_eq!(lacks(&never_counted, 50), [""; 0]);
    // Seven quarts take seven jars, seven lids and 207 mL.
    let seven = 100.0 + measured(Agent::BottledLemonJuice, Teaspoons::new(42, 1));
    assert_eq!(lacks(&cupboard(Some(8), Some(9), Some(seven)), 7), [""; 0]);
    assert_eq!(lacks(&cupboard(Some(7), Some(9), Some(seven)), 7), ["1 quart"]);
    assert_eq!(lacks(&cupboard(Some(5), Some(9), Some(seven)), 7), ["3 quarts"]);
    assert_eq!(lacks(&cupboard(Some(8), Some(8), Some(seven)), 7), ["1 lid"]);
    assert_eq!(lacks(&cupboard(Some(8), Some(0), Some(seven)), 7), ["7 lids"]);
    assert_eq!(lacks(&cupboard(Some(8), Some(9), Some(seven - 0.1)), 7), ["bottled lemon juice"]);
    assert_eq!(lacks(&cupboard(Some(0), None, Some(0.0)), 2), ["2 quarts", "bottled lemon juice"]);
    // Another agent and another size were never counted.
    assert_eq!(missing(&cupboard(Some(0), Some(0), None), Agent::CitricAcid, JarSize::Pint, 9), [""; 0]);
}

#[test]
fn what_is_left_never_falls_below_nothing() {
    assert_eq!(cupboard(Some(0), Some(1), Some(50.0)).jars[0].left(), Some(0));
    assert_eq!(cupboard(Some(5), None, None).jars[0].left(), Some(4));
    assert_eq!(cupboard(None, Some(7), None).lids[1].left(), Some(5));
    assert_eq!(cupboard(None, None, None).lids[1].left(), None);
    let left = |counted| cupboard(None, None, counted).acids[0].left();
    assert_eq!(left(None), None);
    assert!(close(left(Some(50.0)).unwrap(), 0.0) && close(left(Some(150.0)).unwrap(), 50.0));
}

#[test]
fn lids_are_judged_between_twelve_and_twenty_four_hours() {
    assert_eq!(window(START), (at(12 * 60), at(24 * 60)));
    assert_eq!(fridge_until(START, fridge_days(None)), at(4 * 24 * 60));
    assert_eq!(fridge_until(START, fridge_days(Some(LiquidLost::Some))), at(4 * 24 * 60));
    assert_eq!(fridge_until(START, fridge_days(Some(LiquidLost::Half))), at(3 * 24 * 60));
    let again = |verdict: LidVerdict, ms: i64| {
        let jar = Cooling {
            verdict: Some(verdict),
            processed: true,
            dosed: true,
            mending: Mending::Nothing,
            lifted_at: START,
            chilled_at: None,
        };
        jar.may(Rescue::Reprocess, None, Moment(at(24 * 60).0 + ms)).is_ok()
    };
    for verdict in LidVerdict::ALL {
        let may = matches!(verdict, LidVerdict::Failed | LidVerdict::Doubtful);
        assert_eq!(again(*verdict, 0), may, "{verdict} at the end of the day");
        assert!(!again(*verdict, 1), "{verdict} a moment later");
    }
}

#[test]
fn a_jar_on_the_towel_is_open_until_it_is_judged_and_dealt_with() {
    use bodega_model::measures::ids::{BatchId, JarId};
    use bodega_model::records::towel::TowelJar;
    let open = |verdict, rescue, tidy, dosed| {
        let jar = TowelJar {
            product: bodega_model::tables::process::Product::Whole,
            named: None,
            id: JarId(1),
            batch: BatchId(1),
            code: String::new(),
            number: 1,
            size: JarSize::Quart,
            liquid_lost: None,
            verdict,
            second_look: None,
            judged_at: None,
            rescue,
            rescued_at: None,
            tidy,
            dosed,
            standing: bodega_model::judge::standing::JarStanding::CLEAR,
        };
        jar.is_open()
    };
    let is_open = |verdict, rescue, tidy| open(verdict, rescue, tidy, true);
    for verdict in [None, Some(LidVerdict::Holds), Some(LidVerdict::Failed)] {
        assert!(open(verdict, None, true, false), "{verdict:?} without its acid");
        assert!(!open(verdict, Some(Rescue::Refrigerator), true, false));
    }
    assert!(!open(Some(LidVerdict::Broken), None, true, false));
    assert!(is_open(None, None, false) && is_open(None, None, true));
    assert!(is_open(Some(LidVerdict::Holds), None, false) && !is_open(Some(LidVerdict::Holds), None, true));
    for verdict in [LidVerdict::Failed, LidVerdict::Doubtful] {
        assert!(is_open(Some(verdict), None, false));
        assert!(!is_open(Some(verdict), Some(Rescue::Freezer), false));
    }
    assert!(!is_open(Some(LidVerdict::Broken), None, false));
}

#[test]
fn acid_in_the_pot_counts_for_every_jar_once_it_is_enough_for_all() {
    use bodega_core::jars::doses::{DosedPot, doses, has_acid};
    use bodega_model::measures::ids::BatchId;
    let quart = jar(1, 1, JarSize::Quart);
    // Two quarts take 4 Tbsp of lemon juice.
    let pot = |given_tsp| [DosedPot { batch: BatchId(1), given_tsp, jars: vec![(JarSize::Quart, 2)] }];
    assert!(has_acid(&quart, &pot(12.0)) && !has_acid(&quart, &pot(11.9)) && !has_acid(&quart, &[]));
    assert!(!has_acid(&jar(1, 2, JarSize::Quart), &pot(12.0)), "another batch's pot");
    assert_eq!(next_step(&quart, &pot(12.0)), Some(JarStep::Filled));
    assert_eq!(state_of(&quart, &pot(12.0)), "acid in the pot");
    assert_eq!(may_tick(&quart, JarStep::Lid, false, &pot(12.0)), Ok(()));
    assert!(may_tick(&quart, JarStep::Lid, false, &pot(9.0)).is_err());
    let steps = bench_steps(std::slice::from_ref(&quart), &pot(12.0));
    assert_eq!((steps[0].step, steps[0].have), (JarStep::Acid, 1));
    let bench = load(Method::BoilingWater, 50, vec![quart], &[]);
    let to_add = |pots: &[DosedPot]| doses(&bench, pots, Spoons::Us)[0].to_add.clone();
    assert_eq!(to_add(&[]).as_deref(), Some("2 Tbsp"));
    assert_eq!(to_add(&pot(9.0)).as_deref(), Some("½ Tbsp"), "three teaspoons short for two jars");
    assert_eq!(to_add(&pot(12.0)), None);
}

#[test]
fn only_food_that_spoiled_speaks_of_its_sisters() {
    use bodega_model::shelf::leaving::Discard;
    let spoiled = |why: &Discard| why.is_spoilage();
    let of_itself: Vec<Discard> = Discard::ALL.iter().copied().filter(|why| !spoiled(why)).collect();
    // Too old, dropped, or never put right on the towel: nothing that another jar of the batch could share.
    assert_eq!(of_itself, [Discard::Old, Discard::Dropped, Discard::TooLate]);
}
