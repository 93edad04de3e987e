//! Puts records before the judge: the same rules that answer over HTTP, asked of a plan, a load or jars on the towel.

use bodega_core::canner::clock::{BoilClock, BoilEvent};
use bodega_core::canner::pot::{food_at_c, water_before_c};
use bodega_core::crates::fruit::{Condition, Fault};
use bodega_core::jars::acid::{Agent, per_jar};
use bodega_core::jars::size::JarSize;
use bodega_core::judge::case::{
    AcidSource, Case, CaseAcid, CaseFruit, CaseJar, Damage, LogEvent, LogLine, Ripeness, Temperatures, Vine,
};
use bodega_core::judge::{Finding, Subject, judge};
use bodega_core::measures::moment::Moment;
use bodega_core::measures::units::{Temperature, Time};
use bodega_core::records::jar::count_sizes;
use bodega_core::records::kitchen::Kitchen;
use bodega_core::records::load::CannerLoad;
use bodega_core::records::lot::Lot;
use bodega_core::records::towel::Towel;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;

/// The doses that a plan puts into each size of jar.
#[must_use]
pub fn planned_acid(agent: Agent, sizes: &[JarSize]) -> CaseAcid {
    CaseAcid {
        agent,
        source: Some(AcidSource::Bottled),
        per_jar_tsp: Some(sizes.iter().map(|jar| (*jar, per_jar(agent, *jar).as_f64())).collect()),
        pot_dose_tsp: None,
        bottle_age_months: None,
    }
}

/// Jars as a case names them.
#[must_use]
pub fn case_jars(sizes: &[(JarSize, u32)]) -> Vec<CaseJar> {
    sizes.iter().map(|(jar, count)| CaseJar { jar: *jar, count: *count, kind: None, lid: None }).collect()
}

fn boil_log(clock: &BoilClock) -> Vec<LogLine> {
    let Some(first) = clock.happened().first() else { return Vec::new() };
    let line = |event: BoilEvent| match event {
        BoilEvent::JarsIn => Some(LogEvent::In),
        BoilEvent::Boils => Some(LogEvent::Boil),
        BoilEvent::BoilLost => Some(LogEvent::Lost),
        BoilEvent::HeatOff => Some(LogEvent::End),
        // A jar lifted or put in under way, and cold water, stop the boil.
        BoilEvent::ToppedUpCold | BoilEvent::JarOut | BoilEvent::JarAdded => Some(LogEvent::Lost),
        BoilEvent::Vents
        | BoilEvent::ToppedUpBoiling
        | BoilEvent::JarBroken
        | BoilEvent::PressureDown
        | BoilEvent::Lifted => None,
    };
    clock
        .happened()
        .iter()
        .filter_map(|item| Some(LogLine { at: item.at.since(first.at), event: line(item.event)? }))
        .collect()
}

/// When something happened last.
fn last(clock: &BoilClock, event: BoilEvent) -> Option<Moment> {
    clock.happened().iter().rfind(|item| item.event == event).map(|item| item.at)
}

fn case_of(load: &CannerLoad, kitchen: &Kitchen) -> Case {
    let sizes = count_sizes(&load.jars);
    let only_sizes: Vec<JarSize> = sizes.iter().map(|(jar, _)| *jar).collect();
    let clock = &load.clock;
    let celsius = Temperature::new::<degree_celsius>;
    let temperatures = load.jars_c.map_or_else(Temperatures::default, |jars| Temperatures {
        jar: Some(celsius(jars)),
        food: Some(celsius(food_at_c(load.batch.pack))),
        water: Some(celsius(water_before_c(load.batch.pack))),
    });
    let rest = last(clock, BoilEvent::HeatOff)
        .zip(last(clock, BoilEvent::Lifted))
        .map(|(off, lifted)| lifted.since(off));
    Case {
        product: Some(load.batch.product),
        medium: load.batch.medium,
        pack: Some(load.batch.pack),
        heating: Some(load.batch.method.into()),
        // The kitchen's altitude of today: a load planned before it was corrected must say so.
        altitude: kitchen.altitude(),
        minutes: Some(Time::new::<minute>(f64::from(clock.required().0))),
        jars: Some(case_jars(&sizes)),
        acid: Some(planned_acid(load.batch.agent, &only_sizes)),
        boil: boil_log(clock),
        rest,
        temperatures,
        ..Case::default()
    }
}

/// Findings about a lot's fruit.
#[must_use]
pub fn lot_findings(lot: &Lot) -> Vec<Finding> {
    let ripeness = match (lot.condition, lot.fault) {
        (Condition::Unripe, _) => Some(Ripeness::Underripe),
        (_, Some(Fault::Overripe)) => Some(Ripeness::Overripe),
        _ => None,
    };
    let damage = match lot.fault {
        Some(Fault::Mouldy) => Some(Damage::Mouldy),
        Some(Fault::Bruised) => Some(Damage::Bruised),
        Some(Fault::Overripe | Fault::DeadVine) | None => None,
    };
    let vine = (lot.fault == Some(Fault::DeadVine)).then_some(Vine::Dead);
    let case =
        Case { fruit: CaseFruit { ripeness, damage, vine, ..CaseFruit::default() }, ..Case::default() };
    judge(&case).findings.into_iter().filter(|finding| finding.subject == Subject::Fruit).collect()
}

/// Findings about a load.
#[must_use]
pub fn load_findings(load: &CannerLoad, kitchen: &Kitchen) -> Vec<Finding> {
    judge(&case_of(load, kitchen)).findings
}

/// Findings about jars on the towel: how they were processed, and when their lids were judged.
#[must_use]
pub fn towel_findings(towel: &Towel, load: &CannerLoad, kitchen: &Kitchen) -> Vec<Finding> {
    let first_check = towel.jars.iter().filter_map(|jar| jar.judged_at).min();
    let case =
        Case { seal_check_after: first_check.map(|at| at.since(towel.lifted_at)), ..case_of(load, kitchen) };
    judge(&case).findings
}
