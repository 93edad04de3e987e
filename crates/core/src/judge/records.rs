//! Puts records before the judge: each jar by its own batch, whatever load it stands in.
//!
//! Every station asks here, so that they cannot disagree: a plan, a load on the bench or in the canner, jars on the towel,
//! a batch's record.

use crate::canner::room::room_of;
use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::cover::WaterOver;
use bodega_model::canner::events::{BoilEvent, Happened};
use bodega_model::canner::outline::Outsides;
use bodega_model::contents::{Added, Addition, Ingredient};
use bodega_model::crates::fruit::{Condition, Fault};
use bodega_model::jars::acid::{Agent, per_jar, pot_share};
use bodega_model::jars::kinds::AcidSource;
use bodega_model::jars::ph::PH_LINE;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Finding, Ruling, Severity, Subject};
use bodega_model::judge::question::{Ask, Question};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{Mass, Time, celsius, grams, inches};
use bodega_model::records::batch::Batch;
use bodega_model::records::canner::Canner;
use bodega_model::records::claims::Claims;
use bodega_model::records::jar::{Jar, PhRecord, count_sizes};
use bodega_model::records::load::{AlsoIn, CannerLoad};
use bodega_model::records::lot::Lot;
use bodega_model::records::recipe::{BatchRecipe, Bowls};
use bodega_model::records::towel::Towel;
use bodega_model::tables::process::Product;
use bodega_model::towel::liquid::LiquidLost;
use serde::Serialize;
use uom::si::time::minute;

use super::acid::under_lids;
use super::against::{once_out, out_of};
use super::case::{
    Case, CaseAcid, CaseCanner, CaseFruit, CaseJar, CaseRecipe, Damage, LogEvent, LogLine, OtherJars,
    PhReading, PhSample, Ripeness, Temperatures, Vine,
};
use super::judge;
use crate::canner::heat::{food_at, water_before};
use crate::canner::over::is_cover_open;
use crate::canner::room::{NoRoom, Room};

/// What is known of a batch beside its jars in a load.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchFacts {
    /// The batch.
    pub batch: Batch,
    /// Every jar of it, in whatever load.
    pub sizes: Vec<(JarSize, u32)>,
    /// Its pH readings, oldest first.
    pub ph: Vec<PhRecord>,
    /// Whether any of its fruit was frozen.
    pub frozen: bool,
    /// What stands in the bowls of its recipe; `None` of plain tomatoes.
    pub bowls: Option<Bowls>,
}

/// What the judge says of records.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Judged {
    /// What was found, stops first.
    pub findings: Vec<Finding>,
    /// What is still to be said.
    pub questions: Vec<Question>,
    /// What was not asked yet when this was recorded: no alarm, and no claim either.
    pub not_asked: Vec<Question>,
    /// Fine, not fine or cannot tell.
    pub ruling: Ruling,
}

impl Judged {
    pub(crate) fn nothing() -> Self {
        Self {
            findings: Vec::new(),
            questions: Vec::new(),
            not_asked: Vec::new(),
            ruling: Ruling::CannotTell,
        }
    }

    /// Whether a stop stands: the jars are not to be called done until it is put right.
    #[must_use]
    pub fn is_stopped(&self) -> bool {
        self.findings.iter().any(|found| found.severity == Severity::Stop)
    }

    pub(crate) fn settle(&mut self) {
        self.findings.sort_by_key(|finding| finding.severity);
        let is_open = !self.questions.is_empty() || !self.not_asked.is_empty();
        self.ruling = Ruling::of(&self.findings, is_open);
    }
}

/// The doses that a plan puts into each size of jar.
pub(crate) fn planned_acid(
    agent: Agent,
    sizes: &[(JarSize, u32)],
    bottle_age_months: Option<f64>,
) -> CaseAcid {
    CaseAcid {
        agent: Some(agent),
        source: Some(AcidSource::Bottled),
        per_jar_tsp: Some(sizes.iter().map(|(jar, _)| (*jar, per_jar(agent, *jar).as_f64())).collect()),
        pot_dose_tsp: None,
        bottle_age_months,
    }
}

pub(crate) fn case_jars(sizes: &[(JarSize, u32)]) -> Vec<CaseJar> {
    let line = |(jar, count): &(JarSize, u32)| CaseJar {
        jar: *jar,
        count: *count,
        kind: None,
        lid: None,
        nicked: None,
    };
    sizes.iter().map(line).collect()
}

/// The same with what somebody saw of them.
fn seen_jars(sizes: &[(JarSize, u32)], claims: Option<Claims>) -> Vec<CaseJar> {
    let mut jars = case_jars(sizes);
    if let Some(claims) = claims {
        for line in &mut jars {
            (line.kind, line.lid, line.nicked) = (Some(claims.kind), Some(claims.lid), Some(claims.nicked));
        }
    }
    jars
}

fn boil_log(clock: &BoilClock) -> Vec<LogLine> {
    let happened = clock.happened();
    let Some(first) = happened.first() else { return Vec::new() };
    let line = |(place, item): (usize, &Happened)| {
        let event = match item.event {
            BoilEvent::JarsIn => Some(LogEvent::In),
            BoilEvent::Boils => Some(LogEvent::Boil),
            // Whoever lifts jars from under a flame has ended it as well.
            BoilEvent::HeatOff | BoilEvent::Lifted => Some(LogEvent::End),
            // A jar lifted or put in under way, and cold water, stop the boil.
            BoilEvent::BoilLost
            | BoilEvent::PoundsRaised
            | BoilEvent::ToppedUpCold
            | BoilEvent::JarOut
            | BoilEvent::JarAdded => Some(LogEvent::Lost),
            BoilEvent::RanDry => Some(LogEvent::Dry),
            BoilEvent::Unwatched => (!held_on(&happened[place + 1..])).then_some(LogEvent::Lost),
            BoilEvent::Vents
            | BoilEvent::ClockSet
            | BoilEvent::HeldOn
            | BoilEvent::ToppedUpBoiling
            | BoilEvent::JarBroken
            | BoilEvent::HeatAgain
            | BoilEvent::PressureDown => None,
        };
        Some(LogLine { at: item.at.since(first.at), event: event? })
    };
    happened.iter().enumerate().filter_map(line).collect()
}

/// Whether somebody said that the boil had held, before anything else was said of it.
fn held_on(after: &[Happened]) -> bool {
    let is_of_the_boil = |item: &&Happened| !matches!(item.event, BoilEvent::JarBroken | BoilEvent::ClockSet);
    after.iter().find(is_of_the_boil).is_some_and(|item| item.event == BoilEvent::HeldOn)
}

/// When something happened last.
fn last(clock: &BoilClock, event: BoilEvent) -> Option<Moment> {
    clock.happened().iter().rfind(|item| item.event == event).map(|item| item.at)
}

/// The reading that stands for a batch: the last of the dosed product, else the last of the raw food. One above the line
/// stands until a lower one follows that says what was done.
fn standing(readings: &[PhRecord]) -> Option<&PhRecord> {
    let is_dosed = |reading: &PhRecord| reading.sample != Some(PhSample::Raw);
    let mut stands: Option<&PhRecord> = None;
    for reading in readings {
        let is_held = stands.is_some_and(|high| {
            is_dosed(high) && high.ph > PH_LINE && reading.ph <= high.ph && reading.did.is_none()
        });
        if !is_held && (is_dosed(reading) || !stands.is_some_and(is_dosed)) {
            stands = Some(reading);
        }
    }
    stands
}

fn ph_case(reading: &PhRecord) -> PhReading {
    PhReading {
        value: reading.ph,
        sample: reading.sample,
        temperature: reading.sample_c.map(celsius),
        compensated: reading.compensated,
        calibrated_today: reading.calibrated_today,
    }
}

/// Amounts that were checked when they were written down; one that cannot be counted leaves the whole unknown.
pub(crate) fn counted(added: Option<&Vec<Added>>) -> Option<Vec<Addition>> {
    added?.iter().map(|item| item.counted().ok()).collect()
}

/// Names of what has no word of its own.
pub fn unknown(added: Option<&Vec<Added>>) -> Vec<String> {
    let others = added.into_iter().flatten().filter(|item| item.what == Ingredient::Other);
    others.map(|item| item.called().to_owned()).collect()
}

/// The acid of jars that have their tick, or are still to get it; and of jars that went into the canner without one, which
/// have only their share of the pot.
fn acid_of(sizes: &[(JarSize, u32)], agent: Agent, is_dosed: bool, facts: Option<&BatchFacts>) -> CaseAcid {
    if is_dosed {
        return planned_acid(agent, sizes, None);
    }
    let pot = facts.and_then(|facts| Some((facts.batch.pot_dose_tsp?, &facts.sizes)));
    let shares = |(given, all): (f64, &Vec<(JarSize, u32)>)| -> f64 {
        sizes.iter().map(|(jar, count)| pot_share(given, *jar, all) * f64::from(*count)).sum()
    };
    CaseAcid {
        per_jar_tsp: Some(sizes.iter().map(|(jar, _)| (*jar, 0.0)).collect()),
        pot_dose_tsp: pot.map(shares),
        ..planned_acid(agent, sizes, None)
    }
}

/// What is known of a canner in the year of a batch. How many quarts it holds decides under pressure alone.
pub(crate) fn canner_of(canner: &Canner, year: Option<i16>) -> CaseCanner {
    let quarts = || match room_of(canner, &Outsides::default()).most_of(JarSize::Quart) {
        Ok(most) => Some(most),
        Err(NoRoom::NotCounted(_)) => None,
        Err(NoRoom::TooTall(_) | NoRoom::TooWide(_)) => Some(0),
    };
    CaseCanner {
        multi_cooker: Some(canner.multi_cooker),
        quarts: if canner.method.is_pressure() { quarts() } else { None },
        gauge_tested: canner.gauge_tested_in.zip(year).map(|(tested, year)| tested >= year),
        under_jars: None,
    }
}

/// The canner of a load. Loads from before anybody was asked about its gauge make no claim and raise no alarm.
fn canner_under(load: &CannerLoad) -> CaseCanner {
    let canner = canner_of(&load.canner, load.batch.year());
    let not_asked = (!load.water_asked).then_some(true);
    CaseCanner { under_jars: load.under_jars, gauge_tested: canner.gauge_tested.or(not_asked), ..canner }
}

/// Jars of one batch in a load, as the judge sees them; `jars` is not empty.
pub(super) fn case_of(
    load: &CannerLoad,
    jars: &[&Jar],
    facts: Option<&BatchFacts>,
    altitude: Option<Altitude>,
) -> Option<Case> {
    let like = jars.first()?;
    let is_recipe = like.product == Product::Recipe;
    let sizes = count_sizes(jars.iter().copied());
    let clock = &load.clock;
    let water_c = load.claims.and_then(|claims| claims.water_c);
    let is_said = load.jars_c.is_some() || water_c.is_some();
    let temperatures = Temperatures {
        jar: load.jars_c.map(celsius),
        food: is_said.then(|| food_at(load.pack_of(like))),
        water: is_said.then(|| water_c.map_or_else(|| water_before(load.batch.pack), celsius)),
    };
    let rest = last(clock, BoilEvent::HeatOff)
        .zip(last(clock, BoilEvent::Lifted))
        .map(|(off, lifted)| lifted.since(off));
    let weight = facts.map(|facts| grams(facts.batch.weight_g)).filter(|weight| *weight > Mass::default());
    Some(Case {
        product: Some(like.product),
        medium: load.medium_of(like),
        pack: Some(load.pack_of(like)),
        heating: Some(load.batch.method.into()),
        altitude,
        headspace: load.claims.and_then(|claims| claims.headspace_in).map(inches),
        water_cover: load.water_over.and_then(WaterOver::inches).map(inches),
        canner: canner_under(load),
        liquid_lost: like.liquid_lost,
        minutes: Some(Time::new::<minute>(f64::from(clock.required().0))),
        psi: load.psi.map(f64::from),
        acid: (!is_recipe).then(|| CaseAcid {
            source: load.claims.map_or(Some(AcidSource::Bottled), |claims| Some(claims.acid_source)),
            ..acid_of(&sizes, like.agent, is_dosed(load, like), facts)
        }),
        skins_on: load.claims.map(|claims| claims.skins_on),
        jars: Some(seen_jars(&sizes, load.claims)),
        all_jars: facts.map(|facts| facts.sizes.clone()),
        additions: counted(facts.and_then(|facts| facts.batch.additions.as_ref())),
        unknown_additions: unknown(facts.and_then(|facts| facts.batch.additions.as_ref())),
        fruit: CaseFruit { weight, frozen: facts.map(|facts| facts.frozen), ..CaseFruit::default() },
        boil: boil_log(clock),
        load: load.also.iter().map(of_something_else).collect(),
        rest,
        temperatures,
        ph: facts.and_then(|facts| standing(&facts.ph)).map(ph_case),
        recipe: is_recipe.then(|| CaseRecipe {
            dosed: Some(is_dosed(load, like)),
            ..recipe_of(load.recipe_of(like), facts)
        }),
        ..Case::default()
    })
}

/// The recipe of a batch with what is in its bowls. A batch is begun by a recipe that was held against a copy, and keeps it
/// as it was then; one whose recipe cannot be read has no process.
fn recipe_of(recipe: Option<&BatchRecipe>, facts: Option<&BatchFacts>) -> CaseRecipe {
    let bowls = facts.and_then(|facts| facts.bowls.as_ref());
    CaseRecipe {
        base: bowls.map(|bowls| bowls.base.clone()).unwrap_or_default(),
        actual: bowls.map(|bowls| bowls.actual.clone()),
        mixed: bowls.is_some_and(|bowls| bowls.mixed_at.is_some()),
        makes: recipe.and_then(|recipe| recipe.makes),
        process: recipe.and_then(|recipe| recipe.process.clone()),
        checked: recipe.map(|_| true),
        // Nothing is begun by a recipe of which that is open; before it was asked, it is neither alarm nor claim.
        is_all_its_acid: recipe.map(|_| true),
        dosed: None,
        labels_asked: bowls.is_some_and(|bowls| bowls.labels_asked),
    }
}

/// Jars that ride along: nothing is known of them but their minutes.
fn of_something_else(also: &AlsoIn) -> OtherJars {
    OtherJars {
        product: None,
        medium: None,
        pack: None,
        jar: Some(also.size),
        minutes: Some(Time::new::<minute>(f64::from(also.minutes.0))),
    }
}

/// Whether a jar has its acid or can still get it: on the bench it is ticked before its lid.
pub(super) fn is_dosed(load: &CannerLoad, jar: &Jar) -> bool {
    jar.acid || !load.clock.has_begun()
}

/// What is said of every batch in a load. `with` adds what else is known to each case.
fn over_batches(
    load: &CannerLoad,
    facts: &[BatchFacts],
    altitude: Option<Altitude>,
    with: impl Fn(Case) -> Case,
) -> Judged {
    let batches = load.batches();
    let is_out = load.lifted_at().is_some();
    let mut judged = Judged::nothing();
    for batch in &batches {
        let facts = facts.iter().find(|facts| facts.batch.id == *batch);
        let was_asked = facts.is_none_or(|facts| facts.batch.additions_asked);
        for (dosed, liquid_lost) in kinds_of_jars() {
            let of_batch = |jar: &&Jar| {
                jar.batch == *batch && is_dosed(load, jar) == dosed && jar.liquid_lost == liquid_lost
            };
            let jars: Vec<&Jar> = load.jars.iter().filter(of_batch).collect();
            let (Some(case), Some(code)) =
                (case_of(load, &jars, facts, altitude), jars.first().map(|jar| &jar.code))
            else {
                continue;
            };
            let verdict = judge(&with(case));
            let numbers: Vec<u32> = jars.iter().map(|jar| jar.number).collect();
            for finding in verdict.findings {
                let finding = if dosed { finding } else { under_lids(finding, &numbers) };
                let finding = out_of(finding, &numbers);
                let finding = if is_out { once_out(finding) } else { finding };
                match judged.findings.iter_mut().find(|other| other.is_same(&finding)) {
                    // Said of several batches, it is about the load.
                    Some(other) if other.batch.as_ref() != Some(code) => other.batch = None,
                    Some(_) => {}
                    None => judged
                        .findings
                        .push(Finding { batch: (batches.len() > 1).then(|| code.clone()), ..finding }),
                }
            }
            for question in verdict.questions {
                let of_contents = question.ask == Ask::Additions;
                let question = Question { batch: of_contents.then_some(*batch), ..question };
                let list =
                    if of_contents && !was_asked { &mut judged.not_asked } else { &mut judged.questions };
                if !list.contains(&question) {
                    list.push(question);
                }
            }
        }
    }
    if load.claims.is_none() && !load.jars.is_empty() {
        let question = Question { ask: Ask::Claims, says: Ask::Claims.label(), batch: None };
        let list = if load.claims_asked { &mut judged.questions } else { &mut judged.not_asked };
        list.push(question);
    }
    if is_cover_open(load) {
        judged.questions.push(Question { ask: Ask::Water, says: Ask::Water.label(), batch: None });
    }
    judged.settle();
    judged
}

/// The jars of a load that the same is said of: with their dose or without, and by what they lost of their liquid.
fn kinds_of_jars() -> impl Iterator<Item = (bool, Option<LiquidLost>)> {
    let lost = || [None, Some(LiquidLost::Some), Some(LiquidLost::Half)].into_iter();
    [true, false].into_iter().flat_map(move |dosed| lost().map(move |lost| (dosed, lost)))
}

/// What is said of a load, by the kitchen's altitude of today: a load planned before it was corrected must say so.
#[must_use]
pub fn judge_load(load: &CannerLoad, facts: &[BatchFacts], altitude: Option<Altitude>) -> Judged {
    over_batches(load, facts, altitude, |case| case)
}

/// What is said of jars on the towel: how they were processed, and when their lids were judged.
#[must_use]
pub fn judge_towel(
    towel: &Towel,
    load: &CannerLoad,
    facts: &[BatchFacts],
    altitude: Option<Altitude>,
) -> Judged {
    let first_check = towel.jars.iter().filter_map(|jar| jar.judged_at).min();
    let seal_check_after = first_check.map(|at| at.since(towel.lifted_at));
    over_batches(load, facts, altitude, |case| Case { seal_check_after, ..case })
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
        Some(Fault::Overripe | Fault::DeadVine | Fault::Blight) | None => None,
    };
    let vine = match lot.fault {
        Some(Fault::DeadVine) => Some(Vine::Dead),
        Some(Fault::Blight) => Some(Vine::Blighted),
        _ => None,
    };
    let case =
        Case { fruit: CaseFruit { ripeness, damage, vine, ..CaseFruit::default() }, ..Case::default() };
    judge(&case).findings.into_iter().filter(|finding| finding.subject == Subject::Fruit).collect()
}

/// What is said of a pH reading by itself; it can only add caution.
#[must_use]
pub fn ph_findings(reading: &PhRecord) -> Vec<Finding> {
    const OF_PH: [Code; 3] = [Code::PhHigh, Code::PhUncalibrated, Code::PhUncompensated];
    let case = Case { ph: Some(ph_case(reading)), ..Case::default() };
    // The rest of the case was not asked about here.
    judge(&case).findings.into_iter().filter(|finding| OF_PH.contains(&finding.code)).collect()
}
