//! The demo kitchen: Saltbrook Terrace, a shared allotment kitchen, in the middle of a September day. All made up.

use std::path::Path;

use anyhow::{Context, ensure};
use bodega_core::jars::bench::JarStep;
use bodega_model::canner::cover::WaterOver;
use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::{Condition, Kind, SILL_DAYS};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::kettle::contents::Shown;
use bodega_model::kettle::words::{CookWhat, HeatSetting, KettleHeat, TargetKind};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace, Told};
use bodega_model::measures::ids::{BatchId, CookId, JarId, LoadId, LotId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::plan::making::Thickness;
use bodega_model::records::batch::{Draw, NewBatch, NewLoad};
use bodega_model::records::canner::{CannerChange, PotSize};
use bodega_model::records::claims::Claims;
use bodega_model::records::cook::{CookEvent, NewCook, NewKettle};
use bodega_model::records::kitchen::KitchenChange;
use bodega_model::records::lot::{LotChange, NewLot};
use bodega_model::records::moved::{NewMove, Source};
use bodega_model::records::shelf::{Goal, Gone, ShelfSearch};
use bodega_model::records::stock::Item;
use bodega_model::shelf::leaving::Leaving;
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_model::towel::seal::LidVerdict;
use bodega_store::{Store, StoreError, ToldBy};
use jiff::civil::date;
use jiff::tz::TimeZone;
use uom::si::mass::gram;

use crate::clock::day_of;

mod recipes;

/// Height of Saltbrook Terrace in feet.
const ALTITUDE_FT: f64 = 2640.0;
/// Solids of finished food that somebody measures in, in °Brix: thick sauce. Common practice, no source.
const PRODUCT_BRIX: f64 = 10.0;
/// The second pan.
const PAN: &str = "copper pan";
/// Minutes in a day.
const DAY: i64 = 24 * 60;

/// The moment the demo opens at: 12 September 2026, 14:33 local time.
///
/// # Errors
/// When the machine's time zone has no such moment.
pub fn opening_moment() -> anyhow::Result<Moment> {
    let zoned = date(2026, 9, 12).at(14, 33, 0, 0).to_zoned_datetime(TimeZone::system())?;
    Ok(Moment(zoned.timestamp().as_millisecond()))
}

/// Refuses a directory that holds anything: the demo never writes over existing data.
///
/// # Errors
/// Says so in words.
pub fn check_empty(directory: &Path) -> anyhow::Result<()> {
    if !directory.exists() {
        return Ok(());
    }
    let mut entries = std::fs::read_dir(directory).context("the demo directory cannot be read")?;
    // A passcode may have been set for it.
    let is_other = |name: &std::ffi::OsStr| name != "network" && name != "bodega.lock";
    ensure!(
        !entries.any(|entry| entry.map_or(true, |entry| is_other(&entry.file_name()))),
        "{} is not empty; the demo never writes over existing data, give an empty directory",
        directory.display()
    );
    Ok(())
}

struct Season<'a> {
    store: &'a Store,
    now: Moment,
}

/// What a batch of the demo is.
struct Recipe {
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    thickness: Option<Thickness>,
    agent: Agent,
    salt: bool,
    minutes: u32,
    loads: Vec<(JarSize, u32)>,
}

impl Season<'_> {
    fn lot(
        &self,
        days_ago: i64,
        kind: Kind,
        condition: Condition,
        weight_g: i64,
    ) -> Result<LotId, StoreError> {
        let at = self.now.plus_minutes(-days_ago * DAY);
        let back_on = (condition == Condition::Unripe).then(|| day_of(at.plus_minutes(SILL_DAYS * DAY)));
        let lot = NewLot {
            food: Food::Fruit,
            told: None,
            picked_on: day_of(at),
            kind,
            condition,
            fault: None,
            back_on,
            frozen: false,
            weight_g,
        };
        Ok(self.store.add_lot(&lot, at)?.id)
    }

    /// Draws a lot of its own for the batch and sets it out; returns its load ids.
    fn batch(
        &self,
        at: Moment,
        kind: Kind,
        weight_g: i64,
        recipe: Recipe,
    ) -> Result<Vec<LoadId>, StoreError> {
        let lot = NewLot {
            food: Food::Fruit,
            told: None,
            picked_on: day_of(at.plus_minutes(-DAY)),
            kind,
            condition: Condition::FirmRipe,
            fault: None,
            back_on: None,
            frozen: false,
            weight_g,
        };
        let lot = self.store.add_lot(&lot, at)?.id;
        let before = self.store.open_loads()?.len();
        let batch = NewBatch {
            day: day_of(at),
            name: None,
            recipe: None,
            product: recipe.product,
            medium: recipe.medium,
            pack: recipe.pack,
            thickness: recipe.thickness,
            method: Method::BoilingWater,
            agent: recipe.agent,
            salt: recipe.salt,
            rest: None,
            additions: Some(Vec::new()),
            altitude_ft: ALTITUDE_FT,
            draws: vec![Draw { lot, weight_g }],
            loads: recipe
                .loads
                .into_iter()
                .map(|line| NewLoad { jars: vec![line], minutes: Minutes(recipe.minutes), psi: None })
                .collect(),
            canner: self.store.kitchen()?.canner.id,
        };
        self.store.add_batch(&batch, at)?;
        Ok(self.store.open_loads()?.into_iter().skip(before).map(|load| load.id).collect())
    }

    fn fill_jars(&self, load: LoadId, at: Moment) -> Result<(), StoreError> {
        self.store.tick_load(load, JarStep::Acid, at)?;
        self.store.tick_load(load, JarStep::Lid, at)?;
        self.store.set_claims(load, &Claims::USUAL, &ToldBy::here(at))?;
        Ok(())
    }

    /// Runs a load from the bench to the towel, lifted at `lifted`.
    fn process(&self, load: LoadId, minutes: u32, lifted: Moment) -> Result<(), StoreError> {
        let boil = i64::from(minutes);
        self.fill_jars(load, lifted.plus_minutes(-boil - 40))?;
        self.store.jars_in(load, WaterOver::Well, lifted.plus_minutes(-boil - 28))?;
        for (event, before) in [(BoilEvent::Boils, boil + 6), (BoilEvent::HeatOff, 6), (BoilEvent::Lifted, 0)]
        {
            self.store.add_event(load, event, lifted.plus_minutes(-before))?;
        }
        Ok(())
    }

    /// Writes down what left a batch beside its jars.
    fn moved(
        &self,
        from: Source,
        (food, place): (Food, FoodPlace),
        told: Told,
        packs: Option<u32>,
        ago: i64,
    ) -> Result<(), StoreError> {
        #[allow(clippy::cast_possible_truncation)] // some kilograms
        let weight_g = told.mass(food, PRODUCT_BRIX).get::<gram>().round() as i64;
        let new = NewMove { from, food, place, told, weight_g, packs };
        let at = self.now.plus_minutes(-ago);
        self.store.add_move(&new, at, day_of(at))?;
        Ok(())
    }

    /// What goes elsewhere than into jars on a day like this: thin juice off the sauce, which a second pan helps with; bits
    /// and skins of the whole tomatoes; a half-full last jar; bags that thaw; a part for the freezer.
    fn elsewhere(
        &self,
        morning: &[LoadId],
        whole: &[LoadId],
        thin: Option<BatchId>,
        kettle: CookId,
    ) -> Result<(), StoreError> {
        let (store, now) = (self.store, self.now);
        let quarts = |amount| Told { amount, measure: FoodMeasure::Quart };
        let pounds = |amount| Told { amount, measure: FoodMeasure::Pound };
        let batch = |loads: &[LoadId]| {
            loads.first().map(|load| Ok::<_, StoreError>(store.load(*load)?.batch.id)).transpose()
        };
        if let Some(sauce) = batch(morning)? {
            let half = Told { amount: 1.5, measure: FoodMeasure::Cup };
            self.moved(Source::Batch(sauce), (Food::Product, FoodPlace::Refrigerator), half, None, 320)?;
        }
        if let Some(whole) = batch(whole)? {
            self.moved(Source::Batch(whole), (Food::Bits, FoodPlace::Line), quarts(2.5), None, 130)?;
            let bits = store.lots()?.into_iter().find(|lot| lot.food == Food::Bits);
            if let Some(bits) = bits {
                let chilled = LotChange { chilled: Some(true), ..LotChange::default() };
                store.change_lot(bits.id, &chilled, now.plus_minutes(-128))?;
            }
            self.moved(Source::Batch(whole), (Food::Trimmings, FoodPlace::Dried), pounds(3.0), None, 125)?;
        }
        if let Some(thin) = thin {
            let event = |ago: i64, what, value| told(now.plus_minutes(-ago), what, value);
            let litres = Told { amount: 1.4, measure: FoodMeasure::Litre };
            let juice = NewMove {
                from: Source::Batch(thin),
                food: Food::ThinJuice,
                place: FoodPlace::Line,
                told: litres,
                weight_g: 1_424,
                packs: None,
            };
            store.take_off(kettle, &event(20, CookWhat::LadleL, 1.4), Some(&juice), day_of(now))?;
            let pan = store.kettles()?.into_iter().find(|kettle| kettle.name == PAN);
            if let Some(pan) = pan {
                let cook = NewCook {
                    kettle: pan.id,
                    batch: Some(thin),
                    volume_l: 3.2,
                    brix: 5.0,
                    target: TargetKind::FractionLeft,
                    target_value: 2.0 / 3.0,
                    setting: HeatSetting::High,
                    start_c: 85.0,
                    litres_per_hour: 2.0,
                    shown: None,
                };
                store.start_cook(&cook, now.plus_minutes(-25))?;
            }
        }
        // Bags of last autumn, thawed since the morning; and a part of yesterday's crate in the freezer.
        let bags = NewLot {
            food: Food::Fruit,
            told: None,
            picked_on: day_of(now.plus_minutes(-345 * DAY)),
            kind: Kind::Mixed,
            condition: Condition::FirmRipe,
            fault: None,
            back_on: None,
            frozen: true,
            weight_g: 5_400,
        };
        let bags = store.add_lot(&bags, now.plus_minutes(-240))?.id;
        self.moved(Source::Lot(bags), (Food::Water, FoodPlace::Discarded), quarts(1.0), None, 30)?;
        let thawed = LotChange { thawed: Some(true), ..LotChange::default() };
        store.change_lot(bags, &thawed, now.plus_minutes(-30))?;
        let crate_of = self.lot(1, Kind::Mixed, Condition::FirmRipe, 6_800)?;
        let raw = (Food::Fruit, FoodPlace::Freezer);
        self.moved(Source::Lot(crate_of), raw, pounds(9.0), Some(3), 60)
    }

    fn shelve(&self) -> Result<(), StoreError> {
        for towel in self.store.towel()? {
            let jars: Vec<JarId> = towel.jars.iter().map(|jar| jar.id).collect();
            self.store.judge_seals(&jars, Some(LidVerdict::Holds), towel.check_from)?;
            self.store.tidy(&jars, true, towel.check_from)?;
        }
        Ok(())
    }
}

/// The kitchen of the demo, with nothing in it yet.
///
/// # Errors
/// What the store says.
pub fn furnish(store: &Store, now: Moment) -> Result<(), StoreError> {
    let kitchen = KitchenChange {
        name: Some("Saltbrook Terrace".to_owned()),
        altitude_ft: Some(ALTITUDE_FT),
        people: Some(2),
        ..KitchenChange::default()
    };
    store.change_kitchen(&kitchen, &ToldBy::here(now))?;
    let canner = store.kitchen()?.canner.id;
    store.change_canner(
        canner,
        &CannerChange {
            name: Some("black speckled canner".to_owned()),
            pot: Some(PotSize {
                inner_diameter_mm: 305.0,
                inner_length_mm: None,
                inner_height_mm: 270.0,
                rack_height_mm: 12.0,
            }),
            power_w: Some(2600.0),
            burner_mm: Some(220.0),
            ..CannerChange::default()
        },
    )?;
    store.add_container("blue fish box", 9_980)?;
    store.add_container("Merle's wicker basket", 4_310)?;
    for (name, inner_diameter_mm, depth_mm, heat) in [
        ("blue enamel kettle", 300.0, 260.0, KettleHeat::Burner),
        (PAN, 380.0, 150.0, KettleHeat::Burner),
        ("big roaster", 420.0, 90.0, KettleHeat::Oven),
    ] {
        store.add_kettle(&NewKettle {
            name: name.to_owned(),
            inner_diameter_mm,
            top_diameter_mm: None,
            depth_mm,
            heat,
        })?;
    }
    Ok(())
}

/// Fills an empty store with the demo day.
///
/// # Errors
/// What the store says.
pub fn fill(store: &Store, now: Moment) -> Result<(), StoreError> {
    furnish(store, now)?;
    live_in(store, now)
}

/// The season and the day in a kitchen that is furnished, whatever lies behind it.
///
/// # Errors
/// As [`furnish`].
pub fn live_in(store: &Store, now: Moment) -> Result<(), StoreError> {
    let season = Season { store, now };
    let earlier = [
        (345, Kind::Paste, 13_900, sauce(vec![(JarSize::Pint, 9)])),
        (21, Kind::Slicer, 20_900, juice(vec![(JarSize::Quart, 7), (JarSize::Quart, 7)])),
        (16, Kind::Paste, 28_300, whole(vec![(JarSize::Quart, 7), (JarSize::Quart, 7), (JarSize::Quart, 7)])),
        (9, Kind::Mixed, 11_600, crushed(vec![(JarSize::Pint, 9), (JarSize::Pint, 9)])),
    ];
    for (days_ago, kind, weight_g, recipe) in earlier {
        let minutes = recipe.minutes;
        let start = now.plus_minutes(-days_ago * DAY);
        let loads = season.batch(start, kind, weight_g, recipe)?;
        for (load, hour) in loads.into_iter().zip([2, 4, 6]) {
            season.process(load, minutes, start.plus_minutes(hour * 60))?;
        }
        season.shelve()?;
    }

    // Through the winter some of it was eaten; of last autumn's sauce a third is left.
    let autumn = store.shelf(&ShelfSearch::default())?.into_iter().next();
    if let Some(autumn) = autumn {
        for days_ago in [290, 241, 200, 148, 96, 33] {
            let jar = store.next_jar(autumn.batch, autumn.size)?;
            let eaten = Gone { how: Leaving::Eaten, why: None };
            store.leave(&[jar], Some(eaten), now.plus_minutes(-days_ago * DAY))?;
        }
    }

    // This morning: two loads of thick sauce, cooling.
    let morning = season.batch(
        now.plus_minutes(-7 * 60),
        Kind::Paste,
        21_400,
        sauce(vec![(JarSize::Pint, 9), (JarSize::Pint, 5)]),
    )?;
    for (load, ago) in morning.iter().zip([300, 205]) {
        season.process(*load, 40, now.plus_minutes(-ago))?;
    }

    // Now: whole tomatoes in water, the second load in the canner at a full boil, the third on the bench.
    let whole = season.batch(
        now.plus_minutes(-200),
        Kind::Paste,
        25_000,
        whole(vec![(JarSize::Quart, 7), (JarSize::Quart, 7), (JarSize::Quart, 4)]),
    )?;
    if let [first, second, third] = whole[..] {
        season.process(first, 50, now.plus_minutes(-62))?;
        season.fill_jars(second, now.plus_minutes(-55))?;
        store.jars_in(second, WaterOver::Well, now.plus_minutes(-49))?;
        store.add_event(second, BoilEvent::Boils, now.plus_minutes(-27))?;
        // Half time is over, and somebody looked.
        store.set_water(second, WaterOver::Well, &ToldBy::here(now.plus_minutes(-2)))?;
        for jar in store.load(third)?.jars.iter().take(2) {
            store.tick_jar(jar.id, JarStep::Acid, true, now.plus_minutes(-3))?;
        }
    }

    // Planned this noon beside it: thin sauce, which is on the stove, and a load of juice.
    let noon = now.plus_minutes(-190);
    let thin = Recipe {
        thickness: Some(Thickness::Thin),
        minutes: 40,
        ..sauce(vec![(JarSize::Pint, 9), (JarSize::Pint, 7)])
    };
    let thin = season.batch(noon, Kind::Paste, 17_800, thin)?;
    season.batch(noon, Kind::Slicer, 9_100, juice(vec![(JarSize::Quart, 6)]))?;
    let sauce_batch = thin.first().map(|load| store.load(*load)).transpose()?.map(|load| load.batch.id);

    // It cooked down twice before, so that its burner is known; the second time it took longer.
    for (days, volume_l, lines) in [
        (6, 10.5, [(45, 1.0), (70, 141.0), (100, 125.0), (130, 109.0)]),
        (3, 11.0, [(52, 1.0), (80, 147.0), (110, 131.0), (150, 111.0)]),
    ] {
        let Some(kettle) = store.kettles()?.into_iter().find(|kettle| kettle.depth_mm > 200.0) else {
            continue;
        };
        let begun = now.plus_minutes(-days * 24 * 60);
        let cook = NewCook {
            kettle: kettle.id,
            batch: None,
            volume_l,
            brix: 5.0,
            target: TargetKind::FractionLeft,
            target_value: 2.0 / 3.0,
            setting: HeatSetting::High,
            start_c: 20.0,
            litres_per_hour: 2.0,
            shown: Some(Shown { rate_doubt: 0.5, thickens: None }),
        };
        let cook = store.start_cook(&cook, begun)?.id;
        let mut last = begun;
        for (place, (minute, value)) in lines.into_iter().enumerate() {
            let what = if place == 0 { CookWhat::Boils } else { CookWhat::DepthMm };
            last = begun.plus_minutes(minute);
            store.add_cook_event(cook, &told(last, what, value))?;
        }
        store.end_cook(cook, true, last.plus_minutes(14))?;
    }

    // On the stove since a while: juice for thin sauce, read twice on the stick.
    let kettle = store.kettles()?.into_iter().find(|kettle| kettle.depth_mm > 200.0).map(|kettle| kettle.id);
    if let Some(kettle) = kettle {
        let cook = NewCook {
            kettle,
            batch: sauce_batch,
            volume_l: 11.4,
            brix: 5.0,
            target: TargetKind::FractionLeft,
            target_value: 2.0 / 3.0,
            setting: HeatSetting::High,
            start_c: 82.0,
            litres_per_hour: 2.2,
            shown: Some(Shown { rate_doubt: 0.15, thickens: Some((0.1, 0.1)) }),
        };
        let cook = store.start_cook(&cook, now.plus_minutes(-55))?;
        for (ago, what, value) in
            [(44, CookWhat::Boils, 1.0), (26, CookWhat::DepthMm, 158.0), (8, CookWhat::DepthMm, 127.0)]
        {
            store.add_cook_event(cook.id, &told(now.plus_minutes(-ago), what, value))?;
        }
        season.elsewhere(&morning, &whole, sauce_batch, cook.id)?;
    }

    // The cupboard as it was counted after that, and what the shelf still asks for.
    for (item, amount) in [
        (Item::Jar(JarSize::Quart), 16.0),
        (Item::Jar(JarSize::Pint), 22.0),
        (Item::Jar(JarSize::HalfPint), 12.0),
        (Item::Lid(Mouth::Regular), 31.0),
        (Item::Acid(Agent::BottledLemonJuice), 880.0),
        (Item::Acid(Agent::CitricAcid), 140.0),
    ] {
        store.count_stock(item, amount, None, now.plus_minutes(-150))?;
    }
    let sauce_pints = Goal {
        product: Product::Sauce,
        medium: None,
        pack: Pack::Hot,
        thickness: Some(Thickness::Thin),
        jar: JarSize::Pint,
        count: 10,
        preference: 3,
    };
    let juice_quarts = Goal {
        product: Product::Juice,
        thickness: None,
        jar: JarSize::Quart,
        count: 6,
        preference: 2,
        ..sauce_pints
    };
    let crushed_quarts = Goal { product: Product::Crushed, count: 4, preference: 1, ..juice_quarts };
    store.set_goals(&[sauce_pints, juice_quarts, crushed_quarts])?;

    // Waiting: two crates, one more ripening on the sill.
    season.lot(1, Kind::Paste, Condition::FirmRipe, 13_608)?;
    season.lot(1, Kind::Slicer, Condition::Trim, 8_200)?;
    season.lot(0, Kind::Paste, Condition::Unripe, 4_100)?;
    recipes::recipes(store, now)
}

fn plain(product: Product, pack: Pack, minutes: u32, loads: Vec<(JarSize, u32)>) -> Recipe {
    Recipe {
        product,
        medium: None,
        pack,
        thickness: None,
        agent: Agent::BottledLemonJuice,
        salt: false,
        minutes,
        loads,
    }
}

fn sauce(loads: Vec<(JarSize, u32)>) -> Recipe {
    Recipe {
        thickness: Some(Thickness::Thick),
        agent: Agent::CitricAcid,
        ..plain(Product::Sauce, Pack::Hot, 40, loads)
    }
}

fn juice(loads: Vec<(JarSize, u32)>) -> Recipe {
    plain(Product::Juice, Pack::Hot, 45, loads)
}

fn crushed(loads: Vec<(JarSize, u32)>) -> Recipe {
    plain(Product::Crushed, Pack::Hot, 40, loads)
}

fn whole(loads: Vec<(JarSize, u32)>) -> Recipe {
    Recipe { medium: Some(Medium::Water), salt: true, ..plain(Product::Whole, Pack::Raw, 50, loads) }
}

/// A line of a kettle's log that somebody wrote.
fn told(at: Moment, what: CookWhat, value: f64) -> CookEvent {
    CookEvent { at, what, value, simulated: false, sure: false, booked: false }
}
