//! Random walks through the kitchen: whatever is said in whatever order, a jar that reaches the shelf had its full boil, its
//! acid and its look at the lid. The check keeps its own books and knows nothing of the rules it checks.

use std::collections::BTreeMap;
use std::panic::resume_unwind;

use bodega_core::jars::bench::JarStep;
use bodega_core::judge::standing::standings;
use bodega_model::canner::cover::WaterOver;
use bodega_model::canner::events::BoilEvent;
use bodega_model::contents::{Added, Ingredient};
use bodega_model::crates::fruit::Condition;
use bodega_model::jars::kinds::JarKind;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitudes::AltitudeReason;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::{Moment, Touched};
use bodega_model::records::batch::Draw;
use bodega_model::records::claims::Claims;
use bodega_model::records::jar::JarRecord;
use bodega_model::records::kitchen::KitchenChange;
use bodega_model::records::load::JarMoment;
use bodega_model::records::shelf::ShelfSearch;
use bodega_model::towel::liquid::LiquidLost;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError, ToldBy};

use crate::acid::tsp;
use crate::common::{Chance, NOW, batch, lot};

const MINUTE: i64 = 60_000;
/// Whole tomatoes raw in water, quarts, at 2,640 ft.
const NEEDED_MS: i64 = 50 * MINUTE;
/// A teaspoon of citric acid is for two quarts.
const TSP_A_QUART: f64 = 0.5;

impl Chance {
    fn of<T: Copy>(&mut self, all: &[T]) -> Option<T> {
        let place = usize::try_from(self.below(all.len().max(1) as u64)).unwrap();
        all.get(place).copied()
    }

    fn once_in(&mut self, times: u64) -> bool {
        self.below(times) == 0
    }
}

/// What the check knows of one jar.
#[derive(Debug, Clone, Default)]
struct Known {
    acid_at: Option<i64>,
    undosed: bool,
    holds_at: Option<i64>,
    before: Vec<(Option<i64>, bool)>,
}

/// The check's own books.
#[derive(Debug, Default)]
struct Books {
    loads: BTreeMap<LoadId, Vec<(BoilEvent, i64, Option<JarId>)>>,
    jars: BTreeMap<JarId, Known>,
    pot_tsp: f64,
    /// Loads whose card says that the jars are food jars.
    food_jars: BTreeMap<LoadId, bool>,
    /// Loads whose lids stood out of the water.
    low: BTreeMap<LoadId, bool>,
    /// Jars that lost half of their liquid.
    dry: BTreeMap<JarId, bool>,
    /// Garlic was said to be in it.
    garlic: bool,
    /// What the altitude was corrected to, where fifty minutes are too short.
    too_high: bool,
}

impl Books {
    fn jar(&mut self, id: JarId) -> &mut Known {
        self.jars.entry(id).or_default()
    }

    /// Whether a jar stood in an unbroken boil for its full time, by the events of its load alone.
    fn boiled(&self, jar: &JarRecord) -> bool {
        let none = Vec::new();
        let mut since: Option<i64> = None;
        let mut unknown: Option<i64> = None;
        let mut full = false;
        let mut inside = !self
            .loads
            .get(&jar.load)
            .unwrap_or(&none)
            .iter()
            .any(|(event, _, which)| *event == BoilEvent::JarAdded && *which == Some(jar.id));
        for (event, at, which) in self.loads.get(&jar.load).unwrap_or(&none) {
            let breaks = matches!(
                event,
                BoilEvent::BoilLost
                    | BoilEvent::ToppedUpCold
                    | BoilEvent::JarOut
                    | BoilEvent::JarAdded
                    | BoilEvent::HeatOff
                    | BoilEvent::Lifted
            );
            if breaks {
                unknown = None;
            }
            if breaks && let Some(from) = since.take() {
                full |= inside && at - from >= NEEDED_MS;
            }
            match event {
                BoilEvent::Boils => (since, unknown) = (Some(*at), None),
                BoilEvent::Unwatched => unknown = since.take().or(unknown),
                BoilEvent::HeldOn => since = unknown.take().or(since),
                BoilEvent::JarBroken if *which == Some(jar.id) => return false,
                BoilEvent::JarOut if *which == Some(jar.id) => inside = false,
                BoilEvent::JarAdded if *which == Some(jar.id) => inside = true,
                _ => {}
            }
        }
        full
    }

    fn lifted_at(&self, jar: &JarRecord) -> Option<i64> {
        let events = self.loads.get(&jar.load)?;
        events.iter().find(|(event, ..)| *event == BoilEvent::Lifted).map(|(_, at, _)| *at)
    }

    /// What is wrong with a jar on the shelf.
    fn faults(&self, jar: &JarRecord, all: usize) -> Vec<&'static str> {
        let known = self.jars.get(&jar.id).cloned().unwrap_or_default();
        #[expect(clippy::cast_precision_loss, reason = "a handful of jars")]
        let pot_is_enough = self.pot_tsp + 1e-9 >= TSP_A_QUART * all as f64;
        let settled = self.lifted_at(jar).zip(known.holds_at);
        let mut faults = Vec::new();
        if !self.boiled(jar) {
            faults.push("not processed in full");
        }
        if !(known.acid_at.is_some() && !known.undosed || pot_is_enough) {
            faults.push("without its acid");
        }
        if self.food_jars.get(&jar.load).copied().unwrap_or(false) {
            faults.push("in a food jar");
        }
        if self.low.get(&jar.load).copied().unwrap_or(false) {
            faults.push("out of the water");
        }
        if self.dry.get(&jar.id).copied().unwrap_or(false) {
            faults.push("half of its liquid gone");
        }
        if self.garlic {
            faults.push("with garlic in it");
        }
        if self.too_high {
            faults.push("timed for a lower kitchen");
        }
        if settled.is_none_or(|(lifted, seen)| seen - lifted < 12 * 60 * MINUTE) {
            faults.push("its lid was not looked at after twelve hours");
        }
        faults
    }
}

/// One walk through a kitchen with three quarts.
struct Walk {
    store: Store,
    batch: BatchId,
    books: Books,
    chance: Chance,
    now: i64,
}

impl Walk {
    fn new(seed: u64) -> Self {
        let store = Store::in_memory().unwrap();
        let id = lot(&store, 10_000, Condition::FirmRipe);
        let batch = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 4_000 }]), NOW).unwrap().id;
        let kitchen = KitchenChange { altitude_ft: Some(2640.0), ..KitchenChange::default() };
        store.change_kitchen(&kitchen, &ToldBy::here(NOW)).unwrap();
        let chance = Chance(seed.wrapping_mul(0x9E37_79B9_7F4A_7C15) | 1);
        Self { store, batch, books: Books::default(), chance, now: NOW.0 }
    }

    fn moment(&self) -> Moment {
        Moment(self.now)
    }

    fn jars(&self) -> Vec<JarRecord> {
        self.store.batch_jars(self.batch).unwrap()
    }

    fn loads(&self) -> Vec<LoadId> {
        self.store.batch_loads(self.batch).unwrap().iter().map(|load| load.id).collect()
    }

    fn bench(&mut self) {
        let now = self.moment();
        let loads = self.loads();
        let Some(load) = self.chance.of(&loads) else { return };
        match self.chance.below(7) {
            0 | 1 => {
                let without: Vec<JarId> = self.without_acid(load);
                if self.store.tick_load(load, JarStep::Acid, now).is_ok() {
                    self.ticked(&without);
                }
            }
            2 | 3 => drop(self.store.tick_load(load, JarStep::Lid, now)),
            4 => {
                let at = self.now - i64::try_from(self.chance.below(3)).unwrap() * MINUTE;
                if self.store.untick_load(load, Moment(at)).is_ok() {
                    for jar in self.in_load(load) {
                        let known = self.books.jar(jar);
                        known.acid_at = known.acid_at.filter(|ticked| *ticked != at);
                    }
                }
            }
            5 => {
                let ids: Vec<JarId> = self.jars().iter().map(|jar| jar.id).collect();
                let Some(jar) = self.chance.of(&ids) else { return };
                let done = !self.chance.once_in(3);
                let had = self.has_own_acid(jar);
                if self.store.tick_jar(jar, JarStep::Acid, done, now).is_ok() {
                    if done && !had {
                        self.ticked(&[jar]);
                    } else if !done {
                        self.books.jar(jar).acid_at = None;
                    }
                }
                drop(self.store.fill_before_acid(jar, now));
            }
            _ => {
                let stirred = self.chance.of(&[None, Some(1.0), Some(1.5), Some(2.0)]).unwrap();
                self.store.set_pot_dose(self.batch, &stirred.map(tsp).unwrap_or_default(), now).unwrap();
                self.books.pot_tsp = stirred.unwrap_or(0.0);
            }
        }
    }

    fn in_load(&self, load: LoadId) -> Vec<JarId> {
        self.jars().iter().filter(|jar| jar.load == load).map(|jar| jar.id).collect()
    }

    fn has_own_acid(&mut self, jar: JarId) -> bool {
        let known = self.books.jar(jar);
        known.acid_at.is_some() && !known.undosed
    }

    fn without_acid(&mut self, load: LoadId) -> Vec<JarId> {
        let jars = self.in_load(load);
        jars.into_iter().filter(|jar| !self.has_own_acid(*jar)).collect()
    }

    fn ticked(&mut self, jars: &[JarId]) {
        let now = self.now;
        for jar in jars {
            let known = self.books.jar(*jar);
            (known.acid_at, known.undosed) = (Some(now), false);
        }
    }

    fn canner(&mut self) {
        use BoilEvent::{
            BoilLost, Boils, HeatAgain, HeatOff, HeldOn, JarsIn, Lifted, ToppedUpBoiling, ToppedUpCold,
        };
        const LIKELY: [BoilEvent; 13] = [
            HeldOn,
            JarsIn,
            JarsIn,
            Boils,
            Boils,
            Boils,
            HeatOff,
            HeatOff,
            Lifted,
            BoilLost,
            ToppedUpCold,
            ToppedUpBoiling,
            HeatAgain,
        ];
        let loads = self.loads();
        if self.chance.once_in(60) {
            // The machine was off for a while.
            for load in self.store.mark_unwatched(None, self.moment()).unwrap() {
                self.books.loads.entry(load).or_default().push((BoilEvent::Unwatched, self.now, None));
            }
            return;
        }
        let Some(load) = self.chance.of(&loads) else { return };
        if self.chance.once_in(12) {
            self.jar_event(load);
            return;
        }
        if self.chance.once_in(15) {
            let last = self.books.loads.get(&load).and_then(|events| events.last().copied());
            if let Some((_, at, _)) = last
                && self.store.undo_event(load, Moment(at), self.moment()).is_ok()
            {
                self.books.loads.get_mut(&load).unwrap().pop();
            }
            return;
        }
        let event = self.chance.of(&LIKELY).unwrap();
        // Some come late, from a page that had no connection.
        let late = self.chance.once_in(6);
        let age = if late { i64::try_from(self.chance.below(40)).unwrap() * MINUTE } else { 0 };
        let touched = Touched { at: Moment(self.now - age), late };
        let before = self.store.load(load).unwrap().clock.happened().len();
        if let Ok(after) = self.store.add_event(load, event, touched)
            && after.clock.happened().len() > before
        {
            let at = after.clock.happened().last().unwrap().at.0;
            self.books.loads.entry(load).or_default().push((event, at, None));
        }
    }

    fn jar_event(&mut self, load: LoadId) {
        let jars = self.in_load(load);
        let Some(jar) = self.chance.of(&jars) else { return };
        let moment = match self.chance.below(3) {
            0 => JarMoment::Broken(jar),
            1 => JarMoment::Out(jar),
            _ => JarMoment::Added(JarSize::Quart),
        };
        let now = self.moment();
        if let Ok(after) = self.store.add_jar_event(load, moment, now) {
            let happened = *after.clock.happened().last().unwrap();
            if happened.event == BoilEvent::JarAdded {
                // It is put in with its acid and its lid.
                self.ticked(&[happened.jar.unwrap()]);
            }
            self.books.loads.entry(load).or_default().push((happened.event, happened.at.0, happened.jar));
        }
    }

    fn towel(&mut self) {
        let ids: Vec<JarId> = self.jars().iter().map(|jar| jar.id).collect();
        let some: Vec<JarId> = ids.iter().copied().filter(|_| !self.chance.once_in(3)).collect();
        let now = self.moment();
        match self.chance.below(9) {
            0..=2 => {
                let verdict = self.chance.of(&[
                    Some(LidVerdict::Holds),
                    Some(LidVerdict::Holds),
                    Some(LidVerdict::Holds),
                    Some(LidVerdict::Failed),
                    Some(LidVerdict::Doubtful),
                    None,
                ]);
                for jar in some {
                    if self.store.judge_seals(&[jar], verdict.unwrap(), now).is_ok() {
                        let holds = verdict.unwrap() == Some(LidVerdict::Holds);
                        self.books.jar(jar).holds_at = holds.then_some(now.0);
                    }
                }
            }
            3 | 4 => {
                for jar in some {
                    drop(self.store.tidy(&[jar], true, now));
                }
            }
            5 => {
                let undosed = !self.chance.once_in(3);
                for jar in some.into_iter().take(1) {
                    if self.store.set_undosed(&[jar], undosed, &ToldBy::here(now)).is_ok() {
                        self.books.jar(jar).undosed = undosed;
                    }
                }
            }
            6 | 7 => {
                let rescue = self.chance.of(&[
                    Some(Rescue::Reprocess),
                    Some(Rescue::Reprocess),
                    Some(Rescue::Refrigerator),
                    None,
                ]);
                for jar in some {
                    self.rescued(jar, rescue.unwrap());
                }
            }
            _ => {
                let loads = self.loads();
                let Some(load) = self.chance.of(&loads) else { return };
                let count = u32::try_from(self.chance.below(4)).unwrap();
                drop(self.store.recount(load, self.batch, JarSize::Quart, count, now));
            }
        }
    }

    fn rescued(&mut self, jar: JarId, rescue: Option<Rescue>) {
        let Ok(was) = self.store.jar(jar) else { return };
        if self.store.rescue(&[jar], rescue, None, self.moment()).is_err() {
            return;
        }
        let is = self.store.jar(jar).unwrap();
        let known = self.books.jar(jar);
        if is.earlier_loads.len() < was.earlier_loads.len()
            && let Some((acid_at, undosed)) = known.before.pop()
        {
            (known.acid_at, known.undosed) = (acid_at.or(known.acid_at), undosed);
        }
        // Said twice it is one way back.
        if rescue == Some(Rescue::Reprocess) && is.earlier_loads.len() > was.earlier_loads.len() {
            known.before.push((known.acid_at, known.undosed));
            known.holds_at = None;
            if known.undosed {
                (known.acid_at, known.undosed) = (None, false);
            }
        }
    }

    /// Says something of the jars that may be wrong, and corrects it later: what they are in, what is in them, how high it was.
    fn told(&mut self) {
        let told = ToldBy::here(self.moment());
        match self.chance.below(7) {
            4 => {
                let loads = self.loads();
                let Some(load) = self.chance.of(&loads) else { return };
                let low = self.chance.once_in(4);
                let water = if low { WaterOver::Low } else { WaterOver::Well };
                self.store.set_water(load, water, &told).unwrap();
                self.books.low.insert(load, low);
            }
            5 | 6 => {
                let ids: Vec<JarId> = self.jars().iter().map(|jar| jar.id).collect();
                let Some(jar) = self.chance.of(&ids) else { return };
                let lost = self.chance.of(&[None, Some(LiquidLost::Some), Some(LiquidLost::Half)]).unwrap();
                if self.store.set_liquid_lost(&[jar], lost, &told).is_ok() {
                    self.books.dry.insert(jar, lost == Some(LiquidLost::Half));
                }
            }
            0 | 1 => {
                let loads = self.loads();
                let Some(load) = self.chance.of(&loads) else { return };
                let is_food_jar = self.chance.once_in(8);
                let kind = if is_food_jar { JarKind::Other } else { JarKind::Mason };
                let claims = Claims { kind, ..Claims::USUAL };
                self.store.set_claims(load, &claims, &told).unwrap();
                self.books.food_jars.insert(load, is_food_jar);
            }
            2 => {
                let garlic = self.chance.once_in(8);
                let said = if garlic { vec![Added::in_cups(Ingredient::Garlic, 1.0)] } else { Vec::new() };
                self.store.set_additions(self.batch, &said, &told).unwrap();
                self.books.garlic = garlic;
            }
            _ => {
                // Fifty minutes are for 1,001 to 3,000 ft.
                let too_high = self.chance.once_in(8);
                let change = KitchenChange {
                    altitude_ft: Some(if too_high { 4000.0 } else { 2640.0 }),
                    altitude_reason: Some(AltitudeReason::Corrected),
                    ..KitchenChange::default()
                };
                self.store.change_kitchen(&change, &told).unwrap();
                self.books.too_high = too_high;
            }
        }
    }

    /// What is kept about the jars at home is what the rule says of their records now.
    fn check_kept(&self, seed: u64, step: u32) {
        let kept = self.store.standings().unwrap();
        let altitudes = self.store.altitudes().unwrap();
        for jar in self.jars().iter().filter(|jar| jar.lifted_at.is_some() && !jar.broke) {
            let load = self.store.load(jar.load).unwrap();
            let facts = [self.store.facts(self.batch).unwrap()];
            let found = standings(&load, &facts, &altitudes).into_iter().find(|(id, _)| *id == jar.id);
            if let Some(was) = kept.at_home(jar.id) {
                assert_eq!(
                    Some(was),
                    found.as_ref().map(|(_, standing)| standing),
                    "walk {seed}, step {step}"
                );
            }
        }
    }

    fn step(&mut self) {
        let minutes = match self.chance.below(10) {
            0..=4 => self.chance.below(4),
            5..=7 => self.chance.below(60),
            8 => 50,
            _ => self.chance.below(14 * 60),
        };
        self.now += i64::try_from(minutes).unwrap() * MINUTE + 1;
        match self.chance.below(10) {
            0..=2 => self.bench(),
            3..=5 => self.canner(),
            6 if self.chance.once_in(9) => self.told(),
            6 => self.canner(),
            _ => self.towel(),
        }
    }

    /// Jars that the store counts on the shelf, every one of which the books must agree to.
    fn check(&self, seed: u64, step: u32) -> u32 {
        let jars = self.jars();
        let at_home = self.store.standings().unwrap();
        let shelved = |jar: &&JarRecord| {
            jar.verdict == Some(LidVerdict::Holds)
                && ["on the shelf", "sealed, to be washed"]
                    .contains(&jar.whereabouts(Some(&at_home.of(jar.id))).as_str())
        };
        let count: u32 =
            self.store.shelf(&ShelfSearch::default()).unwrap().iter().map(|group| group.count).sum();
        assert_eq!(
            self.store.on_shelf().unwrap(),
            count,
            "walk {seed}, step {step}: two counts of one shelf"
        );
        if count == 0 {
            return 0;
        }
        let fit = jars.iter().filter(shelved).filter(|jar| self.books.faults(jar, jars.len()).is_empty());
        let fit = u32::try_from(fit.count()).unwrap();
        let faults: Vec<_> =
            jars.iter().filter(shelved).map(|jar| (jar.number, self.books.faults(jar, jars.len()))).collect();
        assert!(
            count <= fit,
            "walk {seed}, step {step}: {count} on the shelf, {fit} of them fit: {faults:?}\n{:#?}",
            self.books
        );
        count
    }
}

/// How many walks; more are taken by hand with `BODEGA_WALKS=10000`.
fn walks() -> u64 {
    std::env::var("BODEGA_WALKS").ok().and_then(|text| text.parse().ok()).unwrap_or(100)
}

#[test]
fn whatever_is_said_only_what_was_done_right_reaches_the_shelf() {
    const STEPS: u32 = 120;
    let every_second = |first: u64| {
        let mut reached: u64 = 0;
        for seed in (first..=walks()).step_by(2) {
            let mut walk = Walk::new(seed);
            let mut most = 0;
            for step in 0..STEPS {
                walk.step();
                most = most.max(walk.check(seed, step));
                walk.check_kept(seed, step);
            }
            reached += u64::from(most > 0);
        }
        reached
    };
    // No other test takes as long, and it is the last: both processors walk.
    let reached: u64 = std::thread::scope(|scope| {
        let even = scope.spawn(|| every_second(2));
        every_second(1) + even.join().unwrap_or_else(|fault| resume_unwind(fault))
    });
    assert!(
        reached * 20 > walks(),
        "only {reached} of {} walks reach the shelf, which checks nothing",
        walks()
    );
}

#[test]
fn the_walks_have_eyes() {
    // A jar that was never boiled, and one whose lid was never looked at, are no jars for the shelf.
    let mut walk = Walk::new(1);
    let jar = walk.jars()[0].clone();
    walk.ticked(&[jar.id]);
    assert_eq!(walk.books.faults(&jar, 3).len(), 2);
    let refused = walk.store.tidy(&[jar.id], true, NOW);
    assert!(matches!(refused, Err(StoreError::NotOnTowel { .. })));
    let at = |minute: i64| NOW.0 + minute * MINUTE;
    let mut boil = |events: &[(BoilEvent, i64)]| {
        let events = events.iter().map(|(event, minute)| (*event, at(*minute), None)).collect();
        walk.books.loads.insert(jar.load, events);
        walk.books.boiled(&jar)
    };
    use BoilEvent::{BoilLost, Boils, HeatOff, JarsIn, ToppedUpCold};
    assert!(boil(&[(JarsIn, 0), (Boils, 20), (HeatOff, 70)]));
    assert!(!boil(&[(JarsIn, 0), (Boils, 20), (HeatOff, 69)]));
    assert!(!boil(&[(JarsIn, 0), (Boils, 20), (BoilLost, 45), (Boils, 50), (HeatOff, 95)]));
    assert!(boil(&[(JarsIn, 0), (Boils, 20), (ToppedUpCold, 45), (Boils, 50), (HeatOff, 100)]));
}
