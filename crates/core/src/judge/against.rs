//! What the judge says of one jar that is out of its canner: what stands against it and what nobody said of it.

use bodega_model::judge::finding::{Code, Finding, Fix, Subject};
use bodega_model::judge::standing::End;

/// What ends a stop. What went into the food is not taken out again, and a clock that ran is not corrected.
pub(super) fn ends(found: &Finding) -> Vec<End> {
    let is_food = match found.code {
        Code::LowAcidAddition
        | Code::Thickener
        | Code::VegetableRatio
        | Code::RecipeRatio
        | Code::RecipeSwap
        | Code::RecipeUntested
        | Code::FrostKilledVine
        | Code::Overripe
        | Code::Mouldy => true,
        // Food that lay dry in the canner is not put back into it.
        Code::LiquidGone => true,
        _ => matches!(found.subject, Subject::Contents | Subject::Fruit),
    };
    let is_clock = found.code == Code::BoilLost || found.fix == Some(Fix::BringBackBoil);
    let mut ends = vec![End::Cold, End::Discard];
    if !is_food {
        ends.insert(0, End::Reprocess);
    }
    if !is_clock {
        ends.push(End::Correct);
    }
    ends
}

/// The same of the jars that lost their liquid, by their numbers.
pub(super) fn out_of(finding: Finding, numbers: &[u32]) -> Finding {
    if !matches!(finding.code, Code::LiquidGone | Code::LiquidLow) {
        return finding;
    }
    let names: Vec<String> = numbers.iter().map(u32::to_string).collect();
    let message = match names.as_slice() {
        [one] => finding.message.replacen("A jar", &format!("Jar {one}"), 1),
        _ => {
            let jars = finding.message.replacen("A jar", &format!("Jars {}", names.join(", ")), 1);
            jars.replacen("its liquid", "their liquid", 1)
        }
    };
    Finding { message, ..finding }
}

/// A finding in words for jars that are filled, closed and out of the canner: what is said at the bench would come too late.
pub(super) fn once_out(found: Finding) -> Finding {
    if !found.is_told_stop() {
        return found;
    }
    // It was seen on the towel, and says what to do there.
    if found.code == Code::LiquidGone {
        return found;
    }
    let do_now = if ends(&found).contains(&End::Reprocess) {
        "Open the jars, put it right and process them again in its time. Or keep them cold and eat them within days, freeze \
         them, or discard them."
    } else {
        "Nothing takes that out again: keep the jars cold and eat them within days, freeze them, or discard them."
    };
    Finding { do_now: do_now.to_owned(), ..found }
}
