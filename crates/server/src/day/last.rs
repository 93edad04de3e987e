//! The last day that was laid out.

use std::sync::{Mutex, PoisonError};

use crate::day::ground::Ground;
use crate::day::view::DayView;

/// The last day that was laid out: every open screen asks for the same one, and it costs a search.
#[derive(Debug, Default)]
pub struct LastDay(Mutex<Option<(Ground, DayView)>>);

impl LastDay {
    /// The view of a ground, searched anew only when something changed.
    pub(super) fn view(&self, ground: Ground) -> DayView {
        let mut last = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((_, view)) = last.as_ref().filter(|(before, _)| before.is_like(&ground)) {
            return view.clone();
        }
        let view = ground.view(last.as_ref().map(|(_, view)| view));
        *last = Some((ground, view.clone()));
        view
    }
}
