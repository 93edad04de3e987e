//! Puts records before the judge: each jar by its own batch, whatever load it stands in.
//!
//! Every station asks here, so that they cannot disagree: a plan, a load on the bench or in the canner, jars on the towel,
//! a batch's record.

use uom::si::time::minute;

use super::case::{
    AcidSource, Case, CaseAcid, CaseFruit, CaseJar, Damage, LogEvent, LogLine, PhReading, Ripeness,
    Temperatures, Vine,
};
use super::{Code, Finding, Subject, judge};
use crate::canner::clock::BoilClock;
use crate::canner::events::BoilEvent;
use crate::canner::heat::{food_at, water_before};
use crate::crates::fruit::{Condition, Fault};
use crate::jars::acid::{Agent, per_jar};
use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Moment;
use crate::measures::units::{Time, celsius};
use crate::plan::batch::{BatchPlan, Wish};
use crate::records::jar::{Jar, PhRecord, count_sizes};
use crate::records::load::CannerLoad;
use crate::records::lot::Lot;
use crate::records::towel::Towel;

/// The doses that a plan puts into each size of jar.
fn planned_acid(agent: Agent, sizes: &[(JarSize, u32)], bottle_age_months: Option<f64>) -> CaseAcid {
    CaseAcid {
        agent,
        source: Some(AcidSource::Bottled),
        per_jar_tsp: Some(sizes.iter().map(|(jar, _)| (*jar, per_jar(agent, *jar).as_f64())).collect()),
        pot_dose_tsp: None,
        bottle_age_months,
    }
}

fn case_jars(sizes: &[(JarSize, u32)]) -> Vec<CaseJar> {
    sizes.iter().map(|(jar, count)| CaseJar { jar: *jar, count: *count, kind: None, lid: None }).collect()
}

fn boil_log(clock: &BoilClock) -> Vec<LogLine> {
    let Some(first) = clock.happened().first() else { return Vec::new() };
    let line = |event: BoilEvent| match event {
        BoilEvent::JarsIn => Some(LogEvent::In),
        BoilEvent::Boils => Some(LogEvent::Boil),
        BoilEvent::HeatOff => Some(LogEvent::End),
        // A jar lifted or put in under way, and cold water, stop the boil.
        BoilEvent::BoilLost | BoilEvent::ToppedUpCold | BoilEvent::JarOut | BoilEvent::JarAdded => {
            Some(LogEvent::Lost)
        }
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

/// The jars of one batch in a load, as the judge sees them; `jars` is not empty.
fn case_of(load: &CannerLoad, jars: &[&Jar], altitude: Option<Altitude>) -> Option<Case> {
    let like = jars.first()?;
    let sizes = count_sizes(jars.iter().copied());
    let clock = &load.clock;
    let temperatures = load.jars_c.map_or_else(Temperatures::default, |glass| Temperatures {
        jar: Some(celsius(glass)),
        food: Some(food_at(like.pack)),
        water: Some(water_before(load.batch.pack)),
    });
    let rest = last(clock, BoilEvent::HeatOff)
        .zip(last(clock, BoilEvent::Lifted))
        .map(|(off, lifted)| lifted.since(off));
    Some(Case {
        product: Some(like.product),
        medium: like.medium,
        pack: Some(like.pack),
        heating: Some(load.batch.method.into()),
        altitude,
        minutes: Some(Time::new::<minute>(f64::from(clock.required().0))),
        acid: Some(planned_acid(like.agent, &sizes, None)),
        jars: Some(case_jars(&sizes)),
        boil: boil_log(clock),
        rest,
        temperatures,
        ..Case::default()
    })
}

/// Findings over every batch in a load. `with` adds what else is known to each case.
fn over_batches(load: &CannerLoad, altitude: Option<Altitude>, with: impl Fn(Case) -> Case) -> Vec<Finding> {
    let batches = load.batches();
    let mut found: Vec<Finding> = Vec::new();
    for batch in &batches {
        let jars: Vec<&Jar> = load.jars.iter().filter(|jar| jar.batch == *batch).collect();
        let (Some(case), Some(code)) = (case_of(load, &jars, altitude), jars.first().map(|jar| &jar.code))
        else {
            continue;
        };
        for finding in judge(&with(case)).findings {
            match found.iter_mut().find(|other| other.is_same(&finding)) {
                // Said of several batches, it is about the load.
                Some(other) => other.batch = None,
                None => found.push(Finding { batch: (batches.len() > 1).then(|| code.clone()), ..finding }),
            }
        }
    }
    found.sort_by_key(|finding| finding.severity);
    found
}

/// Findings about a load, by the kitchen's altitude of today: a load planned before it was corrected must say so.
#[must_use]
pub fn load_findings(load: &CannerLoad, altitude: Option<Altitude>) -> Vec<Finding> {
    over_batches(load, altitude, |case| case)
}

/// Findings about jars on the towel: how they were processed, and when their lids were judged.
#[must_use]
pub fn towel_findings(towel: &Towel, load: &CannerLoad, altitude: Option<Altitude>) -> Vec<Finding> {
    let first_check = towel.jars.iter().filter_map(|jar| jar.judged_at).min();
    let seal_check_after = first_check.map(|at| at.since(towel.lifted_at));
    over_batches(load, altitude, |case| Case { seal_check_after, ..case })
}

/// Findings about a plan; a plan of no jars yet is not a mistake.
#[must_use]
pub fn plan_findings(plan: &BatchPlan, wish: &Wish, bottle_age_months: Option<f64>) -> Vec<Finding> {
    let sizes: Vec<(JarSize, u32)> = plan.mix.iter().map(|line| (line.jar, line.count)).collect();
    if sizes.iter().all(|(_, count)| *count == 0) {
        return Vec::new();
    }
    let minutes = plan.loads.loads.iter().map(|load| load.minutes.0).max();
    let case = Case {
        product: Some(wish.product),
        medium: wish.medium,
        pack: Some(wish.pack),
        heating: Some(wish.method.into()),
        altitude: Some(wish.altitude),
        minutes: minutes.map(|minutes| Time::new::<minute>(f64::from(minutes))),
        jars: Some(case_jars(&sizes)),
        acid: Some(planned_acid(wish.agent, &sizes, bottle_age_months)),
        ..Case::default()
    };
    judge(&case).findings
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

/// What is said of a pH reading by itself; it can only add caution.
#[must_use]
pub fn ph_findings(reading: &PhRecord) -> Vec<Finding> {
    const OF_PH: [Code; 3] = [Code::PhHigh, Code::PhUncalibrated, Code::PhUncompensated];
    let case = Case {
        ph: Some(PhReading {
            value: reading.ph,
            temperature: reading.sample_c.map(celsius),
            compensated: reading.compensated,
            calibrated_today: reading.calibrated_today,
        }),
        ..Case::default()
    };
    // The rest of the case was not asked about here.
    judge(&case).findings.into_iter().filter(|finding| OF_PH.contains(&finding.code)).collect()
}
