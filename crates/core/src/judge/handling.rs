//! Water over the lids, the rest, the check of the seals and storage.

use bodega_model::canner::clock::REST;
use bodega_model::canner::cover::{LEAST_COVER_IN, SHORT_PROCESS, cover_in};
use bodega_model::judge::finding::{Code, Finding};
use bodega_model::measures::words::{counted, short};
use bodega_model::published::source::Source;
use bodega_model::towel::liquid::{HALF_GONE_DAYS, LiquidLost};
use uom::si::length::inch;
use uom::si::time::minute;

use super::case::{Case, Heating};
use crate::towel::seal::{CHECK_BY, CHECK_FROM};

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    [cover(case), rest(case), liquid(case), seal_check(case), reprocess(case), rings(case)]
        .into_iter()
        .flatten()
        .collect()
}

fn cover(case: &Case) -> Option<Finding> {
    let under_water = matches!(case.heating, None | Some(Heating::BoilingWater));
    let given = case.water_cover?.get::<inch>();
    // Nobody said how long: as for the longer ones, which every process of plain tomatoes is.
    let minutes = case.minutes.map_or(f64::INFINITY, |minutes| minutes.get::<minute>());
    let needed = cover_in(minutes);
    let code = match given {
        _ if !under_water || given >= needed - 1e-9 => return None,
        low if low < LEAST_COVER_IN - 1e-9 => Code::WaterLow,
        _ => Code::WaterCover,
    };
    let of = if needed > LEAST_COVER_IN {
        format!("a process of more than {SHORT_PROCESS} minutes")
    } else {
        "any process".to_owned()
    };
    Some(Finding::new(
        code,
        format!("{} in of water over the lids is too little for {of}.", short(given)),
        "Water boils away; lids that come out of it heat unevenly and leave the top of the jar cool.",
        format!(
            "Top up with boiling water to {} in over the lids, and look again when it boils.",
            short(needed)
        ),
        Source::usda_guide_1(),
    ))
}

fn rest(case: &Case) -> Option<Finding> {
    let given = case.rest?.get::<minute>();
    (given < f64::from(REST.0) - 1e-9).then(|| {
        Finding::new(
            Code::RestShort,
            format!("The jars were lifted {} after the heat went off.", counted(given, "minute")),
            "Jars lifted at once spit and lose liquid, and more lids fail.",
            "Look at these jars' seals with care, and let the next load stand 5 minutes with the lid off.",
            Source::usda_guide_1(),
        )
    })
}

/// Liquid that siphoned out of the jars. Source: USDA Guide 1, from memory.
fn liquid(case: &Case) -> Option<Finding> {
    Some(match case.liquid_lost? {
        LiquidLost::Some => Finding::new(
            Code::LiquidLow,
            "A jar lost less than half of its liquid in the canner.",
            "It keeps as the others do when its lid holds; the food above the liquid darkens.",
            "Eat it before the others. Next time: bubbles out, the full headspace, and let it rest before it is lifted.",
            Source::usda_guide_1(),
        ),
        LiquidLost::Half => Finding::new(
            Code::LiquidGone,
            "A jar lost half of its liquid or more in the canner.",
            "Food that lay dry did not get the heat that was tested, and it spoils first.",
            format!("Into the refrigerator, and eat it within 2 to {HALF_GONE_DAYS} days."),
            Source::usda_guide_1(),
        ),
    })
}

fn seal_check(case: &Case) -> Option<Finding> {
    let given = case.seal_check_after?.get::<minute>();
    (given < f64::from(CHECK_FROM.0) - 1e-9).then(|| {
        Finding::new(
            Code::SealCheckEarly,
            format!("The lids were judged {} after lifting.", counted(given / 60.0, "hour")),
            "A lid may still pull down until 12 hours have passed, and pressing it early can break a seal.",
            "Look again between 12 and 24 hours after lifting.",
            Source::usda_guide_1(),
        )
    })
}

fn reprocess(case: &Case) -> Option<Finding> {
    let given = case.reprocess_after?.get::<minute>();
    let do_now = match case.kept_cold {
        Some(true) => "It was kept cold: eat it within days or freeze it.",
        Some(false) => "It was not kept cold: discard it without tasting.",
        None => {
            "Was it kept cold all that time? Then eat it within days or freeze it. If not, or if nobody knows, \
             discard it without tasting."
        }
    };
    (given > f64::from(CHECK_BY.0) + 1e-9).then(|| {
        Finding::new(
            Code::ReprocessLate,
            format!("The jars are processed again {} after the first time.", counted(given / 60.0, "hour")),
            "After a day in an unsealed jar the food may have begun to spoil, and a second process is not made for that.",
            do_now,
            Source::usda_guide_1(),
        )
    })
}

fn rings(case: &Case) -> Option<Finding> {
    (case.rings_on_in_storage == Some(true)).then(|| {
        Finding::new(
            Code::RingsOn,
            "The rings are still on.",
            "A ring holds a lid down that has let go, hides the failure, and rusts.",
            "Take the rings off, wash and dry the jars, then store them.",
            Source::usda_guide_1(),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::{Case, Code, cover};
    use bodega_model::measures::units::{Time, inches};
    use uom::si::time::minute;

    #[test]
    fn an_inch_of_water_is_enough_up_to_thirty_minutes_and_two_beyond() {
        let found = |over: f64, minutes: Option<f64>| {
            let case = Case {
                water_cover: Some(inches(over)),
                minutes: minutes.map(Time::new::<minute>),
                ..Case::default()
            };
            cover(&case).map(|found| found.code)
        };
        for (over, minutes, expected) in [
            (1.0, Some(15.0), None),
            (1.0, Some(30.0), None),
            (0.9, Some(15.0), Some(Code::WaterLow)),
            (1.0, Some(30.1), Some(Code::WaterCover)),
            (1.9, Some(85.0), Some(Code::WaterCover)),
            (2.0, Some(85.0), None),
            (0.5, Some(85.0), Some(Code::WaterLow)),
            // Nobody said how long.
            (1.0, None, Some(Code::WaterCover)),
        ] {
            assert_eq!(found(over, minutes), expected, "{over} in for {minutes:?}");
        }
    }
}
