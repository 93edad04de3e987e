//! How much the solver may work: so long on a clock, or so many steps of its own, which are the same on every machine.

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
        match self {
            Self::Time(time) => Spending::Time(TimeBudget::starting_now(time)),
            Self::Steps(steps) => Spending::Steps(steps),
        }
    }
}

/// What is left of a budget while a search runs.
pub(super) enum Spending {
    Time(TimeBudget),
    Steps(u64),
}

impl TerminationCondition for Spending {
    fn should_stop(&mut self) -> bool {
        match self {
            Self::Time(time) => time.should_stop(),
            Self::Steps(left) => {
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
