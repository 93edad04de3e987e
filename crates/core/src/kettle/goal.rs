//! Goals that are no mark: simmered for some minutes, held hot for some minutes, or only brought to the boil. Their clock
//! starts when somebody says that it boils, or that it is hot enough.

use bodega_model::kettle::words::TargetKind;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::{Temperature, celsius, in_celsius};
use bodega_model::records::cook::Cook;
use bodega_model::tables::process::{Pack, Product};

/// Juice is held from 190 °F on, in degrees Celsius. Common practice, no source.
const HOLD_FROM_C: f64 = 87.8;
/// And up to 205 °F. Common practice, no source.
const HOLD_TO_C: f64 = 96.1;
/// Held juice does not boil: it stays so far below the boil, in degrees Celsius. Ours.
const BELOW_BOIL_C: f64 = 1.0;

/// How long a hot pack of whole or crushed tomatoes boils gently from its first boil, before it is filled. Source: USDA Guide 3,
/// from memory.
pub const HOT_PACK_BOIL: Minutes = Minutes(5);

/// What is said of juice at the kettle and at the bench: the tested pack goes into the jar boiling. Source: USDA Guide 3, from memory.
pub const BOIL_BEFORE_FILLING: &str = "Bring the juice to a full boil before it goes into the jars, however long it was held hot, and fill them at once.";

/// Whether a product is told that before it is filled.
#[must_use]
pub const fn boils_before_filling(product: Product) -> bool {
    matches!(product, Product::Juice | Product::VegetableJuice)
}

/// A goal as the product asks for it: what is packed hot is not filled at its first bubble, but after its minutes of gentle boil.
#[must_use]
pub fn as_packed(goal: (TargetKind, f64), product: Product, pack: Pack) -> (TargetKind, f64) {
    let boils_on = matches!((product, pack), (Product::Crushed, _) | (Product::Whole, Pack::Hot));
    match goal {
        (TargetKind::ToBoil, _) if boils_on => (TargetKind::BoilMinutes, f64::from(HOT_PACK_BOIL.0)),
        other => other,
    }
}

/// The clock of a cook-down whose goal is a time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Timer {
    /// Minutes that it runs; none when it is only brought to the boil.
    pub minutes: f64,
    /// Since when; `None` until it boils or is hot enough.
    pub since: Option<Moment>,
}

impl Timer {
    /// When it is over; as if it began now while it has not.
    #[must_use]
    pub fn ends(&self, now: Moment) -> Moment {
        #[allow(clippy::cast_possible_truncation)] // some hours of milliseconds
        let span = (self.minutes * 60_000.0).round() as i64;
        Moment(self.since.unwrap_or(now).0 + span)
    }

    /// Share of it that has run, 0 to 1.
    #[must_use]
    pub fn share(&self, now: Moment) -> f64 {
        let Some(since) = self.since else { return 0.0 };
        let all = self.ends(now).since_ms(since).max(1);
        #[allow(clippy::cast_precision_loss)] // hours of milliseconds
        let run = now.since_ms(since) as f64 / all as f64;
        run.clamp(0.0, 1.0)
    }
}

/// The clock of a cook-down, if its goal has one.
#[must_use]
pub fn timer(cook: &Cook) -> Option<Timer> {
    let starts = cook.target.starts_with()?;
    let since = cook.log.iter().find(|event| event.what == starts).map(|event| event.at);
    let minutes = if cook.target == TargetKind::ToBoil { 0.0 } else { cook.target_value };
    Some(Timer { minutes, since })
}

/// Between what juice is held here: 190 to 205 °F, or as near to it as the altitude lets it without boiling.
#[must_use]
pub fn hold_between(altitude: Option<Altitude>) -> (Temperature, Temperature) {
    let boils = in_celsius(altitude.unwrap_or(Altitude::SEA_LEVEL).boiling_point());
    let most = HOLD_TO_C.min(boils - BELOW_BOIL_C);
    (celsius(HOLD_FROM_C.min(most)), celsius(most))
}

/// What a probe in juice that is held says of its heat.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Held {
    /// Not hot enough yet.
    Cool,
    /// As it should be.
    Hot,
    /// Nearer to the boil than it is held.
    TooHot,
}

/// Holds a temperature against what juice is held at.
#[must_use]
pub fn held(read: Temperature, between: (Temperature, Temperature)) -> Held {
    let read = in_celsius(read);
    if read >= in_celsius(between.1) {
        Held::TooHot
    } else if read >= in_celsius(between.0) {
        Held::Hot
    } else {
        Held::Cool
    }
}

#[cfg(test)]
mod tests {
    use super::{TargetKind, as_packed};
    use bodega_model::tables::process::{Pack, Product};

    #[test]
    fn a_hot_pack_boils_for_five_minutes_before_it_is_filled() {
        let boil = (TargetKind::ToBoil, 1.0);
        for (product, pack, minutes) in [
            (Product::Crushed, Pack::Hot, Some(5.0)),
            (Product::Whole, Pack::Hot, Some(5.0)),
            (Product::Whole, Pack::Raw, None),
            (Product::Juice, Pack::Hot, None),
            (Product::Sauce, Pack::Hot, None),
        ] {
            let asked = minutes.map_or(boil, |minutes| (TargetKind::BoilMinutes, minutes));
            assert_eq!(as_packed(boil, product, pack), asked, "{product} {pack}");
        }
        // What somebody asked for otherwise stays.
        let simmered = (TargetKind::BoilMinutes, 20.0);
        assert_eq!(as_packed(simmered, Product::Crushed, Pack::Hot), simmered);
    }
}
