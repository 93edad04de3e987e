//! Liquid that jars lost in the canner: what stands against them, since when, and what is left to do.

use bodega_core::judge::records::judge_load;
use bodega_core::judge::standing::standings;
use bodega_core::towel::seal::{Wrong, window};
use bodega_core::towel::ways_out::{alarm, ways_out};
use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, JarsIn, Lifted};
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Severity, Subject};
use bodega_model::judge::standing::{Against, End, JarStanding};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::tables::process::{Method, Product};
use bodega_model::towel::liquid::LiquidLost;
use bodega_model::towel::seal::Rescue;

use super::kitchen::{at, jar, load};

/// Three quarts out of the canner, each with what it lost.
fn out(lost: [Option<LiquidLost>; 3]) -> CannerLoad {
    let jars = (1..=3).map(|number| jar(number, 1, JarSize::Quart)).collect();
    let events = [(JarsIn, 0), (Boils, 20), (HeatOff, 70), (Lifted, 80)];
    let mut load = load(Method::BoilingWater, 50, jars, &events);
    for (jar, lost) in load.jars.iter_mut().zip(lost) {
        (jar.liquid_lost, jar.liquid_lost_at) = (lost, lost.map(|_| at(95)));
    }
    load
}

fn of(load: &CannerLoad) -> Vec<JarStanding> {
    standings(load, &[], &[]).into_iter().map(|(_, standing)| standing).collect()
}

#[test]
fn half_of_the_liquid_is_a_stop_of_its_jar_and_less_is_none() {
    let found = of(&out([Some(LiquidLost::Half), Some(LiquidLost::Some), None]));
    let stop = found[0].against.iter().find(|stop| stop.code == Code::LiquidGone).unwrap();
    assert_eq!(stop.message, "Jar 1 lost half of its liquid or more in the canner.");
    assert_eq!(stop.since, at(95), "since it was seen");
    assert_eq!(stop.ends, [End::Cold, End::Discard, End::Correct], "nothing puts it back");
    for other in &found[1..] {
        assert!(!other.against.iter().any(|stop| stop.code == Code::LiquidGone), "{other:?}");
    }
    let both = of(&out([Some(LiquidLost::Half), None, Some(LiquidLost::Half)]));
    assert_eq!(both[0].against[0].message, "Jars 1, 3 lost half of their liquid or more in the canner.");

    let judged =
        judge_load(&out([None, Some(LiquidLost::Some), None]), &[], Altitude::from_feet(2000.0).ok());
    let low = judged.findings.iter().find(|found| found.code == Code::LiquidLow).unwrap();
    assert_eq!(
        (low.severity, low.message.as_str()),
        (Severity::Note, "Jar 2 lost less than half of its liquid in the canner.")
    );
}

/// The load's jars on the towel, with stops of some kind alone.
fn towel_of(load: &CannerLoad, standings: Vec<JarStanding>, code: Code) -> Towel {
    let jars = load.jars.iter().zip(standings).map(|(jar, standing)| TowelJar {
        id: jar.id,
        batch: jar.batch,
        code: jar.code.clone(),
        product: Product::Whole,
        named: None,
        number: jar.number,
        size: jar.size,
        liquid_lost: jar.liquid_lost,
        verdict: None,
        second_look: None,
        judged_at: None,
        rescue: None,
        rescued_at: None,
        tidy: false,
        dosed: true,
        standing: JarStanding {
            against: standing.against.into_iter().filter(|stop| stop.code == code).collect(),
            ..standing
        },
    });
    Towel {
        load_id: load.id,
        code: load.batch.code.clone(),
        product: Product::Whole,
        lifted_at: at(80),
        check_from: window(at(80)).0,
        check_by: window(at(80)).1,
        jars: jars.collect(),
    }
}

#[test]
fn the_towel_sends_it_into_the_refrigerator_for_two_to_three_days() {
    let load = out([Some(LiquidLost::Half), None, None]);
    let towel = towel_of(&load, of(&load), Code::LiquidGone);
    let ways = ways_out(&towel, &load, at(100));
    let [way] = ways.as_slice() else { panic!("{ways:?}") };
    assert_eq!((way.wrong, way.jars.as_slice()), (Wrong::Stopped, [load.jars[0].id].as_slice()));
    assert_eq!(way.ways, [Rescue::Refrigerator, Rescue::Freezer], "it is not processed again");
    assert!(way.words.starts_with("Jar 1 lost half of its liquid or more"), "{}", way.words);
    assert!(way.words.contains("within 2 to 3 days"), "{}", way.words);
    assert_eq!(alarm(&towel, &ways).unwrap().figure, "Do not eat");
}

#[test]
fn jars_on_the_towel_are_named_by_their_numbers() {
    let stop = |message: &str| Against {
        code: Code::PhHigh,
        subject: Subject::Acid,
        brief: String::new(),
        message: message.to_owned(),
        since: at(80),
        ends: vec![End::Reprocess, End::Cold, End::Discard],
    };
    let said = |count: usize, stopped: &[usize]| {
        let mut load = out([None, None, None]);
        load.jars.truncate(count);
        let standing = |place| JarStanding {
            against: if stopped.contains(&place) { vec![stop("The pH is 4.9.")] } else { Vec::new() },
            ..JarStanding::CLEAR
        };
        let towel = towel_of(&load, (0..count).map(standing).collect(), Code::PhHigh);
        ways_out(&towel, &load, at(100)).swap_remove(0).words
    };
    for (count, stopped, named) in [
        (3, &[1][..], "Jar 2: "),
        (3, &[0, 2], "Jars 1, 3: "),
        (3, &[0, 1, 2], "All 3 jars: "),
        (2, &[0, 1], "Both jars: "),
    ] {
        let words = said(count, stopped);
        assert!(words.starts_with(&format!("{named}The pH is 4.9.")), "{words}");
        // What is to be put right is said, and not the time alone.
        assert!(words.contains("stir in acid until a blended sample reads 4.6 or below"), "{words}");
    }
}
