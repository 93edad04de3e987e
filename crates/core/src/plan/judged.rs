//! What the judge says of a plan.

use bodega_model::contents::Added;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::units::{Mass, Time};
use bodega_model::records::canner::Canner;
use uom::si::time::minute;

use crate::judge::case::{Case, CaseFruit};
use crate::judge::judge;
use crate::judge::records::{Judged, canner_of, case_jars, counted, planned_acid, unknown};
use crate::plan::batch::{BatchPlan, Wish};

/// What is said of a plan for a canner in this year. A plan of no jars yet is not a mistake, and nothing is asked of it.
#[must_use]
pub fn judge_plan(
    plan: &BatchPlan,
    wish: &Wish,
    bottle_age_months: Option<f64>,
    additions: Option<&Vec<Added>>,
    weight: Mass,
    canner: (&Canner, i16),
) -> Judged {
    let sizes: Vec<(JarSize, u32)> = plan.mix.iter().map(|line| (line.jar, line.count)).collect();
    let mut judged = Judged::nothing();
    if sizes.iter().all(|(_, count)| *count == 0) {
        return judged;
    }
    let minutes = plan.loads.loads.iter().map(|load| load.minutes.0).max();
    let psi = plan.mix.iter().filter_map(|line| line.tested.options.first()?.psi).max();
    let case = Case {
        product: Some(wish.product),
        medium: wish.medium,
        pack: Some(wish.pack),
        heating: Some(wish.method.into()),
        altitude: Some(wish.altitude),
        minutes: minutes.map(|minutes| Time::new::<minute>(f64::from(minutes))),
        psi: psi.map(f64::from),
        canner: canner_of(canner.0, Some(canner.1)),
        jars: Some(case_jars(&sizes)),
        acid: Some(planned_acid(wish.agent, &sizes, bottle_age_months)),
        additions: counted(additions),
        unknown_additions: unknown(additions),
        fruit: CaseFruit { weight: Some(weight), ..CaseFruit::default() },
        ..Case::default()
    };
    let verdict = judge(&case);
    (judged.findings, judged.questions) = (verdict.findings, verdict.questions);
    judged.settle();
    judged
}
