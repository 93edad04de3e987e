//! The canner itself: whether it is one at all, whether its gauge can be believed, what the jars stand on.

use bodega_model::canner::cover::UnderJars;
use bodega_model::judge::finding::{Code, Finding};
use bodega_model::measures::words::counted;
use bodega_model::published::source::Source;

use super::case::{Case, Heating};

/// Quart jars that a pressure canner holds at the least. Source: USDA Guide 1, from memory.
const LEAST_QUARTS: u32 = 4;

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    [multi_cooker(case), small_pan(case), gauge(case), bare_bottom(case)].into_iter().flatten().collect()
}

fn multi_cooker(case: &Case) -> Option<Finding> {
    (case.canner.multi_cooker == Some(true)).then(|| {
        Finding::new(
            Code::CannerUnsuited,
            "The canner is an electric multi-cooker.",
            "No process was tested in one: it heats and cools faster than a canner, and its heat is not known in the jars.",
            "Use a boiling-water canner or any pot that is deep enough, on a stove.",
            Source::usda_guide_1(),
        )
    })
}

/// Pressure processes count on the time that a full-sized canner takes to heat up and to cool.
fn small_pan(case: &Case) -> Option<Finding> {
    let quarts = case.canner.quarts.filter(|quarts| case.is_pressure() && *quarts < LEAST_QUARTS)?;
    Some(Finding::new(
        Code::CannerUnsuited,
        format!(
            "The pressure canner holds {}, and it has to hold four.",
            counted(f64::from(quarts), "quart jar")
        ),
        "A small pan heats up and cools down faster than the canners that the times were tested in.",
        "Use a canner that holds four quart jars or more, or boiling water.",
        Source::usda_guide_1(),
    ))
}

fn gauge(case: &Case) -> Option<Finding> {
    let is_dial = case.heating == Some(Heating::PressureDial);
    let (message, is_said) = match case.canner.gauge_tested {
        _ if !is_dial => return None,
        Some(true) => return None,
        Some(false) => ("The dial gauge was not tested this year.", true),
        None => ("Nobody has said whether the dial gauge was tested this year.", false),
    };
    let finding = Finding::new(
        Code::GaugeUntested,
        message,
        "A dial that reads a pound too high leaves the jars too cool, and nobody can see it.",
        "Have it tested, as extension offices do, and say so with the canner.",
        Source::usda_guide_1(),
    );
    Some(if is_said { finding } else { finding.untold() })
}

fn bare_bottom(case: &Case) -> Option<Finding> {
    (case.canner.under_jars == Some(UnderJars::Nothing)).then(|| {
        Finding::new(
            Code::BareBottom,
            "The jars stand on the bare bottom of the pot.",
            "They knock and heat unevenly there, and crack.",
            "Put a rack or a folded towel under them before they go in.",
            Source::usda_guide_1(),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::{Case, Code, Heating, UnderJars, judge};
    use crate::judge::case::CaseCanner;
    use bodega_model::judge::finding::Severity;

    fn found(heating: Heating, canner: CaseCanner) -> Vec<(Code, Severity, bool)> {
        let case = Case { heating: Some(heating), canner, ..Case::default() };
        judge(&case).into_iter().map(|found| (found.code, found.severity, found.cannot_tell)).collect()
    }

    #[test]
    fn a_multi_cooker_and_a_small_pressure_pan_are_no_canners() {
        let multi = CaseCanner { multi_cooker: Some(true), ..CaseCanner::default() };
        for heating in [Heating::BoilingWater, Heating::PressureWeighted, Heating::AtmosphericSteam] {
            assert_eq!(found(heating, multi), [(Code::CannerUnsuited, Severity::Stop, false)], "{heating}");
        }
        let pan = |quarts| CaseCanner { quarts: Some(quarts), ..CaseCanner::default() };
        for (heating, quarts, is_wrong) in [
            (Heating::PressureWeighted, 3, true),
            (Heating::PressureWeighted, 4, false),
            // In boiling water a small pot is as hot as a large one.
            (Heating::BoilingWater, 2, false),
        ] {
            let codes = found(heating, pan(quarts));
            assert_eq!(codes.iter().any(|(code, ..)| *code == Code::CannerUnsuited), is_wrong, "{quarts}");
        }
    }

    #[test]
    fn a_dial_is_tested_each_year() {
        let tested = |said| CaseCanner { gauge_tested: said, ..CaseCanner::default() };
        let warns = |unsaid| vec![(Code::GaugeUntested, Severity::Warn, unsaid)];
        assert_eq!(found(Heating::PressureDial, tested(Some(true))), []);
        assert_eq!(found(Heating::PressureDial, tested(Some(false))), warns(false));
        assert_eq!(found(Heating::PressureDial, tested(None)), warns(true));
        assert_eq!(found(Heating::PressureWeighted, tested(Some(false))), []);
    }

    #[test]
    fn jars_stand_on_something() {
        let on = |under| CaseCanner { under_jars: Some(under), ..CaseCanner::default() };
        assert_eq!(found(Heating::BoilingWater, on(UnderJars::Towel)), []);
        assert_eq!(
            found(Heating::BoilingWater, on(UnderJars::Nothing)),
            [(Code::BareBottom, Severity::Warn, false)]
        );
    }
}
