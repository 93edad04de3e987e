//! Forecasts of what is on the stove, kept until something is read of it: they hang on the log and not on the moment.

use std::sync::{Arc, Mutex, PoisonError};

use bodega_core::kettle::cooking::{DrainFirst, cook_down, drain_first, span};
use bodega_core::kettle::finish::{CookDown, Forecast};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::Volume;
use bodega_model::records::cook::Cook;

/// Kettles that forecasts are kept of; a stove has no more.
const MOST: usize = 12;

/// A cook-down and what is expected of it.
pub(crate) struct Foreseen {
    cook: Cook,
    altitude: Option<Altitude>,
    /// What it stands on.
    pub(crate) down: CookDown,
    /// What is expected.
    pub(crate) forecast: Forecast,
    /// What draining first would change, as it was worked out last, and for which minute and pulp.
    drained: Mutex<Option<(i64, Volume, Option<DrainFirst>)>>,
}

impl Foreseen {
    /// What draining thin juice now would change: a forecast of its own, and so the same for a whole minute.
    pub(crate) fn drain_first(&self, pulp: Volume, now: Moment) -> Option<DrainFirst> {
        let minute = now.0.div_euclid(Minutes(1).ms());
        let mut drained = self.drained.lock().unwrap_or_else(PoisonError::into_inner);
        match *drained {
            Some((then, of, answer)) if then == minute && of == pulp => answer,
            _ => {
                let answer = drain_first(&self.down, &self.forecast, pulp, span(self.cook.started_at, now));
                *drained = Some((minute, pulp, answer));
                answer
            }
        }
    }
}

/// The last forecast of each kettle, the latest last.
#[derive(Default)]
pub struct Forecasts {
    kept: Mutex<Vec<Arc<Foreseen>>>,
}

impl Forecasts {
    /// What is expected of a cook-down.
    pub(crate) fn of(&self, cook: &Cook, altitude: Option<Altitude>) -> Arc<Foreseen> {
        let kept = || self.kept.lock().unwrap_or_else(PoisonError::into_inner);
        let known = kept().iter().find(|one| one.cook == *cook && one.altitude == altitude).map(Arc::clone);
        if let Some(known) = known {
            return known;
        }
        let down = cook_down(cook, altitude);
        let forecast = down.forecast();
        let new =
            Arc::new(Foreseen { cook: cook.clone(), altitude, down, forecast, drained: Mutex::default() });
        let mut kept = kept();
        kept.retain(|one| one.cook.id != cook.id);
        kept.push(Arc::clone(&new));
        let beyond = kept.len().saturating_sub(MOST);
        kept.drain(..beyond);
        new
    }
}
