//! How much the solver may work: so long on a clock, or so many steps of its own, which are the same on every machine.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use pumpkin_core::termination::{TerminationCondition, TimeBudget};

/// How much may be spent on a search.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Budget {
    /// Time on the clock: what a person waits for.
    Time(Duration),
    /// Steps of the solver: the same answer wherever it runs.
    Steps(u64),
}

impl Budget {
    /// Half of it.
    #[must_use]
    pub fn half(self) -> Self {
        match self {
            Self::Time(time) => Self::Time(time / 2),
            Self::Steps(steps) => Self::Steps(steps / 2),
        }
    }

    /// A search begins.
    pub(super) fn begin(self) -> Spending {
        let left = match self {
            Self::Time(time) => Left::Time(TimeBudget::starting_now(time)),
            Self::Steps(steps) => Left::Steps(steps),
        };
        Spending { left, done: None }
    }
}

/// What is left of a budget while a search runs.
pub(super) struct Spending {
    left: Left,
    /// Somebody else is done, and nothing more is wanted.
    done: Option<Arc<AtomicBool>>,
}

enum Left {
    Time(TimeBudget),
    Steps(u64),
}

impl Spending {
    /// No longer than until somebody says that it is done.
    pub(super) fn until(self, done: Arc<AtomicBool>) -> Self {
        Self { done: Some(done), ..self }
    }
}

impl TerminationCondition for Spending {
    fn should_stop(&mut self) -> bool {
        if self.done.as_ref().is_some_and(|done| done.load(Ordering::Relaxed)) {
            return true;
        }
        match &mut self.left {
            Left::Time(time) => time.should_stop(),
            Left::Steps(left) => {
                let is_spent = *left == 0;
                *left = left.saturating_sub(1);
                is_spent
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use std::time::Duration;

    use pumpkin_core::termination::TerminationCondition;

    use super::Budget;

    #[test]
    fn steps_are_counted_and_halved() {
        let mut three = Budget::Steps(3).begin();
        assert_eq!([(); 5].map(|()| three.should_stop()), [false, false, false, true, true]);
        assert_eq!(Budget::Steps(9).half(), Budget::Steps(4));
        assert_eq!(Budget::Time(Duration::from_secs(4)).half(), Budget::Time(Duration::from_secs(2)));
        assert!(Budget::Time(Duration::ZERO).begin().should_stop());
        assert!(!Budget::Time(Duration::from_hours(1)).begin().should_stop());
    }
}
