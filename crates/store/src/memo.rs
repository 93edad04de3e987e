//! What takes long to work out of the records, kept until something is written.

use std::sync::{Mutex, PoisonError};

use crate::StoreError;

/// The last answer, with how much had been written when it was asked for.
pub(crate) struct Memo<T>(Mutex<Option<(u64, T)>>);

impl<T> Default for Memo<T> {
    fn default() -> Self {
        Self(Mutex::default())
    }
}

impl<T: Clone> Memo<T> {
    /// The answer of before while `changes` is the same, else a new one. Nobody waits for one who works it out: what is
    /// written meanwhile makes another count.
    pub(crate) fn while_unchanged(
        &self,
        changes: u64,
        work_out: impl FnOnce() -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner).clone();
        if let Some((_, answer)) = kept.filter(|(then, _)| *then == changes) {
            return Ok(answer);
        }
        let answer = work_out()?;
        *self.0.lock().unwrap_or_else(PoisonError::into_inner) = Some((changes, answer.clone()));
        Ok(answer)
    }
}
