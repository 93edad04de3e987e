//! What the day is laid out over: what is left to do of each batch, out of the records.

use std::collections::HashMap;
use std::collections::hash_map::Entry;

use bodega_core::canner::water::{come_up_of, warm_up_of};
use bodega_core::day::overnight::waits_as_juice;
use bodega_core::day::pace::own_pace;
use bodega_core::day::work::{
    BatchWork, CookWork, LoadWork, Pause, PrepareWork, Turnaround, USUAL_LIFT, Work, key,
};
use bodega_core::day::{Needs, sink};
use bodega_core::kettle::cooking::vessel;
use bodega_core::kettle::heat::usual_rate;
use bodega_core::kettle::vessels::{Usable, boiling_minutes, spread};
use bodega_core::plan::outlook::{HANDS_PER_JAR, stove_per_lb};
use bodega_core::plan::stuff::{boiled_away, in_kettle};
use bodega_core::recipe::bowls::planned;
use bodega_core::recipe::scale::chopped;
use bodega_model::canner::events::Phase;
use bodega_model::kettle::words::HeatSetting;
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::CannerId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::{Volume, grams, in_pounds, litres};
use bodega_model::records::batch::Batch;
use bodega_model::records::cook::Kettle;
use bodega_model::records::day::BlockNote;
use bodega_model::records::jar::Jar;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::{Method, Pack};
use bodega_store::{StoreError, if_readable};
use uom::si::time::minute;

use crate::canner::view::pace;
use crate::clock::{at_minute, day_of};
use crate::day::ground::{Ground, OpenBatch};
use crate::kettle::learned::learned;
use crate::kettle::view::{CookView, on_stove};
use crate::state::Shared;

/// Least minutes of an evening that is nearly over.
pub(crate) const LEAST_HORIZON: u32 = 15;

/// Come-up of a canner when it cannot be worked out; common practice, no source.
pub(crate) const USUAL_COME_UP: u32 = 25;

/// Minutes to heat a cold canner whose inside is not known; common practice, no source.
pub(crate) const USUAL_WARM_UP: u32 = 35;

/// How long a canner's water stays hot enough after its jars are out; common practice, no source.
pub(crate) const STAYS_HOT: Minutes = Minutes(30);

/// Loads, the newest first, that the pace of lifting is learned from.
pub(crate) const LIFTED_LOADS: u32 = 30;

/// How far the break may move to either side of its hour.
pub(crate) const PAUSE_MOVES: u32 = 45;

/// Whole minutes, rounded up but for a second: fruit is weighed in whole grams.
pub(crate) fn whole(minutes: f64) -> u32 {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // clamped to a week
    let whole = (minutes - 1.0 / 60.0).ceil().clamp(1.0, 10_080.0) as u32;
    whole
}

/// Minutes from one moment to another, at least one.
pub(crate) fn minutes_to(from: Moment, to: Moment) -> u32 {
    whole(to.since(from).get::<minute>())
}

/// `heats` is how much longer the load's canner takes to boil than its burner says.
pub(crate) fn load_work(
    load: &CannerLoad,
    kitchen: &Kitchen,
    now: Moment,
    pace: f64,
    heats: f64,
) -> LoadWork {
    let rest = load.clock.rest().0;
    let come_up = come_up_of(load, kitchen, heats).map_or(USUAL_COME_UP, |time| whole(time.get::<minute>()));
    let full = load.clock.required().0 + rest;
    let minutes = match load.clock.phase(now) {
        Phase::Waiting => come_up + full,
        Phase::Heating { since } => full + come_up.saturating_sub(minutes_to(since, now)).max(1),
        Phase::Venting { .. } | Phase::Vented { .. } | Phase::BoilLost { .. } | Phase::Unwatched { .. } => {
            full + 1
        }
        Phase::Counting { ends, .. } => minutes_to(now, ends) + rest,
        Phase::Resting { .. } | Phase::Rested { .. } | Phase::Dropping { .. }
            if load.clock.ended_short(now) =>
        {
            come_up + full
        }
        Phase::Resting { ends, .. } => minutes_to(now, ends),
        Phase::TimeUp { .. } | Phase::Dropping { .. } => rest,
        Phase::Rested { .. } | Phase::Lifted { .. } => 1,
    };
    let jars = load.jars.iter().filter(|jar| !jar.lid).count();
    #[allow(clippy::cast_precision_loss)] // a few dozen jars
    let fill = (jars > 0).then(|| whole(jars as f64 * HANDS_PER_JAR * pace));
    let mut shared_with: Vec<String> =
        load.jars.iter().filter(|jar| jar.batch != load.batch.id).map(|jar| jar.code.clone()).collect();
    shared_with.dedup();
    LoadWork {
        name: format!("load {}", load.position),
        fill,
        minutes,
        begun: load.clock.has_begun(),
        tops_up: load.batch.method == Method::BoilingWater,
        shared_with,
    }
}

/// Whole minutes until a moment, rounded up; `None` when it has passed.
fn minutes_until(now: Moment, then: Moment) -> Option<u32> {
    u32::try_from(then.since_ms(now)).ok().map(|ms| ms.div_ceil(60_000))
}

/// The break, when it is still to come.
pub(crate) fn pause(kitchen: &Kitchen, now: Moment) -> Option<Pause> {
    let at = minutes_until(now, at_minute(now, kitchen.break_at?))?;
    Some(Pause {
        between: (at.saturating_sub(PAUSE_MOVES), at + PAUSE_MOVES),
        minutes: kitchen.break_minutes,
    })
}

/// The records that every batch is looked at with.
pub(crate) struct Records<'a> {
    pub(crate) shared: &'a Shared,
    pub(crate) kitchen: Kitchen,
    pub(crate) loads: Vec<CannerLoad>,
    pub(crate) cooks: Vec<CookView>,
    pub(crate) notes: Vec<BlockNote>,
    /// How many times as long as usual filling takes here.
    pub(crate) filling_pace: f64,
    /// How much longer each canner takes to boil than its burner says.
    pub(crate) heats: HashMap<CannerId, f64>,
    /// The household's kettles, when a batch is to be cooked; one of a usual rate when none is measured.
    pub(crate) kettles: Vec<Usable>,
    /// Kettles and burners at once.
    pub(crate) at_once: u32,
}

impl Records<'_> {
    /// What was said of work of a batch at the sink.
    pub(crate) fn note(&self, batch: &Batch, work: Work) -> Option<&BlockNote> {
        let key = key(Some(&batch.code), work, None);
        self.notes.iter().find(|note| note.block == key)
    }

    /// How many times as long as usual a kind of work takes here, from every batch but this one.
    pub(crate) fn pace(&self, work: Work, but: &str) -> f64 {
        let took = |note: &BlockNote| {
            let mut words = note.block.split(' ');
            let other = words.next() != Some(but) && words.next() == Some(work.word());
            let took = note.ended_at?.since(note.began_at?).get::<minute>();
            other.then_some((f64::from(note.usual), took))
        };
        own_pace(&self.notes.iter().filter_map(took).collect::<Vec<_>>())
    }

    /// What the canners take between the loads: heating by the model of the first that waits, lifting as it went before.
    pub(crate) fn turnaround(&self) -> Result<Turnaround, StoreError> {
        let first = self.loads.iter().find(|load| !load.clock.has_begun());
        let heats = first.and_then(|load| warm_up_of(load, &self.kitchen));
        // Nobody asks when there is nothing to lift.
        let most = if self.loads.is_empty() { 0 } else { LIFTED_LOADS };
        let lifted = self.shared.store.last_lifted(most)?;
        let took = lifted.iter().filter_map(|load| load.clock.lifting());
        let shown: Vec<(f64, f64)> = took.map(|time| (USUAL_LIFT, time.get::<minute>())).collect();
        // A canner stays hot for a while after its jars are out.
        let now = self.shared.clock.now();
        let just_lifted = lifted.iter().filter(|load| match load.clock.phase(now) {
            Phase::Lifted { at } => now <= at.plus(STAYS_HOT),
            _ => false,
        });
        let in_use = self.loads.iter().filter(|load| load.clock.has_begun());
        let mut hot: Vec<CannerId> = in_use.chain(just_lifted).map(|load| load.canner.id).collect();
        hot.sort_unstable();
        hot.dedup();
        Ok(Turnaround {
            hot: u32::try_from(hot.len()).unwrap_or(u32::MAX),
            heats: heats.map_or(USUAL_WARM_UP, |time| whole(time.get::<minute>())),
            lifts: whole(USUAL_LIFT * own_pace(&shown)),
        })
    }

    /// What is left at the sink, at the household's own pace; what was said to be done, and all before it, is.
    pub(crate) fn prepare(
        &self,
        batch: &Batch,
        (fruit, chop): (&[(Lot, i64)], f64),
        chills: bool,
        now: Moment,
    ) -> Vec<PrepareWork> {
        let pounds = |frozen: bool| -> f64 {
            // Juice and cooked food are through the sink already.
            let of = fruit.iter().filter(|(lot, _)| lot.food == Food::Fruit && lot.frozen == frozen);
            of.map(|(_, drawn)| in_pounds(grams(*drawn))).sum()
        };
        let (fresh, frozen) = (pounds(false), pounds(true));
        let parts: Vec<Work> =
            sink::parts(batch.product).iter().copied().chain(chills.then_some(Work::Chill)).collect();
        let note = |work: Work| self.note(batch, work);
        let is_done = |work: &Work| note(*work).is_some_and(|note| note.ended_at.is_some());
        let done = parts.iter().rposition(is_done).map_or(0, |place| place + 1);
        let left = |work: Work| {
            let usual = match work {
                Work::Chop => chop,
                _ => sink::minutes(work, fresh, frozen),
            };
            (usual > 0.0).then(|| {
                let planned = whole(usual * self.pace(work, &batch.code));
                let begun = note(work).and_then(|note| Some((note.slip, note.began_at?)));
                let minutes = begun.map_or(planned, |(slip, since)| {
                    let left = i64::from(planned) + slip - i64::from(minutes_to(since, now));
                    u32::try_from(left.max(1)).unwrap_or(planned)
                });
                PrepareWork { work, usual: whole(usual), minutes, begun: begun.is_some() }
            })
        };
        parts.into_iter().skip(done).filter_map(left).collect()
    }

    /// Loads that hold jars of a batch, whichever batch they are counted with.
    pub(crate) fn loads_with<'b>(&'b self, batch: &'b Batch) -> impl Iterator<Item = &'b CannerLoad> {
        self.loads.iter().filter(|load| load.jars.iter().any(|jar| jar.batch == batch.id))
    }

    /// Whether some of a batch is in jars.
    fn in_jars(&self, batch: &Batch) -> bool {
        let is_filled = |jar: &Jar| jar.batch == batch.id && jar.filled;
        batch.jars_lifted > 0
            || self.loads_with(batch).any(|load| load.clock.has_begun() || load.jars.iter().any(is_filled))
    }

    /// How far a batch has come.
    pub(crate) fn stage(&self, batch: &Batch) -> Result<Stage<'_>, StoreError> {
        let is_its = |cook: &&CookView| cook.batch.as_ref().is_some_and(|other| other.id == batch.id);
        // Of several kettles the last is the one to wait for.
        if let Some(cook) = self.cooks.iter().filter(is_its).max_by_key(|cook| cook.finish) {
            return Ok(Stage::Stove(cook));
        }
        if self.in_jars(batch) || self.shared.store.has_cooked(batch.id)? {
            return Ok(Stage::Jars);
        }
        Ok(match batch.chilled_at {
            None => Stage::Sink,
            Some(at) if day_of(at) == day_of(self.shared.clock.now()) => Stage::Tonight,
            Some(at) => Stage::Waited(at),
        })
    }

    /// Kettles of a batch that are on the stove.
    fn kettles_of(&self, batch: &Batch) -> u32 {
        let its =
            self.cooks.iter().filter(|cook| cook.batch.as_ref().is_some_and(|other| other.id == batch.id));
        u32::try_from(its.count()).unwrap_or(u32::MAX).max(1)
    }

    /// How long a batch that is not on the stove will cook; nothing when it is packed raw.
    pub(crate) fn planned_cook(&self, batch: &Batch, fruit: &[(Lot, i64)]) -> Option<CookWork> {
        if batch.pack != Pack::Hot {
            return None;
        }
        let making = batch.making();
        let (mut volume, mut away, mut warm) = (Volume::default(), Volume::default(), 0.0);
        for (lot, drawn) in fruit {
            let stuff = lot.stuff(*drawn);
            volume += in_kettle(&stuff);
            away += boiled_away(&making, &stuff);
            warm += stove_per_lb(&making) * in_pounds(grams(*drawn));
        }
        let over = spread(volume, away, &self.kettles, self.at_once)?;
        // Several kettles warm up beside one another.
        let minutes = warm / f64::from(over.kettles) + boiling_minutes(&over);
        Some(CookWork { minutes: whole(minutes), begun: false, kettles: over.kettles, rounds: over.rounds })
    }

    /// Minutes of hands to chop what a batch's recipe asks for beside the tomatoes; none when it is mixed.
    fn chopping(&self, batch: &Batch) -> Result<f64, StoreError> {
        let Some(bowls) = batch.bowls else { return Ok(0.0) };
        let bowls = if_readable(self.shared.store.any_bowls(bowls))?;
        let open = bowls.filter(|bowls| bowls.mixed_at.is_none());
        Ok(open.map_or(0.0, |bowls| sink::chopping(in_pounds(chopped(&planned(&bowls))))))
    }

    /// What is left to do today of a batch at a stage; `chop` is how many minutes chopping takes.
    pub(crate) fn left(&self, batch: &Batch, stage: Stage<'_>, fruit: &[(Lot, i64)], chop: f64) -> BatchWork {
        let now = self.shared.clock.now();
        let pounds: f64 = fruit.iter().map(|(_, drawn)| in_pounds(grams(*drawn))).sum();
        let tonight = matches!(stage, Stage::Tonight);
        let own = self.loads.iter().filter(|load| load.batch.id == batch.id && !load.jars.is_empty());
        BatchWork {
            code: batch.code.clone(),
            prepare: match stage {
                Stage::Sink | Stage::Tonight => self.prepare(batch, (fruit, chop), tonight, now),
                Stage::Waited(_) | Stage::Stove(_) | Stage::Jars => Vec::new(),
            },
            rounds: sink::rounds(pounds),
            cook: match stage {
                Stage::Sink | Stage::Waited(_) => self.planned_cook(batch, fruit),
                Stage::Stove(cook) => Some(CookWork {
                    minutes: minutes_to(now, cook.finish),
                    begun: true,
                    kettles: self.kettles_of(batch),
                    rounds: 1,
                }),
                Stage::Tonight | Stage::Jars => None,
            },
            loads: own
                .filter(|_| !tonight)
                .map(|load| {
                    let heats = self.heats.get(&load.canner.id).copied().unwrap_or(1.0);
                    load_work(load, &self.kitchen, now, self.filling_pace, heats)
                })
                .collect(),
        }
    }

    /// One batch: what is left of it, and what of it may wait.
    pub(crate) fn batch(&self, batch: &Batch) -> Result<OpenBatch, StoreError> {
        let stage = self.stage(batch)?;
        let at_sink = matches!(stage, Stage::Sink);
        let fruit = self.shared.store.batch_lots(batch.id)?;
        let chop = self.chopping(batch)?;
        let is_alone = self.loads_with(batch).flat_map(|load| &load.jars).all(|jar| jar.batch == batch.id);
        let may_chill = at_sink && is_alone && waits_as_juice(batch.product, batch.pack);
        let is_said = |work: &Work| {
            self.note(batch, *work).is_some_and(|note| note.began_at.is_some() || note.ended_at.is_some())
        };
        Ok(OpenBatch {
            id: batch.id,
            work: self.left(batch, stage, &fruit, chop),
            untouched: at_sink && !sink::parts(batch.product).iter().any(is_said),
            chilled: may_chill.then(|| self.left(batch, Stage::Tonight, &fruit, chop)),
            is_cooked: matches!(stage, Stage::Jars),
            waiting_since: match stage {
                Stage::Waited(at) => Some(at),
                // Until the first jar is filled, what was cooked waits where it was put.
                Stage::Jars if !self.in_jars(batch) => batch.chilled_at,
                _ => None,
            },
            may_freeze: fruit.iter().all(|(lot, _)| !lot.frozen)
                && !self.shared.store.shares_fruit(batch.id)?,
        })
    }
}

/// How far a batch has come.
#[derive(Clone, Copy)]
pub(crate) enum Stage<'a> {
    /// Its fruit is in the crates or at the sink.
    Sink,
    /// The same, and its juice is to wait overnight.
    Tonight,
    /// Its juice has waited overnight, since then.
    Waited(Moment),
    /// It cooks.
    Stove(&'a CookView),
    /// It is cooked, or its jars are being filled.
    Jars,
}

/// The day's ground as the records have it now.
pub(super) fn ground(shared: &Shared) -> Result<Ground, StoreError> {
    let now = shared.clock.now();
    let kitchen = shared.store.kitchen()?;
    let left = minutes_until(now, at_minute(now, kitchen.day_ends)).unwrap_or(0);
    let count = |count: usize| u32::try_from(count).unwrap_or(u32::MAX);
    let has = Needs {
        people: kitchen.people,
        burners: kitchen.burners,
        kettles: count(shared.store.kettles()?.len()).max(1),
        canners: count(kitchen.canners.len()),
    };
    let filling = |(jars, from, to): (u32, Moment, Moment)| {
        (f64::from(jars) * HANDS_PER_JAR, to.since(from).get::<minute>())
    };
    let open = shared.store.open_batches()?;
    let fillings: Vec<(f64, f64)> = shared.store.filling_times()?.into_iter().map(filling).collect();
    let is_cooked = open.iter().any(|batch| batch.pack == Pack::Hot);
    let loads = shared.store.open_loads()?;
    let mut heats = HashMap::new();
    for load in &loads {
        if let Entry::Vacant(free) = heats.entry(load.canner.id) {
            free.insert(pace(shared, load.canner.id, &kitchen)?);
        }
    }
    let records = Records {
        loads,
        heats,
        cooks: on_stove(shared)?,
        notes: shared.store.block_notes()?,
        filling_pace: own_pace(&fillings),
        kettles: if is_cooked { usable_kettles(shared)? } else { Vec::new() },
        at_once: has.kettles.min(has.burners),
        shared,
        kitchen,
    };
    Ok(Ground {
        now,
        day_ends: now.plus_minutes(i64::from(left)),
        horizon: left.max(LEAST_HORIZON),
        has,
        batches: open.iter().map(|batch| records.batch(batch)).collect::<Result<_, _>>()?,
        day_ends_at: records.kitchen.day_ends,
        canners: records.turnaround()?,
        pause: pause(&records.kitchen, now),
        notes: records.notes,
        search: shared.search,
    })
}

/// The household's kettles at full heat; while none is measured, one that holds whatever comes at the usual rate.
fn usable_kettles(shared: &Shared) -> Result<Vec<Usable>, StoreError> {
    let kettles = shared.store.kettles()?;
    if kettles.is_empty() {
        return Ok(vec![Usable { brim: litres(f64::from(u32::MAX)), rate: usual_rate() }]);
    }
    let usable = |kettle: &Kettle| {
        let rate = learned(shared, kettle)?.at(HeatSetting::High).rate;
        Ok(Usable { brim: vessel(kettle).brim(), rate })
    };
    kettles.iter().map(usable).collect()
}
