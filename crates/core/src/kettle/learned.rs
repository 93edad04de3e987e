//! What a kettle has shown of itself: how fast water leaves it, how its sauce slows down, and how its forecasts came true.

use bodega_model::kettle::contents::Shown;
use bodega_model::kettle::words::{HeatSetting, KettleHeat};
use bodega_model::measures::units::{VolumeRate, in_litres_per_hour, litres_per_hour};
use bodega_model::records::cook::{Cook, Kettle};
use serde::Serialize;
use uom::si::ratio::ratio;

use super::cooking::{cook_down, span, vessel};
use super::finish::{CookDown, Forecast, Stretch};
use super::heat::{by_volume, oven_rate};
use crate::kettle::heat::usual_rate;

/// How far a rate may be off when nothing is known of a kettle on a burner, as a share. Ours.
const UNKNOWN_DOUBT: f64 = 0.6;
/// The same for a pan in the oven, where the surface limits. Ours.
const OVEN_DOUBT: f64 = 0.4;
/// How much further it is off at another setting than the one it was shown at. Ours.
const SETTING_DOUBT: f64 = 0.3;
/// How far one cook-down of a kettle differs from the next. Ours.
const DAY_DOUBT: f64 = 0.06;
/// And in how its sauce thickens.
const DAY_THICKENS: f64 = 0.12;
/// Readings from which a stretch says something.
const ENOUGH_READINGS: usize = 2;
/// A stretch that is less sure than this says nothing.
const TOO_DOUBTFUL: f64 = 0.35;

/// What one stretch of a cook-down has shown.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ShownStretch {
    /// The setting.
    pub setting: HeatSetting,
    /// Water that left.
    pub rate: VolumeRate,
    /// How far that may be off, as a share.
    pub doubt: f64,
}

/// What to expect of a kettle at a setting.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Water that leaves.
    pub rate: VolumeRate,
    /// How far that may be off, as a share.
    pub doubt: f64,
    /// Stretches at this setting that say so.
    pub learned_from: usize,
}

/// A mean by how sure each is, with its doubt.
fn weighed(all: &[(f64, f64)], between: f64) -> Option<(f64, f64)> {
    let weight = |doubt: f64| 1.0 / (doubt * doubt + between * between);
    let sum: f64 = all.iter().map(|(_, doubt)| weight(*doubt)).sum();
    let mean = all.iter().map(|(value, doubt)| value * weight(*doubt)).sum::<f64>() / sum;
    (!all.is_empty()).then(|| (mean, (1.0 / sum).sqrt().hypot(between)))
}

/// Water that leaves to expect at a setting: what the kettle has shown there, else what it has shown at the other settings in
/// proportion, else the usual full rate in proportion, with its own doubt.
#[must_use]
pub fn rate_at(setting: HeatSetting, shown: &[ShownStretch], usual: (VolumeRate, f64)) -> Expected {
    let logs = |at: &dyn Fn(&ShownStretch) -> Option<f64>| -> Vec<(f64, f64)> {
        shown.iter().filter_map(|seen| Some((at(seen)?.max(1e-3).ln(), seen.doubt))).collect()
    };
    let full = |seen: &ShownStretch| in_litres_per_hour(seen.rate) / seen.setting.share();
    let here = logs(&|seen| (seen.setting == setting).then(|| in_litres_per_hour(seen.rate)));
    let any = logs(&|seen| Some(full(seen)));
    let learned_from = here.len();
    let (mean, doubt) = weighed(&here, DAY_DOUBT)
        .or_else(|| {
            let (mean, doubt) = weighed(&any, DAY_DOUBT)?;
            Some((mean + setting.share().ln(), doubt.hypot(SETTING_DOUBT)))
        })
        .unwrap_or_else(|| ((in_litres_per_hour(usual.0) * setting.share()).ln(), usual.1));
    Expected { rate: litres_per_hour(mean.exp()), doubt, learned_from }
}

/// How fast water leaves a kettle at one setting of the heat.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KettleRate {
    /// The setting.
    pub setting: HeatSetting,
    /// Litres of water an hour.
    pub litres_per_hour: f64,
    /// How far that may be off, as a share.
    pub doubt: f64,
    /// Stretches at this setting that it was learned from; 0 when it is only expected.
    pub learned_from: usize,
}

/// Settings of the heat in a cook-down, from its start on.
pub fn settings(cook: &Cook) -> impl Iterator<Item = HeatSetting> {
    std::iter::once(cook.setting).chain(cook.log.iter().filter_map(|event| event.what.setting()))
}

/// What one finished cook-down has shown.
#[derive(Debug, Clone, PartialEq)]
pub struct Past {
    stretches: Vec<ShownStretch>,
    thickens: Option<(f64, f64)>,
    longer: Option<f64>,
}

/// Share of the way from which a cook-down counts as led to its mark.
const LED: f64 = 0.9;

impl Past {
    /// Looks back at a finished cook-down.
    #[must_use]
    pub fn of(cook: &Cook) -> Self {
        let down = cook_down(cook, None);
        let forecast = down.forecast();
        let says = |stretch: &Stretch| stretch.readings >= ENOUGH_READINGS && stretch.doubt < TOO_DOUBTFUL;
        let stretches: Vec<ShownStretch> = settings(cook)
            .zip(&forecast.stretches)
            .filter(|(_, stretch)| says(stretch))
            .map(|(setting, stretch)| ShownStretch {
                setting,
                rate: by_volume(stretch.rate),
                doubt: stretch.doubt,
            })
            .collect();
        let thickens = (!stretches.is_empty()).then_some(forecast.thickens);
        Self { stretches, thickens, longer: longer(cook, &down, &forecast) }
    }
}

/// How much longer a cook-down took than was said at its start, as a share; `None` unless it was led to a mark.
fn longer(cook: &Cook, down: &CookDown, forecast: &Forecast) -> Option<f64> {
    let took = span(cook.started_at, cook.ended_at?);
    // What nobody had said how warm it was, was promised by another rule.
    cook.start_c?;
    forecast.mark?;
    let (start, goal) = (down.start.volume(), forecast.goal.volume());
    let way = ((start - forecast.volume_at(took)) / (start - goal)).get::<ratio>();
    let first = down.as_at_the_start().forecast().finish.expected;
    (way >= LED).then(|| (took.min(forecast.finish.expected) / first).get::<ratio>() - 1.0)
}

/// What a kettle has shown in its finished cook-downs.
#[derive(Debug, Clone, PartialEq)]
pub struct Learned {
    usual: (VolumeRate, f64),
    stretches: Vec<ShownStretch>,
    thickens: Option<(f64, f64)>,
    /// How its first promises came true.
    pub promises: Option<Promises>,
}

impl Learned {
    /// Learns from the last cook-downs of a kettle, the latest first.
    #[must_use]
    pub fn learn(kettle: &Kettle, past: &[Past]) -> Self {
        let usual = match kettle.heat {
            KettleHeat::Burner => (usual_rate(), UNKNOWN_DOUBT),
            KettleHeat::Oven => (oven_rate(&vessel(kettle)), OVEN_DOUBT),
        };
        let thickens: Vec<(f64, f64)> = past.iter().filter_map(|past| past.thickens).collect();
        Self {
            usual,
            stretches: past.iter().flat_map(|past| past.stretches.iter().copied()).collect(),
            thickens: weighed(&thickens, DAY_THICKENS),
            promises: promises(past),
        }
    }

    /// What to expect at a setting.
    #[must_use]
    pub fn at(&self, setting: HeatSetting) -> Expected {
        rate_at(setting, &self.stretches, self.usual)
    }

    /// What a forecast at a setting may count on.
    #[must_use]
    pub fn shown(&self, setting: HeatSetting) -> Shown {
        Shown { rate_doubt: self.at(setting).doubt, thickens: self.thickens }
    }

    /// What to expect at every setting.
    #[must_use]
    pub fn rates(&self) -> Vec<KettleRate> {
        let rate = |setting: &HeatSetting| {
            let Expected { rate, doubt, learned_from } = self.at(*setting);
            KettleRate { setting: *setting, litres_per_hour: in_litres_per_hour(rate), doubt, learned_from }
        };
        HeatSetting::ALL.iter().map(rate).collect()
    }
}

/// How the first promises of a kettle came true.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Promises {
    /// Cook-downs that were led to their mark, the last three at most.
    pub of: usize,
    /// How much longer they took than was said at first, in percent; negative when they were sooner.
    pub longer_percent: f64,
}

/// Cook-downs whose promises are told.
const TOLD: usize = 3;

/// Holds the first promises of a kettle against what came, over its last cook-downs that were led to their mark.
fn promises(past: &[Past]) -> Option<Promises> {
    let longer: Vec<f64> = past.iter().filter_map(|past| past.longer).take(TOLD).collect();
    #[allow(clippy::cast_precision_loss)] // three at most
    let mean = longer.iter().sum::<f64>() / longer.len().max(1) as f64;
    (!longer.is_empty()).then_some(Promises { of: longer.len(), longer_percent: mean * 100.0 })
}
