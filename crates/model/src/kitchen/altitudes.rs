//! What was said of the kitchen's altitude over time: a household moves, and an altitude turns out to have been wrong. The two
//! mean different things for jars that are put up already.

use serde::Serialize;

use crate::measures::moment::Moment;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Why the altitude is another one.
    "reason", AltitudeReason {
        /// The kitchen is somewhere else now; what was put up before was put up there.
        Moved = "moved", "we can somewhere else now";
        /// The altitude was wrong all along.
        Corrected = "corrected", "it was wrong";
    }
}

/// An altitude as it was said at one time.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AltitudeSaid {
    /// When.
    pub at: Moment,
    /// What it was before, in feet.
    pub was_ft: f64,
    /// What it is from then on, in feet.
    pub altitude_ft: f64,
    /// Why.
    pub reason: AltitudeReason,
    /// Who said so, as the device is called; `null` for the machine that keeps the records.
    pub who: Option<String>,
}

/// How far two altitudes may differ and still be the same one as said, in feet: metres are turned into feet and back.
const SAME_FT: f64 = 2.0;

/// The altitude that jars were processed at, in feet: the one that was in force when they came out of the canner, put right by
/// every correction of it since. Moving the kitchen changes nothing about them.
///
/// `planned_ft` is what their batch was planned for; `said` is what was said of the kitchen, oldest first.
#[must_use]
pub fn altitude_of_day(planned_ft: f64, lifted_at: Moment, said: &[AltitudeSaid]) -> f64 {
    let is_before = |said: &&AltitudeSaid| said.at <= lifted_at;
    let mut altitude_ft = said.iter().rfind(is_before).map_or(planned_ft, |said| said.altitude_ft);
    for later in said.iter().filter(|said| !is_before(said)) {
        let is_of_it = (later.was_ft - altitude_ft).abs() < SAME_FT;
        if later.reason == AltitudeReason::Corrected && is_of_it {
            altitude_ft = later.altitude_ft;
        }
    }
    altitude_ft
}

#[cfg(test)]
mod tests {
    use super::{AltitudeReason, AltitudeSaid, altitude_of_day};
    use crate::measures::moment::Moment;

    fn said(hour: i64, was_ft: f64, altitude_ft: f64, reason: AltitudeReason) -> AltitudeSaid {
        AltitudeSaid { at: Moment(hour * 3_600_000), was_ft, altitude_ft, reason, who: None }
    }

    #[test]
    fn moving_leaves_jars_where_they_were_put_up_and_a_correction_follows_them() {
        use AltitudeReason::{Corrected, Moved};
        let of_day = |history: &[AltitudeSaid]| altitude_of_day(2640.0, Moment(10 * 3_600_000), history);
        let first = said(1, 0.0, 2640.0, Moved);
        for (name, history, expected) in [
            ("nothing was ever said", vec![], 2640.0),
            ("said before", vec![first.clone()], 2640.0),
            ("moved before they were lifted", vec![first.clone(), said(5, 2640.0, 6200.0, Moved)], 6200.0),
            ("moved at the moment itself", vec![first.clone(), said(10, 2640.0, 6200.0, Moved)], 6200.0),
            ("moved afterwards", vec![first.clone(), said(11, 2640.0, 6200.0, Moved)], 2640.0),
            ("corrected afterwards", vec![first.clone(), said(11, 2640.0, 3100.0, Corrected)], 3100.0),
            (
                "corrected twice",
                vec![said(11, 2640.0, 3100.0, Corrected), said(12, 3100.0, 2900.0, Corrected)],
                2900.0,
            ),
            (
                "moved, and the new place corrected",
                vec![first.clone(), said(11, 2640.0, 6200.0, Moved), said(12, 6200.0, 6300.0, Corrected)],
                2640.0,
            ),
            (
                "an older build moved without a word, and the new place was corrected",
                vec![said(12, 6200.0, 6300.0, Corrected)],
                2640.0,
            ),
        ] {
            assert!((of_day(&history) - expected).abs() < 1e-9, "{name}");
        }
    }
}
