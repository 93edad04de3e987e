//! The day's tasks out of the batches: prepare, cook, heat the canner, fill, boil, lift.
//!
//! Jars are filled at most ten minutes before their load goes in; a hot product waits at most an hour; a load is never
//! interrupted; water for topping up boils beside it; an empty canner heats beside the preparation, for the batch that can
//! use it soonest; the jars are lifted as soon as they have rested. Common practice, no source.

use bodega_model::measures::vocabulary::vocabulary;
use serde::Serialize;

use super::{After, Day, Needs, Task, near_minute};

/// Most minutes that filled jars wait for the canner.
const FILLED_WAITS: i64 = 10;
/// Most minutes that a hot product waits for its first jar.
const HOT_WAITS: i64 = 60;
/// Most minutes that a heated canner waits for its first load.
const HEATED_WAITS: i64 = 30;
/// Minutes to lift a load, until the household's own are learned.
pub const USUAL_LIFT: f64 = 5.0;

vocabulary! {
    /// What kind of work a block is.
    "work", Work {
        /// Washing in running water.
        Wash = "wash", "wash";
        /// Coring; a cross for what is peeled, pieces for what is milled.
        Core = "core", "core and cut";
        /// Blanching in rounds of eight or nine, into ice water.
        Blanch = "blanch", "blanch";
        /// Slipping the skins.
        Peel = "peel", "peel";
        /// Onions, peppers and whatever else a recipe asks for.
        Chop = "chop", "chop the rest";
        /// Simmering soft and running it through the mill.
        Mill = "mill", "simmer and mill";
        /// Juice that waits overnight goes into the refrigerator.
        Chill = "chill", "into the refrigerator";
        /// Heating through or boiling down.
        Cook = "cook", "cook";
        /// Heating the empty canner.
        Heat = "heat", "put the canner on";
        /// Acid, food, lids.
        Fill = "fill", "fill the jars";
        /// A load in the canner, from jars in to rested.
        Load = "load", "in the canner";
        /// Jars out.
        Lift = "lift", "lift the jars";
        /// Everybody sits down.
        Pause = "pause", "break";
    }
}

impl Work {
    /// Done by hand at the sink: nothing else tells when it begins and ends, so somebody says it.
    #[must_use]
    pub const fn is_said(self) -> bool {
        matches!(
            self,
            Self::Wash | Self::Core | Self::Blanch | Self::Peel | Self::Chop | Self::Mill | Self::Chill
        )
    }

    /// Whether it holds a burner beside the hands.
    const fn boils(self) -> bool {
        matches!(self, Self::Blanch | Self::Mill)
    }
}

/// A kettle of a batch.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CookWork {
    /// Minutes it takes, or still takes.
    pub minutes: u32,
    /// It is on the stove.
    pub begun: bool,
    /// Kettles that it takes at once.
    pub kettles: u32,
    /// Times that they are filled.
    pub rounds: u32,
}

/// A canner load of a batch.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LoadWork {
    /// What it is called.
    pub name: String,
    /// Minutes to fill its jars; none when they are ready.
    pub fill: Option<u32>,
    /// Minutes from the jars going in to the end of the rest, or those that are left of them.
    pub minutes: u32,
    /// It is in the canner.
    pub begun: bool,
    /// Water is kept boiling beside it, on a burner of its own.
    pub tops_up: bool,
    /// Codes of other batches whose jars are in it: their fruit has to be ready as well.
    pub shared_with: Vec<String>,
}

/// What the canners take between the loads.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Turnaround {
    /// Canners whose water is hot: they are in use, or were a short while ago.
    pub hot: u32,
    /// Minutes to heat a cold canner until the first jars may go in.
    pub heats: u32,
    /// Minutes to lift a load.
    pub lifts: u32,
}

/// A break for everybody, near an hour.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Pause {
    /// Earliest and latest start, in minutes from now.
    pub between: (u32, u32),
    /// How long it is.
    pub minutes: u32,
}

/// Hands at the fruit before it is cooked or packed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PrepareWork {
    /// Kind of work at the sink.
    pub work: Work,
    /// Minutes of one pair of hands at the usual pace.
    pub usual: u32,
    /// Minutes that it takes here, or those that are left of them.
    pub minutes: u32,
    /// Somebody is at it.
    pub begun: bool,
}

/// What is left to do of a batch.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BatchWork {
    /// Its code.
    pub code: String,
    /// What its fruit still needs, in order; nothing when that is done.
    pub prepare: Vec<PrepareWork>,
    /// Rounds that the fruit goes through the sink in; the next hands take over a round at a time.
    pub rounds: u32,
    /// Its kettle, when there is something to cook.
    pub cook: Option<CookWork>,
    /// Its loads that are not lifted yet, in order.
    pub loads: Vec<LoadWork>,
}

/// What a task is, for people.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Block {
    /// Lasting name, for saying that it takes longer.
    pub key: String,
    /// Kind of work.
    pub work: Work,
    /// The batch it is for; `null` for the canner.
    pub batch: Option<String>,
    /// What it is called beside its kind: `load 2`.
    pub name: Option<String>,
    /// Rounds: of eight or nine fruit when it is blanched, of kettles when they do not hold all of it at once.
    pub rounds: Option<u32>,
    /// Kettles at once, when it takes more than one.
    pub kettles: Option<u32>,
    /// It has begun.
    pub begun: bool,
    /// Its begin and its end are said here; the kettle, the jars and the canner tell theirs.
    pub is_said: bool,
}

/// The lasting name of a block.
#[must_use]
pub fn key(batch: Option<&str>, work: Work, name: Option<&str>) -> String {
    [batch, Some(work.word()), name].into_iter().flatten().collect::<Vec<_>>().join(" ")
}

/// The day's tasks, and what each is.
#[must_use]
pub fn tasks(
    batches: &[BatchWork],
    canners: Turnaround,
    pause: Option<Pause>,
    has: Needs,
    horizon: u32,
) -> (Day, Vec<Block>) {
    let mut list = List { lifts: canners.lifts, ..List::default() };
    // Loads that wait, batch by batch, the batch that can go in soonest first.
    let mut waiting: Vec<(u32, Vec<usize>)> = Vec::new();
    for batch in batches {
        let loads = list.batch(batch);
        if !loads.is_empty() {
            waiting.push((lead(batch), loads));
        }
    }
    waiting.sort_by_key(|(lead, _)| *lead);
    for (fill, other) in std::mem::take(&mut list.shared_fills) {
        let source = list.sources.iter().find(|(code, _)| *code == other).map(|(_, after)| *after);
        list.tasks[fill].after.extend(source);
    }
    list.heat(&waiting, canners, has);
    if let Some(pause) = pause.filter(|_| !list.tasks.is_empty()) {
        let everybody = needs(has.people, 0, 0, 0);
        let place = list.add(Work::Pause, None, None, pause.minutes, everybody, Vec::new(), false);
        list.tasks[place].between = Some(pause.between);
    }
    (Day { has, horizon, tasks: list.tasks }, list.blocks)
}

/// Minutes until the first load of a batch can go in, if nothing else were to do.
fn lead(batch: &BatchWork) -> u32 {
    let prepare: u32 = batch.prepare.iter().map(|part| part.minutes).sum();
    let fill = batch.loads.iter().find(|load| !load.begun).and_then(|load| load.fill);
    prepare + batch.cook.map_or(0, |cook| cook.minutes) + fill.unwrap_or(0)
}

const fn needs(people: u32, burners: u32, kettles: u32, canners: u32) -> Needs {
    Needs { people, burners, kettles, canners }
}

/// What is best done close together: the work of the hands, each batch from its fruit to its last jar, and the heating of
/// the canner with its first load.
#[must_use]
pub fn together(day: &Day, blocks: &[Block]) -> Vec<Vec<usize>> {
    let hands = |place: &usize| day.tasks[*place].uses.people > 0 && blocks[*place].work != Work::Pause;
    let mut sets: Vec<Vec<usize>> = vec![(0..blocks.len()).filter(hands).collect()];
    let mut batches: Vec<&str> = blocks.iter().filter_map(|block| block.batch.as_deref()).collect();
    batches.dedup();
    for batch in batches {
        sets.push((0..blocks.len()).filter(|place| blocks[*place].batch.as_deref() == Some(batch)).collect());
    }
    for heat in (0..blocks.len()).filter(|place| blocks[*place].work == Work::Heat) {
        let waited_for = |after: &After| after.task == heat && after.most.is_some();
        let first = (0..blocks.len()).find(|place| day.tasks[*place].after.iter().any(waited_for));
        sets.extend(first.map(|first| vec![heat, first]));
    }
    sets
}

/// Where the break lies near its hour, while everything else stays.
#[must_use]
pub fn break_near_its_hour(day: &Day, blocks: &[Block], starts: &[u32]) -> Vec<u32> {
    // Without a plan there is nothing to move.
    let pause = (0..starts.len()).find(|place| blocks[*place].work == Work::Pause);
    match pause.and_then(|pause| Some((pause, day.tasks[pause].between?))) {
        Some((pause, (from, to))) => near_minute(day, starts, pause, u32::midpoint(from, to)),
        None => starts.to_vec(),
    }
}

/// Minutes from the end of one work at the sink to the start of the next: other hands take over when the first round is
/// through, and end a round after it at the soonest.
fn taken_over(earlier: u32, later: u32, rounds: u32) -> i64 {
    let rounds = rounds.max(1);
    let all_but_one = |minutes: u32| i64::from(minutes - minutes.div_ceil(rounds));
    -all_but_one(earlier).min(all_but_one(later))
}

#[derive(Default)]
struct List {
    /// Minutes to lift a load.
    lifts: u32,
    /// What the first jars of each batch wait for, by its code.
    sources: Vec<(String, After)>,
    /// Fillings that hold jars of another batch, with its code.
    shared_fills: Vec<(usize, String)>,
    tasks: Vec<Task>,
    blocks: Vec<Block>,
}

impl List {
    #[allow(clippy::too_many_arguments)] // one row of a table
    fn add(
        &mut self,
        work: Work,
        batch: Option<&str>,
        name: Option<&str>,
        minutes: u32,
        uses: Needs,
        after: Vec<After>,
        begun: bool,
    ) -> usize {
        self.tasks.push(Task { minutes, uses, after, between: begun.then_some((0, 0)) });
        self.blocks.push(Block {
            key: key(batch, work, name),
            work,
            batch: batch.map(str::to_owned),
            name: name.map(str::to_owned),
            rounds: None,
            kettles: None,
            begun,
            is_said: work.is_said(),
        });
        self.tasks.len() - 1
    }

    /// Heats the canners that are cold, each for the first load of a batch: the batches that can go in soonest take the
    /// hot ones, the next a cold one each, as far as there are burners for so many at once. What waits besides goes in
    /// after the first is hot.
    fn heat(&mut self, waiting: &[(u32, Vec<usize>)], canners: Turnaround, has: Needs) {
        let burners = waiting.iter().flat_map(|(_, loads)| loads).map(|load| self.tasks[*load].uses.burners);
        let at_once = has.burners / burners.max().unwrap_or(1).max(1);
        let usable = has.canners.min(at_once.max(1));
        let cold = usable.saturating_sub(canners.hot) as usize;
        let mut heated = Vec::new();
        for ((_, loads), number) in waiting.iter().skip(canners.hot as usize).take(cold).zip(canners.hot..) {
            let name = (number > 0).then(|| format!("canner {}", number + 1));
            let uses = needs(0, 1, 0, 1);
            let heat = self.add(Work::Heat, None, name.as_deref(), canners.heats, uses, Vec::new(), false);
            self.tasks[loads[0]].after.push(After { task: heat, least: 0, most: Some(HEATED_WAITS) });
            heated.push(heat);
        }
        if let Some(first) = heated.first().filter(|_| canners.hot == 0) {
            for (_, loads) in waiting.iter().skip(heated.len()) {
                self.tasks[loads[0]].after.push(After { task: *first, least: 0, most: None });
            }
        }
    }

    /// Adds what is left of a batch; gives its loads that are still to go in.
    fn batch(&mut self, batch: &BatchWork) -> Vec<usize> {
        let code = Some(batch.code.as_str());
        let follows = |task: usize| After { task, least: 0, most: None };
        let mut prepared: Option<usize> = None;
        for part in &batch.prepare {
            let uses = needs(1, u32::from(part.work.boils()), 0, 0);
            let hands_over = |task: usize| {
                // Juice is chilled in one go, when all of it is there.
                let rounds = if part.work == Work::Chill { 1 } else { batch.rounds };
                let least = taken_over(self.tasks[task].minutes, part.minutes, rounds);
                After { task, least, most: None }
            };
            let after = prepared.filter(|_| !part.begun).map(hands_over).into_iter().collect();
            let place = self.add(part.work, code, None, part.minutes, uses, after, part.begun);
            self.blocks[place].rounds = (part.work == Work::Blanch).then_some(batch.rounds);
            prepared = Some(place);
        }
        let cooked = batch.cook.map(|cook| {
            let after = prepared.filter(|_| !cook.begun).map(follows).into_iter().collect();
            let uses = needs(0, cook.kettles, cook.kettles, 0);
            let place = self.add(Work::Cook, code, None, cook.minutes, uses, after, cook.begun);
            self.blocks[place].rounds = (cook.rounds > 1).then_some(cook.rounds);
            self.blocks[place].kettles = (cook.kettles > 1).then_some(cook.kettles);
            place
        });
        let hot = cooked.map(|task| After { task, least: 0, most: Some(HOT_WAITS) });
        let source = hot.or(prepared.map(follows));
        self.sources.extend(source.map(|after| (batch.code.clone(), after)));
        let mut before: Option<usize> = None;
        let mut waiting = Vec::new();
        for load in &batch.loads {
            let name = Some(load.name.as_str());
            let mut after = Vec::new();
            if let Some(minutes) = load.fill {
                // Only the first jars must come soon; the kettle keeps the rest hot.
                let first = before.is_none();
                let waits = source.map(|after| if first { after } else { After { most: None, ..after } });
                let waits = waits.into_iter().collect();
                let fill = self.add(Work::Fill, code, name, minutes, needs(1, 0, 0, 0), waits, false);
                self.shared_fills.extend(load.shared_with.iter().map(|other| (fill, other.clone())));
                after.push(After { task: fill, least: 0, most: Some(FILLED_WAITS) });
            }
            after.extend(before.map(follows));
            let after = if load.begun { Vec::new() } else { after };
            let boil = self.add(
                Work::Load,
                code,
                name,
                load.minutes,
                needs(0, 1 + u32::from(load.tops_up), 0, 1),
                after,
                load.begun,
            );
            if !load.begun {
                waiting.push(boil);
            }
            let lift = After { task: boil, least: 0, most: Some(0) };
            before = Some(self.add(Work::Lift, code, name, self.lifts, needs(1, 0, 0, 1), vec![lift], false));
        }
        waiting
    }
}

#[cfg(test)]
mod tests;
