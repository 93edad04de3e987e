//! What finished cook-downs have shown, looked back at once for each.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use bodega_core::kettle::learned::Past;
use bodega_model::measures::ids::CookId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::cook::Cook;

/// Cook-downs that are kept in memory.
const KEPT: usize = 500;

/// When a cook-down ended and how long its log is: the same cook-down shows the same.
type Version = (Option<Moment>, usize);

/// What finished cook-downs have shown; a cook-down is looked back at again only when its record changed.
#[derive(Debug, Default)]
pub struct LookedBack(Mutex<HashMap<CookId, (Version, Past)>>);

impl LookedBack {
    /// What a finished cook-down has shown.
    pub(crate) fn past(&self, cook: &Cook) -> Past {
        let version = (cook.ended_at, cook.log.len());
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&cook.id).cloned();
        if let Some((_, past)) = kept.filter(|(of, _)| *of == version) {
            return past;
        }
        let past = Past::of(cook);
        let mut all = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if all.len() >= KEPT {
            all.clear();
        }
        all.insert(cook.id, (version, past.clone()));
        past
    }
}
