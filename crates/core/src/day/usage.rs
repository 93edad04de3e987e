//! What is in use when, minute by minute.

use super::{Day, Task};

/// Uses of the four resources over time.
pub(super) struct Usage {
    minutes: Vec<[u32; 4]>,
    has: [u32; 4],
}

impl Usage {
    /// Nothing in use yet, up to a horizon.
    pub(super) fn free(day: &Day, horizon: u32) -> Self {
        Self { minutes: vec![[0; 4]; horizon as usize], has: day.has.each() }
    }

    /// What has begun, which stays where it is, with its starts.
    pub(super) fn of_begun(day: &Day, horizon: u32) -> (Self, Vec<Option<u32>>) {
        let mut usage = Self::free(day, horizon);
        let begun = |task: &Task| task.between.filter(|_| task.has_begun()).map(|(start, _)| start);
        let starts: Vec<Option<u32>> = day.tasks.iter().map(begun).collect();
        for (task, start) in day.tasks.iter().zip(&starts) {
            if let Some(start) = start {
                usage.take(*start, task.minutes, task.uses.each());
            }
        }
        (usage, starts)
    }

    /// What every task of a plan but one takes.
    pub(super) fn of_others(day: &Day, starts: &[u32], but: usize, horizon: u32) -> Self {
        let mut usage = Self::free(day, horizon);
        for (number, task) in day.tasks.iter().enumerate().filter(|(number, _)| *number != but) {
            usage.take(starts[number], task.minutes, task.uses.each());
        }
        usage
    }

    /// `None` when there is room from a start on; otherwise the next start that is worth a try, behind the last clash.
    pub(super) fn clash(&self, start: u32, length: u32, needs: [u32; 4]) -> Option<u32> {
        let clash = (start..start + length).rev().find(|minute| {
            let used = self.minutes.get(*minute as usize).copied().unwrap_or([u32::MAX; 4]);
            needs
                .iter()
                .zip(used)
                .zip(self.has)
                .any(|((need, used), has)| *need > 0 && need.saturating_add(used) > has)
        });
        clash.map(|minute| minute + 1)
    }

    /// Takes what a task needs.
    pub(super) fn take(&mut self, start: u32, length: u32, needs: [u32; 4]) {
        self.change(start, length, needs, |used, need| *used += need);
    }

    /// Gives back what a task took.
    pub(super) fn give_back(&mut self, start: u32, length: u32, needs: [u32; 4]) {
        self.change(start, length, needs, |used, need| *used -= need);
    }

    fn change(&mut self, start: u32, length: u32, needs: [u32; 4], by: fn(&mut u32, u32)) {
        for minute in self.minutes.iter_mut().skip(start as usize).take(length as usize) {
            minute.iter_mut().zip(needs).for_each(|(used, need)| by(used, need));
        }
    }
}
