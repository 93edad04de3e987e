//! Fruit and a batch to set out, for every test of the store.

use bodega_core::jars::bench::JarStep;
use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{CannerId, LoadId, LotId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::batch::{Draw, NewBatch, NewLoad};
use bodega_model::records::lot::NewLot;
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_store::{Store, StoreError};
use jiff::civil::date;
use serde_json::Value;

pub const NOW: Moment = Moment(1_790_000_000_000);

pub fn lot(store: &Store, weight_g: i64, condition: Condition) -> LotId {
    let new = NewLot {
        food: bodega_model::ledger::food::Food::Fruit,
        told: None,
        picked_on: date(2026, 9, 11),
        kind: Kind::Paste,
        condition,
        fault: None,
        back_on: None,
        frozen: false,
        weight_g,
    };
    store.add_lot(&new, NOW).unwrap().id
}

/// Acid in, lids on: every jar of a load may go into the canner.
pub fn make_ready(store: &Store, load: LoadId, at: Moment) {
    store.tick_load(load, JarStep::Acid, at).unwrap();
    store.tick_load(load, JarStep::Lid, at).unwrap();
}

pub fn batch(draws: Vec<Draw>) -> NewBatch {
    let load = |count| NewLoad { jars: vec![(JarSize::Quart, count)], minutes: Minutes(50), psi: None };
    NewBatch {
        name: None,
        recipe: None,
        day: date(2026, 9, 12),
        product: Product::Whole,
        medium: Some(Medium::Water),
        pack: Pack::Raw,
        thickness: None,
        method: Method::BoilingWater,
        agent: Agent::CitricAcid,
        salt: false,
        rest: None,
        additions: Some(Vec::new()),
        altitude_ft: 2640.0,
        draws,
        loads: vec![load(2), load(1)],
        canner: CannerId(1),
    }
}

/// Everything that a long list tells.
pub fn told<T>(
    list: impl FnOnce(&mut dyn FnMut(T) -> std::io::Result<()>) -> Result<(), StoreError>,
) -> Result<Vec<T>, StoreError> {
    let mut all = Vec::new();
    list(&mut |one| {
        all.push(one);
        Ok(())
    })?;
    Ok(all)
}

/// Everything as one document.
pub fn exported(store: &Store) -> Result<Value, StoreError> {
    let mut text = Vec::new();
    store.export_to(&mut text)?;
    Ok(serde_json::from_slice(&text).unwrap())
}

/// Chance, the same one for the same seed (xorshift, Marsaglia 2003).
pub struct Chance(pub u64);

impl Chance {
    pub fn below(&mut self, most: u64) -> u64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        self.0 % most
    }
}
