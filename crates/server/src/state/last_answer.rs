//! The last answer of a room, with what was asked.

use std::any::Any;
use std::sync::{Mutex, PoisonError};

/// What a room keeps of its last answer. Only the room knows what that is, so that the state takes from no room.
#[derive(Debug, Default)]
pub struct LastAnswer(Mutex<Option<Box<dyn Any + Send>>>);

impl LastAnswer {
    /// Works with what was kept, `None` at first, and keeps what is there afterwards. One room at a time.
    pub(crate) fn with<T: Any + Send, R>(&self, work: impl FnOnce(&mut Option<T>) -> R) -> R {
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let mut last = kept.take().and_then(|kept| kept.downcast().ok()).map(|kept| *kept);
        let answer = work(&mut last);
        *kept = last.map(|last| Box::new(last) as Box<dyn Any + Send>);
        answer
    }
}
