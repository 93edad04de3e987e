//! The pH bench: readings of parts and of a mix before there is a batch. A mix is measured, never worked out from its parts;
//! and whether something goes into the water bath is the recipe's to say, never the meter's. Source: 21 CFR 114 and extension
//! guidance, from memory.

use bodega_model::jars::ph::PH_LINE;
use bodega_model::judge::finding::{Code, Finding, Ruling};
use bodega_model::published::source::Source;
use bodega_model::records::recipe::BenchPh;
use serde::Serialize;

use super::recipe_page::MayCan;
use crate::judge::records::ph_findings;

/// Whether it may go into the water bath, and what the meter adds to that.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WaterBath {
    /// Yes, no, or nobody can tell.
    pub ruling: Ruling,
    /// By rule and recipe, in a sentence.
    pub says: String,
    /// What the last reading of the mix adds; `null` while it was not read.
    pub meter: Option<String>,
}

/// What is to be said of a reading. An onion may well lie above the line: of a part only the meter is judged.
#[must_use]
pub fn findings_of(reading: &BenchPh) -> Vec<Finding> {
    let mut found = ph_findings(&reading.as_record());
    found.retain(|finding| reading.part.is_none() || finding.code != Code::PhHigh);
    found.extend(reading.calibrated_today.is_none().then(unsaid_setting));
    found
}

/// A meter of which nobody said whether it was set that day: that is as bad as one that was not. Common practice, no source.
fn unsaid_setting() -> Finding {
    Finding::new(
        Code::PhUncalibrated,
        "Nobody said whether the meter was set today.",
        "Electrodes drift from day to day; a reading of a meter that was not set may be off either way.",
        "Set it in buffers 4.01 and 7.00 and read again. The recipe decides, whatever it says.",
        Source::common_practice(),
    )
}

/// "May I water-bath this?", for bowls of a recipe or for something that has none. The last reading of the mix can only
/// forbid.
#[must_use]
pub fn may_water_bath(recipe: Option<&MayCan>, readings: &[BenchPh]) -> WaterBath {
    let mix = readings.iter().filter(|reading| reading.part.is_none()).max_by_key(|reading| reading.at);
    let is_high = mix.is_some_and(|mix| mix.ph > PH_LINE + 1e-9);
    let (ruling, says) = match recipe {
        Some(may) => (may.ruling, may.says.clone()),
        None => (
            Ruling::NotFine,
            "Not by a reading: only a tested recipe with a time of its own goes into the water bath, and plain tomatoes \
             with their dose. Whatever else it is goes into the refrigerator or the freezer."
                .to_owned(),
        ),
    };
    let meter = mix.map(|mix| {
        if is_high {
            format!("The mix read pH {:.2}, above {PH_LINE}: it does not go into jars, whatever the recipe says.", mix.ph)
        } else {
            format!(
                "The mix read pH {:.2}. That neither makes it a tested recipe nor shortens its time: it is one cup of one pot.",
                mix.ph
            )
        }
    });
    WaterBath { ruling: if is_high { Ruling::NotFine } else { ruling }, says, meter }
}
