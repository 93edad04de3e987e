//! Fruit and a batch to set out, for every test of the store.

use bodega_core::acid::Agent;
use bodega_core::fruit::{Condition, Kind};
use bodega_core::jar::JarSize;
use bodega_core::moment::{Minutes, Moment};
use bodega_core::process::{Medium, Method, Pack, Product};
use bodega_store::{Draw, JarStep, NewBatch, NewLoad, NewLot, Store};

pub const NOW: Moment = Moment(1_790_000_000_000);

pub fn lot(store: &Store, weight_g: i64, condition: Condition) -> i64 {
    let new = NewLot {
        picked_on: "2026-09-11".to_owned(),
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
pub fn make_ready(store: &Store, load: i64, at: Moment) {
    store.tick_load(load, JarStep::Acid, at).unwrap();
    store.tick_load(load, JarStep::Lid, at).unwrap();
}

pub fn batch(draws: Vec<Draw>) -> NewBatch {
    let load = |count| NewLoad { jars: vec![(JarSize::Quart, count)], minutes: Minutes(50), psi: None };
    NewBatch {
        day: "2026-09-12".to_owned(),
        product: Product::Whole,
        medium: Some(Medium::Water),
        pack: Pack::Raw,
        thickness: None,
        method: Method::BoilingWater,
        agent: Agent::CitricAcid,
        salt: false,
        rest: None,
        altitude_ft: 2640.0,
        draws,
        loads: vec![load(2), load(1)],
        canner: 1,
    }
}
