//! What the day is made of, and what is asked of it.

use bodega_core::day::overnight::advice;
use bodega_core::day::work::{BatchWork, Block, Pause, PrepareWork, Turnaround, key, tasks};
use bodega_core::day::{Day, Needs};
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::day::BlockNote;

use crate::state::day_search::Search;

/// A batch on the line.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct OpenBatch {
    /// Its record.
    pub id: BatchId,
    /// What is left to do of it today.
    pub work: BatchWork,
    /// Nobody has cut its fruit yet.
    pub untouched: bool,
    /// What would be left today if its juice waited overnight; `None` when it cannot.
    pub chilled: Option<BatchWork>,
    /// Since when its juice has waited overnight.
    pub waiting_since: Option<Moment>,
    /// Whether what waits was cooked already.
    pub is_cooked: bool,
    /// All its fruit is fresh, and no other batch draws on it.
    pub may_freeze: bool,
}

/// What the day is made of.
#[derive(Debug)]
pub(crate) struct Ground {
    pub now: Moment,
    pub day_ends: Moment,
    pub horizon: u32,
    pub has: Needs,
    pub batches: Vec<OpenBatch>,
    /// When the work is to be done, in minutes after midnight.
    pub day_ends_at: u32,
    pub canners: Turnaround,
    pub pause: Option<Pause>,
    pub notes: Vec<BlockNote>,
    /// How long a plan is searched for.
    pub search: Search,
}

impl Ground {
    /// Whether another moment asks for the same plan: the same minute of the same work.
    pub(super) fn is_like(&self, other: &Self) -> bool {
        let whole_minute = |moment: Moment| moment.0 / Minutes(1).ms();
        whole_minute(self.now) == whole_minute(other.now)
            && self.horizon == other.horizon
            && self.has == other.has
            && self.canners == other.canners
            && self.pause == other.pause
            && self.batches == other.batches
            && self.notes == other.notes
    }

    /// What is left to do of every batch.
    pub(super) fn works(&self) -> Vec<BatchWork> {
        self.batches.iter().map(|batch| batch.work.clone()).collect()
    }

    /// Minutes that a block was said to take longer.
    pub(super) fn slip(&self, block: &Block) -> i64 {
        self.notes.iter().find(|note| note.block == block.key).map_or(0, |note| note.slip)
    }

    /// The tasks with what takes longer added to them.
    pub(super) fn day(&self, works: &[BatchWork], has: Needs, horizon: u32) -> (Day, Vec<Block>) {
        let (mut day, blocks) = tasks(works, self.canners, self.pause, has, horizon);
        for (task, block) in day.tasks.iter_mut().zip(&blocks) {
            // What is left of work that was said to begin has it in it already.
            let slip = if block.begun && block.is_said { 0 } else { self.slip(block) };
            task.minutes = u32::try_from((i64::from(task.minutes) + slip).max(1)).unwrap_or(task.minutes);
        }
        (day, blocks)
    }

    /// A block by its lasting name, and how long it takes.
    pub(super) fn find(&self, key: &str) -> Option<(Block, u32)> {
        let (day, blocks) = self.day(&self.works(), self.has, self.horizon);
        let minutes = day.tasks.into_iter().map(|task| task.minutes);
        blocks.into_iter().zip(minutes).find(|(block, _)| block.key == key)
    }

    /// Minutes that work at the sink takes at the usual pace, done or not.
    pub(super) fn usual(&self, wanted: &str) -> Option<u32> {
        let part = |batch: &OpenBatch| {
            let is_it = |part: &&PrepareWork| wanted == key(Some(&batch.work.code), part.work, None);
            batch.work.prepare.iter().find(is_it).map(|part| part.usual)
        };
        let said = || self.notes.iter().find(|note| note.block == wanted).map(|note| note.usual);
        self.batches.iter().find_map(part).or_else(said)
    }

    /// A moment so many minutes from now.
    pub(super) fn at(&self, offset: u32) -> Moment {
        self.now.plus_minutes(i64::from(offset))
    }

    /// What is said of juice that has waited overnight.
    pub(super) fn waiting_juice(&self) -> impl Iterator<Item = String> {
        self.batches.iter().filter_map(|batch| {
            let advice = advice(batch.waiting_since?, batch.is_cooked, self.now);
            let what = if batch.is_cooked { "food" } else { "juice" };
            Some(format!("The {what} of batch {} is in the refrigerator: {advice}", batch.work.code))
        })
    }
}
