//! A pH reading: it can only add caution. It never replaces the acid and never shortens the time.

use bodega_model::jars::ph::PH_LINE;
use bodega_model::judge::finding::{Code, Finding, Severity};
use bodega_model::published::source::Source;
use uom::si::thermodynamic_temperature::degree_celsius;

use super::case::{Case, PhReading, PhSample};

/// What people aim at in the dosed product, at the most. Common practice, no source.
const PH_AIM: f64 = 4.5;
/// Temperature a meter is read at. Common practice, no source.
const READ_AT_C: f64 = 25.0;
/// How far from it a meter without compensation may be read. Common practice, no source.
const NEAR_C: f64 = 5.0;

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let Some(reading) = &case.ph else { return Vec::new() };
    [high(reading), uncalibrated(reading), uncompensated(reading)].into_iter().flatten().collect()
}

/// Above the line the dosed product is stopped; raw food, whose dose is still to come, and a product that comes near the
/// line are warned of.
fn high(reading: &PhReading) -> Option<Finding> {
    let is_raw = reading.sample == Some(PhSample::Raw);
    let is_above = reading.value > PH_LINE + 1e-9;
    let why = "Above 4.6 the bacteria that cause botulism can grow in the jar, and boiling water does not kill their spores.";
    let found =
        |message: String, do_now: &str| Finding::new(Code::PhHigh, message, why, do_now, Source::cfr_114());
    match (is_above, is_raw) {
        (true, false) => Some(found(
            format!("The dosed sample read pH {:.2}, above {PH_LINE}.", reading.value),
            "Add acid, stir, and read a new blended sample at 25 °C (77 °F). Do not can it as it is.",
        )),
        (true, true) => Some(
            found(
                format!("The food read pH {:.2} before its acid, above {PH_LINE}.", reading.value),
                "Give every jar its full dose, then read the dosed product.",
            )
            .lighter(Severity::Warn),
        ),
        (false, false) if reading.value > PH_AIM + 1e-9 => Some(
            found(
                format!("The dosed sample read pH {:.2}, close to {PH_LINE}.", reading.value),
                "Aim at 4.5 or below: add acid, stir, and read a new sample.",
            )
            .lighter(Severity::Warn),
        ),
        (false, _) => None,
    }
}

fn uncalibrated(reading: &PhReading) -> Option<Finding> {
    (reading.calibrated_today == Some(false)).then(|| {
        Finding::new(
            Code::PhUncalibrated,
            "The pH meter was not calibrated today.",
            "Electrodes drift from day to day; the reading may be off either way.",
            "Set it in buffers 4.01 and 7.00 and read again. The acid goes in whatever it says.",
            Source::cfr_114(),
        )
    })
}

fn uncompensated(reading: &PhReading) -> Option<Finding> {
    let temperature = reading.temperature?.get::<degree_celsius>();
    let off = reading.compensated == Some(false) && (temperature - READ_AT_C).abs() > NEAR_C;
    off.then(|| {
        Finding::new(
            Code::PhUncompensated,
            format!("The sample was read at {temperature:.0} °C by a meter that does not allow for it."),
            "Away from 25 °C (77 °F) such a meter can be off by 0.2 to 0.3, enough to cross the line.",
            "Let the sample cool to 25 °C and read it again.",
            Source::common_practice(),
        )
    })
}
