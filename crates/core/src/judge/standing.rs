//! A jar's standing: one rule for the towel, the shelf, the label, the counter, goals and exports alike. A stop goes with its jar
//! until it is really put right.
//!
//! A load that was lifted is judged by the altitude of its day; the minutes it was planned for are those of the tables of its
//! day. It is a pure function of what the records say; nobody keeps what it answers.

use bodega_model::canner::events::Fate;
use bodega_model::judge::finding::{Code, Finding, Ruling, Severity, Subject};
use bodega_model::judge::question::{Ask, Question};
use bodega_model::judge::standing::{Against, JarStanding};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::altitudes::{AltitudeSaid, altitude_of_day};
use bodega_model::measures::ids::JarId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::Time;
use bodega_model::records::jar::Jar;
use bodega_model::records::load::CannerLoad;
use uom::si::time::minute;

use super::acid::under_lids;
use super::against::{ends, out_of};
use super::case::{Case, LogEvent, LogLine};
use super::judge;
use super::records::{BatchFacts, case_of, is_dosed};
use super::time::time_not_full;
use crate::canner::over::is_cover_open;

/// The altitude by which a load is judged: the kitchen's of today until it is lifted, that of its day from then on.
#[must_use]
pub fn altitude_for(load: &CannerLoad, today: Option<Altitude>, said: &[AltitudeSaid]) -> Option<Altitude> {
    match load.lifted_at() {
        None => today,
        Some(lifted) => Altitude::from_feet(altitude_of_day(load.batch.altitude_ft, lifted, said)).ok(),
    }
}

/// What stands against each jar of a load that is out of its canner; nothing of one that is not, and nothing of a jar that broke.
#[must_use]
pub fn standings(
    load: &CannerLoad,
    facts: &[BatchFacts],
    said: &[AltitudeSaid],
) -> Vec<(JarId, JarStanding)> {
    let Some(lifted_at) = load.lifted_at() else { return Vec::new() };
    let altitude = altitude_for(load, None, said);
    let mut groups: Vec<Vec<&Jar>> = Vec::new();
    for jar in load.jars.iter().filter(|jar| load.fate(jar) != Fate::Broken) {
        let is_like = |other: &Jar| {
            (other.batch, is_dosed(load, other), other.liquid_lost)
                == (jar.batch, is_dosed(load, jar), jar.liquid_lost)
                && load.fate(jar) == Fate::Stayed
                && load.fate(other) == Fate::Stayed
        };
        match groups.iter_mut().find(|group| is_like(group[0])) {
            Some(group) => group.push(jar),
            None => groups.push(vec![jar]),
        }
    }
    let of_group = |jars: Vec<&Jar>| {
        let facts = facts.iter().find(|facts| facts.batch.id == jars[0].batch);
        let standing = of_like_jars(load, &jars, facts, altitude, lifted_at);
        jars.into_iter().map(|jar| (jar.id, standing.clone())).collect::<Vec<_>>()
    };
    groups.into_iter().flat_map(of_group).collect()
}

/// Jars of one batch that went through the same.
fn of_like_jars(
    load: &CannerLoad,
    jars: &[&Jar],
    facts: Option<&BatchFacts>,
    altitude: Option<Altitude>,
    lifted_at: Moment,
) -> JarStanding {
    let Some(case) = case_of(load, jars, facts, altitude) else { return JarStanding::CLEAR };
    let case = if load.fate(jars[0]) == Fate::Stayed { case } else { out_early(case, load, jars[0]) };
    let mut verdict = judge(&case);
    if !is_dosed(load, jars[0]) {
        let numbers: Vec<u32> = jars.iter().map(|jar| jar.number).collect();
        verdict.findings = verdict.findings.into_iter().map(|found| under_lids(found, &numbers)).collect();
    }
    let numbers: Vec<u32> = jars.iter().map(|jar| jar.number).collect();
    verdict.findings = verdict.findings.into_iter().map(|found| out_of(found, &numbers)).collect();
    let is_time =
        |found: &Finding| found.is_told_stop() && matches!(found.subject, Subject::Time | Subject::Canner);
    if !load.is_processed(jars[0].id, lifted_at) && !verdict.findings.iter().any(is_time) {
        let held = Minutes(u32::try_from(load.held_ms(jars[0], lifted_at) / Minutes(1).ms()).unwrap_or(0));
        verdict.findings.insert(0, time_not_full(held, load.clock.required(), load.batch.method));
    }
    let open = open_questions(load, facts, verdict.questions);
    let stops = verdict.findings.iter().filter(|found| found.is_told_stop());
    let against: Vec<Against> =
        stops.map(|found| against(found, since(found, jars, facts, lifted_at))).collect();
    // What was not asked when the jar was recorded is no alarm and no claim: it is not open.
    let ruling = Ruling::of(&verdict.findings, !open.is_empty());
    // What stands for a question is asked by it.
    let untold =
        |found: &&Finding| found.severity == Severity::Stop && found.cannot_tell && found.names.is_some();
    let untold = verdict.findings.iter().filter(untold).map(Finding::brief).collect();
    JarStanding { ruling, against, open, untold }
}

/// A jar that was lifted by itself has the time that it had, whatever became of the others.
fn out_early(case: Case, load: &CannerLoad, jar: &Jar) -> Case {
    let line = |minutes: f64, event: LogEvent| LogLine { at: Time::new::<minute>(minutes), event };
    #[expect(clippy::cast_precision_loss, reason = "milliseconds of a day stay below 2^53")]
    let held = load.held_ms(jar, Moment(0)) as f64 / Minutes(1).ms() as f64;
    Case { boil: vec![line(0.0, LogEvent::Boil), line(held, LogEvent::End)], load: Vec::new(), ..case }
}

/// What is still to be said of jars: what was asked of them. What did not exist as a question then is neither an alarm nor a claim.
fn open_questions(load: &CannerLoad, facts: Option<&BatchFacts>, questions: Vec<Question>) -> Vec<Question> {
    let additions_asked = facts.is_none_or(|facts| facts.batch.additions_asked);
    let was_asked = |question: &Question| match question.ask {
        Ask::Additions => additions_asked,
        _ => true,
    };
    let batch = facts.map(|facts| facts.batch.id);
    let mut open: Vec<Question> = questions
        .into_iter()
        .filter(was_asked)
        .map(|question| Question { batch: batch.filter(|_| question.ask == Ask::Additions), ..question })
        .collect();
    if load.claims.is_none() && load.claims_asked {
        open.push(Question { ask: Ask::Claims, says: Ask::Claims.label(), batch: None });
    }
    if is_cover_open(load) {
        open.push(Question { ask: Ask::Water, says: Ask::Water.label(), batch: None });
    }
    open
}

/// Since when a stop stands: since it was found, where somebody found it, else since the jar came out.
fn since(found: &Finding, jars: &[&Jar], facts: Option<&BatchFacts>, lifted_at: Moment) -> Moment {
    let at = match found.code {
        Code::NoAcid | Code::AcidShort | Code::PotDoseShort => {
            jars.iter().filter_map(|jar| jar.undosed_at).min()
        }
        Code::LiquidGone => jars.iter().filter_map(|jar| jar.liquid_lost_at).min(),
        Code::PhHigh => facts.and_then(|facts| facts.ph.last()).map(|reading| reading.at),
        _ => None,
    };
    at.map_or(lifted_at, |at| at.max(lifted_at))
}

fn against(found: &Finding, since: Moment) -> Against {
    Against {
        code: found.code,
        subject: found.subject,
        brief: found.brief(),
        message: found.message.clone(),
        since,
        ends: ends(found),
    }
}
