//! How fast water leaves each kettle, learned from its own cook-downs.

use bodega_core::kettle::{HeatSetting, KettleHeat, oven_litres_per_hour, rate_at, water_litres};
use bodega_core::plan::outlook::BOILS_AWAY_L_PER_H;
use bodega_core::records::cook::{Cook, Kettle};
use bodega_store::{Store, StoreError};
use serde::Serialize;
use utoipa::ToSchema;

use crate::kettle::view::{cook_down, vessel};

/// How fast water leaves a kettle at one setting of the heat.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct KettleRate {
    /// The setting.
    pub setting: HeatSetting,
    /// Litres of water an hour.
    pub litres_per_hour: f64,
    /// Stretches at this setting that it was learned from; 0 when it is only expected.
    pub learned_from: usize,
}

/// Settings of the heat in a cook-down, from its start on.
pub(crate) fn settings(cook: &Cook) -> impl Iterator<Item = HeatSetting> {
    std::iter::once(cook.setting).chain(cook.log.iter().filter_map(|event| event.what.setting()))
}

/// What a kettle does at a setting: learned from its finished cook-downs, over stretches with at least two readings.
pub(crate) fn learned(ended: &[Cook], kettle: &Kettle) -> Result<Vec<KettleRate>, StoreError> {
    const ENOUGH_READINGS: usize = 2;
    let mut shown = Vec::new();
    for cook in ended.iter().filter(|cook| cook.kettle.id == kettle.id) {
        let stretches = cook_down(cook, None)?.forecast().stretches;
        let enough = settings(cook).zip(stretches).filter(|(_, stretch)| stretch.readings >= ENOUGH_READINGS);
        shown.extend(enough.map(|(setting, stretch)| (setting, water_litres(stretch.kg_per_hour))));
    }
    let usual = match kettle.heat {
        KettleHeat::Burner => BOILS_AWAY_L_PER_H,
        KettleHeat::Oven => oven_litres_per_hour(&vessel(kettle)),
    };
    let rate = |setting: &HeatSetting| {
        let (litres_per_hour, learned_from) = rate_at(*setting, &shown, usual);
        KettleRate { setting: *setting, litres_per_hour, learned_from }
    };
    Ok(HeatSetting::ALL.iter().map(rate).collect())
}

/// Litres an hour to expect of a kettle at a setting.
pub(crate) fn expected_rate(
    ended: &[Cook],
    kettle: &Kettle,
    setting: HeatSetting,
) -> Result<f64, StoreError> {
    let rates = learned(ended, kettle)?;
    Ok(rates
        .iter()
        .find(|rate| rate.setting == setting)
        .map_or(BOILS_AWAY_L_PER_H, |rate| rate.litres_per_hour))
}

/// Litres an hour that the household's quickest kettle boils away at full heat, as far as it is known.
pub(crate) fn best_rate(store: &Store) -> Result<f64, StoreError> {
    let ended = store.cooks(true)?;
    let mut best: f64 = 0.0;
    for kettle in store.kettles()? {
        best = best.max(expected_rate(&ended, &kettle, HeatSetting::High)?);
    }
    Ok(if best > 0.0 { best } else { BOILS_AWAY_L_PER_H })
}
