//! The day on one strip: what is left of the batches, laid out from now on.

use bodega_core::day::lanes::{Lane, lanes};
use bodega_core::day::work::{Block, Work, break_near_its_hour, together};
use bodega_core::day::{
    Day, Layout, Limits, Status, Wish, earlier_starts, later_starts, lay_out, with_reserve,
};
use bodega_model::measures::moment::{Minutes, Moment};
use serde::Serialize;
use utoipa::ToSchema;

use crate::day::ground::Ground;
use crate::day::ways::{WayOut, ways_out};

/// A block of the strip.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlockView {
    /// What it is.
    #[serde(flatten)]
    pub block: Block,
    /// When it starts.
    pub starts: Moment,
    /// When it ends.
    pub ends: Moment,
    /// Minutes it may start sooner, for more waiting afterwards.
    pub sooner_minutes: u32,
    /// Minutes it may start later without a later end of the day.
    pub slack_minutes: u32,
    /// Minutes it was said to take longer than thought.
    pub slip_minutes: i64,
}

/// The day from now on.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DayView {
    /// How good the plan is.
    pub status: Status,
    /// Now.
    pub now: Moment,
    /// When the work is to be done.
    pub day_ends: Moment,
    /// When the last block ends.
    pub finish: Option<Moment>,
    /// When it would end if nobody had to be done, where it does not fit; the blocks are laid out for that.
    pub would_finish: Option<Moment>,
    /// Proven: it cannot end sooner.
    pub bound: Moment,
    /// The latest start that still ends in time, when nothing has begun.
    pub start_by: Option<Moment>,
    /// Why there is no plan, or how far it may be from the best.
    pub why: Option<String>,
    /// The blocks; without times when there is no plan.
    pub blocks: Vec<BlockView>,
    /// Which hands, burners, kettles and canners they take.
    pub lanes: Vec<Lane>,
    /// How many there are of each resource.
    pub has: [u32; 4],
    /// Ways to make it fit, the soonest end first.
    pub ways_out: Vec<WayOut>,
    /// What is to be started about now, in words.
    pub reminders: Vec<String>,
    /// What has waited overnight, and what is to be done with it.
    pub waiting: Vec<String>,
}

/// Minutes that what can begin sooner begins before it has to. Ours: a kitchen slips by a quarter of an hour.
pub(crate) const RESERVE: u32 = 15;

/// How far a day that does not fit is drawn beyond its end. Ours: nobody cans for longer.
const BEYOND: Minutes = Minutes(24 * 60);

/// How long before its start somebody is called.
pub(crate) const CALL_BEFORE: Minutes = Minutes(3);

/// What is to be started about now.
pub(crate) fn reminders(blocks: &[BlockView], now: Moment) -> Vec<String> {
    let soon = now.plus(CALL_BEFORE);
    let due = blocks.iter().filter(|view| !view.block.begun && view.starts <= soon);
    due.filter_map(|view| {
        let of = view.block.batch.as_deref().unwrap_or_default();
        let name = view.block.name.as_deref().unwrap_or_default();
        match view.block.work {
            Work::Heat if name.is_empty() => Some("Put the canner on now".to_owned()),
            Work::Heat => Some(format!("Put {name} on now")),
            Work::Cook => Some(format!("Put the kettle on for batch {of} now")),
            Work::Fill => Some(format!("Fill {name} of batch {of} now, and have its water hot")),
            Work::Pause => Some("Time for the break".to_owned()),
            Work::Chill => Some(format!("Put the juice of batch {of} into the refrigerator now")),
            // The rest of the sink follows under the same hands.
            Work::Wash => Some(format!("Wash the fruit of batch {of} now")),
            Work::Core | Work::Blanch | Work::Peel | Work::Chop | Work::Mill | Work::Load | Work::Lift => {
                None
            }
        }
    })
    .collect()
}

impl Ground {
    /// A day that does not fit, laid out as if it went on into the night and the next day: how long it would take, and its
    /// starts; none when even that is not enough.
    fn beyond(&self, day: Day, wish: &Wish) -> (Day, Option<u32>, Vec<u32>) {
        let longer = Day { horizon: self.horizon.saturating_add(BEYOND.0), ..day };
        let limits = Limits { length: self.search.way, waiting: self.search.way };
        let layout = lay_out(&longer, wish, limits);
        (longer, layout.makespan, layout.starts)
    }

    /// The day laid out, in the order of the last view when that is as good.
    pub(crate) fn view(&self, last: Option<&DayView>) -> DayView {
        let (day, blocks) = self.day(&self.works(), self.has, self.horizon);
        let in_last = |block: &Block| last?.blocks.iter().find(|view| view.block.key == block.key);
        let has_just_begun =
            |block: &&Block| block.begun && in_last(block).is_some_and(|view| !view.block.begun);
        // A batch that somebody has gone on with finds its place anew; the others keep theirs.
        let gone_on: Vec<&String> =
            blocks.iter().filter(has_just_begun).filter_map(|block| block.batch.as_ref()).collect();
        let was_to_start = |block: &Block| {
            let goes_on = block.batch.as_ref().is_some_and(|batch| gone_on.contains(&batch));
            let view = in_last(block).filter(|_| !goes_on)?;
            Some(view.starts.since_ms(self.now) / Minutes(1).ms())
        };
        let wish =
            Wish { together: together(&day, &blocks), before: blocks.iter().map(was_to_start).collect() };
        let Layout { status, makespan, bound, starts, why } = lay_out(&day, &wish, self.search.strip);
        // What does not fit is drawn all the same, with what falls off the end.
        let (day, would_take, starts) = match makespan {
            Some(_) => (day, None, starts),
            None => self.beyond(day, &wish),
        };
        let starts = break_near_its_hour(&day, &blocks, &with_reserve(&day, &starts, RESERVE));
        let (early, late) = (earlier_starts(&day, &starts), later_starts(&day, &starts));
        let places =
            blocks.into_iter().zip(&day.tasks).enumerate().filter(|(place, _)| *place < starts.len());
        let views: Vec<BlockView> = places
            .map(|(place, (block, task))| BlockView {
                starts: self.at(starts[place]),
                ends: self.at(starts[place] + task.minutes),
                sooner_minutes: starts[place] - early[place],
                slack_minutes: late[place] - starts[place],
                slip_minutes: self.slip(&block),
                block,
            })
            .collect();
        let reminders = reminders(&views, self.now);
        let begun = views.iter().any(|view| view.block.begun);
        // The whole plan may move by what is left of the day after it.
        let spare = makespan.map(|makespan| self.horizon.saturating_sub(makespan));
        let first = starts.iter().min().copied().unwrap_or(0);
        DayView {
            status,
            now: self.now,
            day_ends: self.day_ends,
            finish: makespan.map(|makespan| self.at(makespan)),
            would_finish: would_take.map(|minutes| self.at(minutes)),
            bound: self.at(bound),
            start_by: spare.filter(|_| !begun && !views.is_empty()).map(|spare| self.at(spare + first)),
            why,
            blocks: views,
            lanes: lanes(&day, &starts),
            has: self.has.each(),
            reminders,
            waiting: self.waiting_juice().collect(),
            ways_out: if makespan.is_none() { ways_out(self) } else { Vec::new() },
        }
    }
}
