//! What is read again and again, kept until something is written.

use std::sync::{Mutex, PoisonError};

use bodega_core::judge::records::BatchFacts;
use bodega_core::plan::yields::learn::Finished;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, CannerId, KettleId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Batch;
use bodega_model::records::cook::{Cook, Kettle};
use bodega_model::records::day::BlockNote;
use bodega_model::records::jar::Stocked;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::lot::Lot;
use bodega_model::records::shelf::{ShelfGroup, ShelfSearch};
use bodega_model::records::stock::Cupboard;
use bodega_model::records::towel::Towel;

use crate::StoreError;

/// Answers that are kept of one kind of question; whoever walks through a history begins anew then.
const MOST: usize = 64;

/// The answers since something was written last.
struct Answers<T, Q> {
    version: i64,
    all: Vec<(Q, T)>,
}

/// The last answers to one kind of question.
pub(crate) struct Cache<T, Q = ()>(Mutex<Answers<T, Q>>);

impl<T, Q> Default for Cache<T, Q> {
    fn default() -> Self {
        Self(Mutex::new(Answers { version: 0, all: Vec::new() }))
    }
}

impl<T: Clone, Q: PartialEq> Cache<T, Q> {
    /// The answer of before when the same is asked of the same version of the records, else a new one. Nobody waits for one who
    /// works it out: what is written meanwhile makes it old at once.
    pub(crate) fn ask(
        &self,
        version: i64,
        question: Q,
        work_out: impl FnOnce() -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if kept.version == version
            && let Some((_, answer)) = kept.all.iter().find(|(asked, _)| *asked == question)
        {
            return Ok(answer.clone());
        }
        drop(kept);
        let answer = work_out()?;
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if kept.version != version || kept.all.len() >= MOST {
            kept.all.clear();
        }
        kept.version = version;
        kept.all.push((question, answer.clone()));
        Ok(answer)
    }
}

/// What every screen asks for.
#[derive(Default)]
pub(crate) struct Caches {
    pub(crate) kitchen: Cache<Kitchen>,
    pub(crate) lots: Cache<Vec<Lot>>,
    pub(crate) open_batches: Cache<Vec<Batch>>,
    pub(crate) open_loads: Cache<Vec<CannerLoad>>,
    pub(crate) kettles: Cache<Vec<Kettle>>,
    pub(crate) last_cooks: Cache<Vec<Cook>, (KettleId, usize)>,
    pub(crate) filling_times: Cache<Vec<(u32, Moment, Moment)>>,
    pub(crate) block_notes: Cache<Vec<BlockNote>>,
    pub(crate) cooks: Cache<Vec<Cook>>,
    pub(crate) towel: Cache<Vec<Towel>, u64>,
    pub(crate) on_shelf: Cache<u32, u64>,
    pub(crate) shelf: Cache<Vec<ShelfGroup>, (ShelfSearch, u64)>,
    pub(crate) batch: Cache<Batch, BatchId>,
    pub(crate) batch_lots: Cache<Vec<(Lot, i64)>, BatchId>,
    pub(crate) batch_sizes: Cache<Vec<(JarSize, u32)>, BatchId>,
    pub(crate) facts: Cache<BatchFacts, BatchId>,
    pub(crate) load: Cache<CannerLoad, LoadId>,
    pub(crate) last_of_canner: Cache<Vec<CannerLoad>, (CannerId, u32)>,
    pub(crate) last_lifted: Cache<Vec<CannerLoad>, u32>,
    pub(crate) finished: Cache<Vec<Finished>>,
    pub(crate) cupboard: Cache<Cupboard>,
    pub(crate) stocked: Cache<Vec<Stocked>, (Moment, u64)>,
}
