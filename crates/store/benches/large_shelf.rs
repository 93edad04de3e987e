//! How long a shelf of 20,000 jars takes to answer: `cargo bench --package bodega-store`.

#[path = "../tests/records/common.rs"]
mod common;

use std::time::Instant;

use bodega_core::canner::events::BoilEvent;
use bodega_core::crates::fruit::Condition;
use bodega_core::jars::size::JarSize;
use bodega_core::measures::moment::Minutes;
use bodega_core::records::batch::{Draw, NewBatch, NewLoad};
use bodega_core::records::shelf::ShelfSearch;
use bodega_core::towel::seal::LidVerdict;
use bodega_store::Store;
use common::{NOW, batch, lot, make_ready};

/// Batches of four loads of seven quarts.
const BATCHES: i64 = 715;

fn stock() -> Store {
    let store = Store::in_memory().unwrap();
    for day in 0..BATCHES {
        let at = NOW.plus_minutes(-day * 24 * 60);
        let lot = lot(&store, 40_000, Condition::FirmRipe);
        let load = NewLoad { jars: vec![(JarSize::Quart, 7)], minutes: Minutes(50), psi: None };
        let plain = batch(vec![Draw { lot, weight_g: 40_000 }]);
        let made = store.add_batch(&NewBatch { loads: vec![load; 4], ..plain }, at).unwrap();
        for load in store.batch_loads(made.id).unwrap() {
            make_ready(&store, load.id, at);
            for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)]
            {
                store.add_event(load.id, event, at.plus_minutes(minute)).unwrap();
            }
            let jars: Vec<_> = load.jars.iter().map(|jar| jar.id).collect();
            store.judge_seals(&jars, Some(LidVerdict::Holds), at.plus_minutes(900)).unwrap();
            store.tidy(&jars, true, at.plus_minutes(900)).unwrap();
        }
    }
    store
}

fn timed<T>(what: &str, work: impl Fn() -> T) {
    const TIMES: u32 = 20;
    let begun = Instant::now();
    for _ in 0..TIMES {
        work();
    }
    println!("{what:<28} {:>8.2} ms", begun.elapsed().as_secs_f64() * 1000.0 / f64::from(TIMES));
}

fn main() {
    let store = stock();
    let all = ShelfSearch::default();
    let jars: u32 = store.shelf(&all).unwrap().iter().map(|group| group.count).sum();
    println!("{jars} jars");
    timed("shelf", || store.shelf(&all).unwrap());
    let code = ShelfSearch { code: Some("0912-300".to_owned()), ..ShelfSearch::default() };
    timed("search by code", || store.shelf(&code).unwrap());
    timed("towel", || store.towel().unwrap());
    timed("next season", || store.stocked().unwrap());
    timed("open loads", || store.open_loads().unwrap());
    timed("open batches", || store.open_batches().unwrap());
    timed("cupboard", || store.cupboard().unwrap());
    timed("yields", || store.finished().unwrap());
}
