//! A recipe on its way to jars: its own minutes by the printed bands, the canner that it prints a time for, its tomatoes.

use bodega_core::canner::room::room_of;
use bodega_core::judge::ph_bench::may_water_bath;
use bodega_core::judge::recipe_page::{MayCan, stands};
use bodega_core::plan::batch::work_out;
use bodega_core::plan::by_recipe::{NoJars, Wanted, canner, shopping, tomatoes, wish};
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::{copy, scaled};
use bodega_core::recipe::shipped::all;
use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Ruling;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::ids::{BenchPhId, CannerId, LotId};
use bodega_model::measures::moment::Minutes;
use bodega_model::records::canner::Canner;
use bodega_model::records::kitchen::Units;
use bodega_model::records::recipe::{BenchPh, RecipeText};
use bodega_model::tables::process::{Method, RefusalCode};

use super::kitchen::{at, canner as a_canner, lot};

fn text(key: &str) -> RecipeText {
    all().iter().find(|shipped| shipped.key == key).unwrap().text.clone()
}

fn minutes_at(
    key: &str,
    factor: f64,
    jar: Option<JarSize>,
    feet: f64,
) -> Result<(u32, Vec<u32>), RefusalCode> {
    let canner = a_canner(Method::BoilingWater);
    let wanted = Wanted { factor, jar, mix: None };
    let wish = wish(&text(key), &wanted, &canner, Altitude::from_feet(feet).unwrap()).unwrap();
    let plan = match work_out(&wish, &room_of(&canner, &Default::default()), Minutes(25)) {
        Ok(plan) => plan,
        Err(bodega_core::plan::batch::NoPlan::Refused(refusal)) => return Err(refusal.code),
        Err(other) => panic!("{other}"),
    };
    assert!(
        plan.mix.iter().all(|line| line.acid.as_f64() == 0.0 && line.salt.as_f64() == 0.0),
        "no second dose"
    );
    Ok((plan.full_jars.expected, plan.loads.loads.iter().map(|load| load.minutes.0).collect()))
}

#[test]
fn a_recipe_has_the_minutes_of_its_own_bands_and_jars() {
    // Sixteen to eighteen pints; 15, 20 and 25 minutes up to 1,000 and 6,000 ft and above (USDA Guide 3, from memory).
    assert_eq!(minutes_at("salsa_paste_tomato", 1.0, None, 1000.0), Ok((17, vec![15, 15])));
    assert_eq!(minutes_at("salsa_paste_tomato", 1.0, None, 1001.0), Ok((17, vec![20, 20])));
    assert_eq!(minutes_at("salsa_paste_tomato", 0.5, None, 6001.0), Ok((8, vec![25])));
    // Half-pints take the time of the pint, quarts none.
    assert_eq!(minutes_at("salsa_paste_tomato", 0.25, Some(JarSize::HalfPint), 0.0).unwrap().1, [15]);
    assert_eq!(
        minutes_at("salsa_paste_tomato", 1.0, Some(JarSize::Quart), 0.0),
        Err(RefusalCode::JarNotTested)
    );
    // What prints a pressure alone has no time in water.
    assert_eq!(minutes_at("sauce_without_meat", 1.0, None, 0.0), Err(RefusalCode::NoTestedProcess));
}

#[test]
fn the_canner_is_one_that_the_recipe_prints_a_time_for() {
    let water = a_canner(Method::BoilingWater);
    let gauge = Canner { id: CannerId(2), ..a_canner(Method::PressureDial) };
    let both = [water.clone(), gauge.clone()];
    let of = |key: &str, in_use: &Canner| canner(text(key).process.as_ref(), in_use, &both).id;
    assert_eq!(of("salsa_paste_tomato", &gauge), water.id);
    assert_eq!(of("sauce_without_meat", &water), gauge.id);
    assert_eq!(canner(None, &water, &both).id, water.id);
}

#[test]
fn what_fills_no_jars_says_why() {
    let canner = a_canner(Method::BoilingWater);
    let here = Altitude::from_feet(2640.0).unwrap();
    let wanted = Wanted { factor: 1.0, jar: None, mix: None };
    let made_up = RecipeText { process: None, ..text("ketchup") };
    assert_eq!(wish(&made_up, &wanted, &canner, here), Err(NoJars::NoProcess));
    let unsaid = RecipeText { makes: None, ..text("ketchup") };
    assert_eq!(wish(&unsaid, &wanted, &canner, here), Err(NoJars::HowMany));
    let said = Wanted { mix: Some(vec![(JarSize::Pint, 5)]), ..wanted };
    assert_eq!(wish(&unsaid, &said, &canner, here).unwrap().agent, Agent::Vinegar5Pct);
}

#[test]
fn tomatoes_are_drawn_as_far_as_they_are_needed_and_the_rest_is_bought() {
    let lots = [1, 2].map(|id| lot(LotId(id), Kind::Paste, Condition::FirmRipe, None));
    let parts = parts_of(&text("chile_salsa"));
    // Five pounds a time, of two lots of twenty.
    let times = |factor: f64| scaled(&parts, &exact(factor));
    let drawn = |factor: f64| {
        let found = tomatoes(&times(factor), &lots);
        (found.draws.iter().map(|draw| draw.weight_g).collect::<Vec<_>>(), found.short_g().map(f64::round))
    };
    assert_eq!(drawn(2.0), (vec![4536], None));
    assert_eq!(drawn(5.0), (vec![9072, 2268], None));
    assert_eq!(drawn(9.0), (vec![9072, 9072], Some(2268.0)));
    let list = shopping(&times(9.0), &tomatoes(&times(9.0), &lots), Units::Us);
    assert_eq!(list[0], "about 5 lb of tomatoes more");
    assert!(list.contains(&"9 cups vinegar 5 %".to_owned()), "{list:?}");
}

#[test]
fn a_copy_keeps_what_was_held_against_a_copy_and_rounds_to_the_safe_side() {
    let checked = RecipeText { process_ticked: true, ..text("free_choice_salsa") };
    let half = copy(&checked, 0.5);
    assert_eq!(half.name, format!("{} × 0.5", checked.name));
    assert_eq!(stands(&half, None).standing, stands(&checked, None).standing);
    let kept = bodega_core::recipe::compare::compare(&parts_of(&checked), &parts_of(&half));
    assert_eq!(kept.verdict, Ruling::Fine, "{kept:?}");
    assert!((half.makes.unwrap().high - 3.0).abs() < 1e-9);
}

#[test]
fn a_meter_forbids_and_never_allows() {
    let reading = |ph: f64, part: Option<&str>, minute: i64| BenchPh {
        id: BenchPhId(minute),
        at: at(minute),
        bowls: None,
        part: part.map(str::to_owned),
        ph,
        sample_c: None,
        compensated: None,
        calibrated_today: None,
        drained: None,
        simulated: false,
    };
    let may = |ruling| MayCan { ruling, says: "It holds.".to_owned() };
    let of = |recipe: Option<&MayCan>, readings: &[BenchPh]| may_water_bath(recipe, readings).ruling;
    let low = [reading(3.5, None, 1)];
    assert_eq!(of(None, &low), Ruling::NotFine);
    assert_eq!(of(Some(&may(Ruling::CannotTell)), &low), Ruling::CannotTell);
    assert_eq!(of(Some(&may(Ruling::NotFine)), &low), Ruling::NotFine);
    assert_eq!(of(Some(&may(Ruling::Fine)), &[]), Ruling::Fine);
    // The last reading of the mix stands; that of an onion says nothing of it.
    let line = [reading(4.6, None, 1), reading(5.8, Some("onion"), 3)];
    assert_eq!(of(Some(&may(Ruling::Fine)), &line), Ruling::Fine);
    let high = [reading(4.61, None, 2), reading(4.2, None, 1)];
    assert_eq!(of(Some(&may(Ruling::Fine)), &high), Ruling::NotFine);
}
