//! A day as tasks: what each needs, what comes before it, and what a kitchen has.

use serde::{Deserialize, Serialize};

/// What tasks need and what a kitchen has.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Needs {
    /// Pairs of hands.
    pub people: u32,
    /// Burners.
    pub burners: u32,
    /// Kettles.
    pub kettles: u32,
    /// Canners.
    pub canners: u32,
}

impl Needs {
    /// The four, in a fixed order.
    #[must_use]
    pub const fn each(self) -> [u32; 4] {
        [self.people, self.burners, self.kettles, self.canners]
    }

    /// What the four are called.
    pub const NAMES: [&'static str; 4] = ["pairs of hands", "burners", "kettles", "canners"];
}

/// How long after an earlier task's end a task starts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct After {
    /// Place of the earlier task.
    pub task: usize,
    /// Least minutes from its end; negative lets them overlap.
    pub least: i64,
    /// Most minutes from its end.
    pub most: Option<i64>,
}

/// Something to do, without a break from start to end.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Task {
    /// How long it takes.
    pub minutes: u32,
    /// What it holds meanwhile.
    pub uses: Needs,
    /// What comes before it.
    pub after: Vec<After>,
    /// Earliest and latest start, when it may not begin at any time; the same minute for what has begun.
    pub between: Option<(u32, u32)>,
}

impl Task {
    /// Whether its start is given.
    #[must_use]
    pub fn has_begun(&self) -> bool {
        self.between.is_some_and(|(earliest, latest)| earliest == latest)
    }
}

/// A day to lay out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Day {
    /// What the kitchen has.
    pub has: Needs,
    /// Minutes that the day may take.
    pub horizon: u32,
    /// What is to be done.
    pub tasks: Vec<Task>,
}

pub(super) fn end(day: &Day, starts: &[u32]) -> u32 {
    day.tasks.iter().zip(starts).map(|(task, start)| start + task.minutes).max().unwrap_or(0)
}
