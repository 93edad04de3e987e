//! Fruit that must not be canned, or needs a knife.

use bodega_model::crates::fruit::Kind;
use bodega_model::judge::finding::{Code, Finding, Severity, Subject};
use bodega_model::measures::words::capital;
use bodega_model::published::source::Source;
use bodega_model::tables::process::Product;

use super::case::{Case, Damage, Ripeness, Vine};
use crate::crates::unlike::{FROZEN_INSTEAD, FROZEN_WHOLE, TOMATILLOS, TOMATILLOS_INSTEAD};

const FALLEN_ACID: &str =
    "The acidity of such fruit has fallen, and the tested dose of acid was not made for it.";
const ELSEWHERE: &str = "Leave it out. Sound parts may be eaten fresh or frozen now.";

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let fruit = &case.fruit;
    let stop =
        |code, message: &str| Finding::new(code, message, FALLEN_ACID, ELSEWHERE, Source::usda_guide_3());
    let mut found = Vec::new();
    if fruit.frozen == Some(true) && case.product == Some(Product::Whole) {
        found.push(
            Finding::new(
                Code::NoTestedProcess,
                format!("{}.", capital(FROZEN_WHOLE)),
                "Frozen fruit is soft and gives up its water: it packs tighter than the fresh fruit that was tested.",
                FROZEN_INSTEAD,
                Source::usda_guide_3(),
            )
            .about(Subject::Fruit)
            .naming("frozen fruit"),
        );
    }
    if fruit.kind == Some(Kind::Tomatillo) && case.recipe.is_none() {
        found.push(
            Finding::new(
                Code::NoTestedProcess,
                format!("{}.", capital(TOMATILLOS)),
                "Their acid, their flesh and how they heat through are others than the tested fruit's.",
                TOMATILLOS_INSTEAD,
                Source::usda_guide_3(),
            )
            .about(Subject::Fruit)
            .naming("tomatillos"),
        );
    }
    match fruit.vine {
        Some(Vine::FrostKilled) => {
            found
                .push(stop(Code::FrostKilledVine, "The fruit was picked from a vine that frost had killed."));
        }
        Some(Vine::Dead) => {
            found.push(stop(Code::FrostKilledVine, "The fruit was picked from a dead vine."));
        }
        Some(Vine::Blighted) => {
            found.push(stop(Code::FrostKilledVine, "The fruit was picked from a blighted vine."));
        }
        Some(Vine::LightFrost) => {
            let lives = stop(Code::FrostKilledVine, "The vine had a light frost and lives.");
            let do_now = "Sort with care: can what is firm and sound, and give it its full acid.".to_owned();
            found.push(Finding { do_now, ..lives }.lighter(Severity::Warn));
        }
        Some(Vine::Living) | None => {}
    }
    match fruit.ripeness {
        Some(Ripeness::Overripe) => found.push(stop(Code::Overripe, "The fruit is overripe.")),
        Some(Ripeness::Underripe) => found.push(Finding::new(
            Code::Underripe,
            "The fruit is not ripe yet.",
            "Unripe tomatoes are acid enough but thin in taste and hard to skin.",
            "Hold it on a sill for some days, or go on and blanch it for up to 2 minutes.",
            Source::common_practice(),
        )),
        Some(Ripeness::FirmRipe) | None => {}
    }
    match fruit.damage {
        Some(Damage::Mouldy) => found.push(stop(Code::Mouldy, "There is mould on the fruit.")),
        Some(Damage::Bruised) => found.push(Finding::new(
            Code::Bruised,
            "The fruit is bruised.",
            "Bruises spoil first and carry more germs than the process was tested against.",
            "Cut small bruises out after peeling; leave badly bruised fruit out.",
            Source::usda_guide_3(),
        )),
        Some(Damage::None | Damage::Blemish) | None => {}
    }
    found
}
